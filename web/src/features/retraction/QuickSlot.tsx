import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { api, ApiError, take, type Schemas, type Side } from "../../app/api";
import { useFigures } from "../../app/hooks";
import { useLength } from "../../app/units";
import { ProblemNote } from "../../ui/Problem";
import { useBox } from "../../ui/box";
import { Why } from "../../ui/Why";
import { figure } from "../jobs/words";
import { fromSheet, useBenchSheet, type SheetFigures } from "../measuring/bench/sheet";
import { Choice, FactField } from "../measuring/fields";
import { CaliperSeen } from "./CaliperSeen";
import { ANSWER, COLUMNS, KNOWN } from "./columns";
import { PistonFace } from "./PistonFace";
import { BOOT } from "./words";

type Known = Schemas["Known"];
const MOST = 300;

/** A slotted piston lined up with its pad pin, and the boot, with no job. */
export function QuickSlot({ tabs }: { tabs: React.ReactNode }) {
  const length = useLength();
  const { sheet, picker } = useBenchSheet();
  const figures: SheetFigures | null = sheet && {
    code: sheet.code,
    of: { slots: sheet.piston.slots || null, lead: sheet.piston.leadMm },
  };
  const { v, set, number } = useFigures("quick slot", figures?.of);
  const slots = number("slots");
  const present = number("present");
  const direction = (v.direction ?? "clockwise") as "clockwise" | "anticlockwise";
  const side = (v.side ?? "left") as Side;
  const place = (v.place ?? "behind-axle") as Schemas["CaliperPlace"];
  const boot = (v.boot ?? "free") as Schemas["BootState"];
  const body: Schemas["AlignmentRequest"] = {
    slot: {
      slots: slots ?? 1,
      presentDeg: present ?? 0,
      wantedDeg: number("wanted") ?? 0,
      direction,
      turnsFreelyAtHome: (v.free ?? "not-known") as Known,
      turnsHome: number("turns"),
      leadMm: number("lead"),
      needMm: number("need"),
      bottomed: v.bottomed === "yes",
      rule: (v.rule ?? "onward-only") as Schemas["AlignmentRule"],
      backOffLimitDeg: number("limit"),
    },
    side,
    place,
  };
  const asked = useQuery({
    queryKey: ["bench", "alignment", body],
    queryFn: () => take(api.POST("/api/bench/alignment", { body })),
    placeholderData: keepPreviousData,
    retry: false,
    staleTime: Infinity,
  });
  const looked = useQuery({
    queryKey: ["bench", "boot", boot, v.reseal],
    queryFn: () =>
      take(
        api.POST("/api/bench/boot", {
          body: { state: boot, resealAllowed: v.reseal === "yes" ? "yes" : "not-known", rule: "greased" },
        }),
      ),
    placeholderData: keepPreviousData,
    retry: false,
    staleTime: Infinity,
  });
  const wrong = (name: string) => (asked.error instanceof ApiError ? asked.error.field(name) : undefined);
  const field = (key: string, label: string, name: string, index: number) => (
    <FactField
      label={label}
      index={index}
      value={v[key] || null}
      wrong={wrong(name)}
      sheet={fromSheet(figures, key)}
      onChange={(t) => set(key, t ?? "")}
    />
  );
  const a = present === null || slots === null ? undefined : asked.data?.alignment;
  const whole = a ? Math.trunc(Math.abs(a.turnDeg) / 360) : 0;
  const [face, room] = useBox<HTMLDivElement>();
  return (
    <div className={COLUMNS}>
      <section className={KNOWN} aria-label="What you know">
        {tabs}
        {picker}
        <p className="m-0 text-ink-2">
          Angles facing the piston, clockwise; 0 is the middle of the caliper's window, away from the hub.
        </p>
        <div className="grid grid-cols-3 gap-2">
          {field("slots", "Slots", "slots", 0)}
          {field("present", "Slot now, °", "presentDeg", 1)}
          {field("wanted", "Slot needed, °", "wantedDeg", 2)}
          {field("turns", "Turns to home", "turnsHome", 3)}
          {field("lead", "Travel a turn, mm", "leadMm", 4)}
          {field("need", "Still needed, mm", "needMm", 5)}
        </div>
        <div className="grid grid-cols-2 gap-2">
          <Choice
            label="Retracts"
            value={direction}
            options={[
              ["clockwise", "clockwise"],
              ["anticlockwise", "anticlockwise"],
            ]}
            onChange={(t) => set("direction", t)}
          />
          <Choice
            label="Turns freely at home"
            value={(v.free ?? "not-known") as Known}
            options={[
              ["yes", "yes"],
              ["no", "no"],
              ["not-known", "not known"],
            ]}
            onChange={(t) => set("free", t)}
          />
          <Choice
            label="House rule"
            value={(v.rule ?? "onward-only") as Schemas["AlignmentRule"]}
            options={[
              ["onward-only", "onward only"],
              ["back-off-allowed", "back-off"],
            ]}
            onChange={(t) => set("rule", t)}
          />
          <Choice
            label="Home already, and resists"
            value={v.bottomed === "yes" ? "yes" : "no"}
            options={[
              ["no", "no"],
              ["yes", "yes"],
            ]}
            onChange={(t) => set("bottomed", t)}
          />
          {v.rule === "back-off-allowed" && field("limit", "Most back-off, °", "backOffLimitDeg", 6)}
        </div>
        <div className="grid grid-cols-[minmax(0,1fr)_auto] items-center gap-2">
          <div className="grid grid-cols-2 gap-2">
            <Choice
              label="Corner"
              value={side}
              options={[
                ["left", "left"],
                ["right", "right"],
              ]}
              onChange={(t) => set("side", t)}
            />
            <Choice
              label="Caliper"
              value={place}
              options={[
                ["ahead-of-axle", "ahead"],
                ["behind-axle", "behind"],
              ]}
              onChange={(t) => set("place", t)}
            />
          </div>
          {asked.data && <CaliperSeen view={asked.data.view} size={112} />}
        </div>
        {asked.data && <p className="m-0 text-[15px] text-ink-2">{asked.data.view.says}</p>}
      </section>
      <section className={ANSWER} aria-label="Answer">
        <div className="flex flex-shrink-0 items-start justify-between gap-2">
          <h2 className="text-[31px]">A slot on the pin's axis</h2>
          {a && <Why reasons={[a.reasons]} />}
        </div>
        {a ? (
          <>
            <div className="window flex items-end gap-6">
              <div>
                <div className="text-[17px]">
                  {a.act === "back-off"
                    ? "Turn back"
                    : a.act === "no-way"
                      ? "No way that is allowed"
                      : "Turn from here"}
                </div>
                <div className="flex items-baseline gap-3">
                  {whole > 0 && (
                    <>
                      <span className="huge">{whole}</span>
                      <span className="text-[22px] whitespace-nowrap">
                        {whole === 1 ? "turn" : "turns"} and
                      </span>
                    </>
                  )}
                  <span className="huge">{figure(Math.abs(a.turnDeg) % 360, 0)}°</span>
                </div>
              </div>
            </div>
            <p
              className={`m-0 flex-shrink-0 text-[19px] ${a.act === "no-way" || !a.leavesRoom ? "font-bold text-outside" : ""}`}
            >
              {a.says}
            </p>
            <p className="m-0 flex-shrink-0 text-[16px] text-ink-2">
              Onward {figure(a.onwardDeg)}°, back-off {figure(a.backOffDeg)}°
              {a.backOffComesOutMm !== null && ` (comes out ${length.with(a.backOffComesOutMm, 2)})`}
              {a.shortOfHomeMm !== null && `, ${length.with(a.shortOfHomeMm, 2)} short of home`}.
            </p>
            <div ref={face} className="flex min-h-0 flex-1 items-center justify-center overflow-hidden">
              <PistonFace
                ruling={{ direction, slots: slots ?? 0 }}
                size={Math.min(room.height, MOST)}
                slotDeg={present ?? 0}
                wantedDeg={number("wanted") ?? 0}
              />
            </div>
          </>
        ) : (
          <p className="m-0 flex-1 text-[18px]">
            Wanted: how many slots, and where one stands. It ends upright unless you say where.
          </p>
        )}
        <ProblemNote error={asked.error instanceof ApiError ? null : asked.error} />
        <div className="flex-shrink-0 border-t border-rule pt-2">
          <div className="grid grid-cols-[minmax(0,1fr)_auto] gap-2">
            <label className="field">
              <span>The boot is</span>
              <select value={boot} onChange={(e) => set("boot", e.target.value)}>
                {Object.entries(BOOT).map(([state, name]) => (
                  <option key={state} value={state}>
                    {name}
                  </option>
                ))}
              </select>
            </label>
            <button
              type="button"
              className="btn"
              aria-pressed={v.reseal === "yes"}
              onClick={() => set("reseal", v.reseal === "yes" ? "no" : "yes")}
            >
              Maker allows a reseal
            </button>
          </div>
          {looked.data && (
            <p className={`m-0 mt-2 text-[17px] ${looked.data.stop ? "font-bold text-outside" : ""}`}>
              {looked.data.do}
            </p>
          )}
        </div>
      </section>
    </div>
  );
}
