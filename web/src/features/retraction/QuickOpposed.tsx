import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { api, ApiError, take, type Schemas } from "../../app/api";
import { useFigures } from "../../app/hooks";
import { ProblemNote } from "../../ui/Problem";
import { Why } from "../../ui/Why";
import { fromSheet, useBenchSheet, type SheetFigures } from "../measuring/bench/sheet";
import { Choice, FactField } from "../measuring/fields";
import { ANSWER, COLUMNS, KNOWN } from "./columns";
import { BANKS, OpposedSeen, PairWindow } from "./OpposedSeen";

/** Opposed pistons: which pair goes next, which are held, and whether one crept out. */
export function QuickOpposed({ tabs }: { tabs: React.ReactNode }) {
  const { sheet, picker } = useBenchSheet();
  const figures: SheetFigures | null = sheet && {
    code: sheet.code,
    of: { home: sheet.piston.homeProtrusionMm, limit: sheet.piston.protrusionLimitMm },
  };
  const { v, set, number } = useFigures("quick opposed", figures?.of);
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
      value={v[key] || null}
      wrong={name ? wrong(name) : undefined}
      sheet={fromSheet(figures, key)}
      onChange={(t) => set(key, t ?? "")}
    />
  );
  const a = whole ? asked.data : undefined;
  return (
    <div className={COLUMNS}>
      <section className={KNOWN} aria-label="What you know">
        {tabs}
        {picker}
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
            <PairWindow answer={a} />
            <OpposedSeen answer={a} home={home} />
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
