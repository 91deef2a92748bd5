import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { api, ApiError, take, type Schemas } from "../../app/api";
import { useFigures } from "../../app/hooks";
import { ProblemNote } from "../../ui/Problem";
import { Why } from "../../ui/Why";
import { figure } from "../jobs/words";
import { Choice, FactField } from "../measuring/fields";
import { ANSWER, COLUMNS, KNOWN } from "./columns";

type Bank = Schemas["PistonBank"];
const BANKS: Bank[] = ["inner", "outer"];

/** Opposed pistons: which pair goes next, which are held, and whether one crept out. */
export function QuickOpposed({ tabs }: { tabs: React.ReactNode }) {
  const { v, set, number } = useFigures("quick opposed");
  const pairs = Number(v.pairs ?? "2");
  const all = Array.from({ length: pairs }, (_, i) => i + 1).flatMap((n) =>
    BANKS.map((bank) => ({ bank, n })),
  );
  const pistons = all.map(({ bank, n }) => ({
    bank,
    number: n,
    beforeMm: number(`${bank} ${n} before`),
    nowMm: number(`${bank} ${n} now`) ?? number(`${bank} ${n} before`),
  }));
  const home = number("home");
  const whole = home !== null && pistons.every((p) => p.beforeMm !== null);
  const body: Schemas["CreepRequest"] = {
    pistons: pistons.map((p) => ({ ...p, beforeMm: p.beforeMm ?? 0, nowMm: p.nowMm ?? 0 })),
    homeProtrusionMm: home ?? 0,
    protrusionLimitMm: number("limit"),
  };
  const asked = useQuery({
    queryKey: ["bench", "creep", body],
    queryFn: () => take(api.POST("/api/bench/creep", { body })),
    enabled: whole,
    placeholderData: keepPreviousData,
    retry: false,
    staleTime: Infinity,
  });
  const wrong = (name: string) => (asked.error instanceof ApiError ? asked.error.field(name) : undefined);
  const field = (key: string, label: string, index: number, name = "") => (
    <FactField
      key={key}
      label={label}
      index={index}
      value={v[key] ?? null}
      wrong={name ? wrong(name) : undefined}
      onChange={(t) => set(key, t ?? "")}
    />
  );
  const a = whole ? asked.data : undefined;
  return (
    <div className={COLUMNS}>
      <section className={KNOWN} aria-label="What you know">
        {tabs}
        <Choice
          label="Pairs of pistons"
          value={v.pairs ?? "2"}
          options={["1", "2", "3"].map((n) => [n, n] as [string, string])}
          onChange={(t) => set("pairs", t)}
        />
        <div className="grid grid-cols-2 gap-2">
          {field("home", "Proud when home, mm", 0, "homeProtrusionMm")}
          {field("limit", "Furthest proud allowed, mm", 1, "protrusionLimitMm")}
        </div>
        <p className="m-0 text-ink-2">
          How far each stands proud, before the push and now, in mm. Pair 1 is at the leading end.
        </p>
        <div className="grid grid-cols-4 gap-2">
          {all.flatMap(({ bank, n }, i) => [
            field(
              `${bank} ${n} before`,
              `${bank === "inner" ? "Inner" : "Outer"} ${n}, before`,
              2 + 2 * i,
              "beforeMm",
            ),
            field(
              `${bank} ${n} now`,
              `${bank === "inner" ? "Inner" : "Outer"} ${n}, now`,
              3 + 2 * i,
              "nowMm",
            ),
          ])}
        </div>
        <button
          type="button"
          className="btn"
          onClick={() =>
            pistons.forEach((p) => {
              set(`${p.bank} ${p.number} before`, p.nowMm === null ? "" : String(p.nowMm));
              set(`${p.bank} ${p.number} now`, "");
            })
          }
        >
          Pushed: what is now becomes before
        </button>
      </section>
      <section className={ANSWER} aria-label="Answer">
        <div className="flex flex-shrink-0 items-start justify-between gap-2">
          <h2 className="text-[31px]">None may creep out</h2>
          {a && <Why reasons={[a.reasons]} />}
        </div>
        {a ? (
          <>
            <div className="window flex items-end gap-6">
              <div>
                <div className="text-[17px]">
                  {a.allHome ? "Done" : a.stop ? "Stop" : "Push next, together"}
                </div>
                <div className="huge">
                  {a.allHome ? "home" : a.nextPair === null ? "stop" : `Pair ${a.nextPair}`}
                </div>
              </div>
            </div>
            <p className={`m-0 text-[20px] ${a.stop ? "font-bold text-outside" : ""}`}>{a.says}</p>
            <Drawing answer={a} home={home ?? 0} />
          </>
        ) : (
          <p className="m-0 flex-1 text-[18px]">
            Opposite pistons go together and the others are held: fluid that leaves one pushes another out.
            Measure every one of them.
          </p>
        )}
        <ProblemNote error={asked.error instanceof ApiError ? null : asked.error} />
      </section>
    </div>
  );
}

/** The pistons as bars from each side toward the rotor, to scale among themselves. */
function Drawing({ answer, home }: { answer: Schemas["CreepAnswer"]; home: number }) {
  const most = Math.max(...answer.pistons.map((p) => Math.max(p.piston.nowMm, p.piston.beforeMm)), home + 1);
  const rows = Math.max(...answer.pistons.map((p) => p.piston.number));
  const h = 74;
  const reach = 170;
  const bar = (mm: number) => (mm / most) * reach;
  return (
    <svg
      width="548"
      height={rows * h + 30}
      viewBox={`0 0 548 ${rows * h + 30}`}
      className="h-auto max-w-full"
      role="img"
      aria-label={answer.says}
    >
      <rect
        x="262"
        y="4"
        width="24"
        height={rows * h + 6}
        fill="var(--iron)"
        stroke="var(--ink)"
        strokeWidth="2"
      />
      <text x="274" y={rows * h + 26} fontSize="14" textAnchor="middle" fill="var(--ink-2)">
        rotor
      </text>
      {answer.pistons.map((m) => {
        const inner = m.piston.bank === "inner";
        const top = (m.piston.number - 1) * h + 12;
        const [now, before] = [bar(m.piston.nowMm), bar(m.piston.beforeMm)];
        const x = (w: number) => (inner ? 70 : 478 - w);
        const line = (w: number) => (inner ? 70 + w : 478 - w);
        const held = answer.hold.some((p) => p.bank === m.piston.bank && p.number === m.piston.number);
        const bad = m.crept || m.leaving;
        return (
          <g key={m.piston.bank + m.piston.number}>
            <rect
              x={x(now)}
              y={top}
              width={now}
              height="40"
              fill={bad ? "var(--outside)" : "var(--lining)"}
              stroke="var(--ink)"
              strokeWidth="2"
            />
            <path
              d={`M${line(before)} ${top - 4} V${top + 44}`}
              stroke="var(--measure)"
              strokeWidth="2"
              strokeDasharray="5 3"
            />
            <path d={`M${line(bar(home))} ${top - 4} V${top + 44}`} stroke="var(--inside)" strokeWidth="3" />
            <text
              x={inner ? 60 : 488}
              y={top + 18}
              fontSize="15"
              textAnchor={inner ? "end" : "start"}
              fill="var(--ink)"
              fontWeight="700"
            >
              {figure(m.piston.nowMm)}
            </text>
            <text
              x={inner ? 60 : 488}
              y={top + 36}
              fontSize="14"
              textAnchor={inner ? "end" : "start"}
              fill="var(--ink-2)"
            >
              {m.home ? "home" : held ? "hold" : m.crept ? "crept" : ""}
            </text>
          </g>
        );
      })}
    </svg>
  );
}
