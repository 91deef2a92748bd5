import { newId } from "../../app/ids";
import { useEffect, useState } from "react";
import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { api, take, type Schemas } from "../../app/api";
import { useKeys } from "../../app/hooks";
import { useBox } from "../../ui/box";
import { ProblemNote } from "../../ui/Problem";
import { StrikeOut } from "../../ui/StrikeOut";
import { figure } from "../jobs/words";
import { Choice } from "../measuring/fields";

type Known = Schemas["Known"];

/** MAX on the drawing: the mark itself, no tolerance. */
const FULL = 100;
const TALL = 400;
const WIDE = 118;
const MARGIN = 52;
const GAP = 14;
const ABOVE = 10;
const UNDER_MIN = 34;
const BELOW = UNDER_MIN + 28;
/** A headspace drawn thinner than this would not be seen. */
const SLIVER = 0.08;

/** The stages of an answer, in their order. */
export const stagesOf = (answer: Schemas["ReservoirAnswer"]): [string, number][] => [
  ["now", answer.levelPercent],
  ...(answer.room.drawOffMl > 0 ? [["drawn off", answer.levelDrawn] as [string, number]] : []),
  ["pistons home", answer.levelHome],
  ["pedal up", answer.levelFinal],
];

/** The reservoir to scale, stage by stage. Laid out for the room it gets. */
export function ReservoirLevels({
  spec,
  stages,
}: {
  spec: Schemas["ReservoirSpec"];
  stages: [name: string, percent: number][];
}) {
  const [ref, room] = useBox<HTMLDivElement>();
  const says = stages.map(([name, at]) => `${name} ${figure(at, 0)} %`).join(", ");
  const height = Math.min(room.height, TALL);
  const share = Math.max(spec.headspaceMl / spec.bandMl, SLIVER);
  const band = (height - ABOVE - BELOW) / (1 + share);
  const top = ABOVE;
  const max = top + share * band;
  const min = max + band;
  const foot = min + UNDER_MIN;
  const y = (percent: number) => min - (percent / 100) * band;
  const inside = (percent: number) => Math.min(Math.max(y(percent), top), foot);
  const w = Math.min((room.width - MARGIN) / stages.length - GAP, WIDE);
  return (
    <div ref={ref} className="min-h-[170px] flex-1 overflow-hidden">
      {height > 0 && (
        <svg
          width={MARGIN + stages.length * (w + GAP)}
          height={height}
          role="img"
          aria-label={`Reservoir, per cent of MIN to MAX: ${says}.`}
        >
          {stages.map(([name, at], i) => {
            const x = MARGIN + i * (w + GAP);
            const over = at > FULL;
            return (
              <g key={name}>
                <rect x={x} y={inside(at)} width={w} height={foot - inside(at)} fill="var(--fluid)" />
                <path
                  d={`M${x} ${inside(at)} H${x + w}`}
                  stroke={over ? "var(--outside)" : "var(--measure)"}
                  strokeWidth="3"
                />
                <path
                  d={`M${x} ${top} V${foot} H${x + w} V${top}`}
                  fill="none"
                  stroke="var(--ink)"
                  strokeWidth="2"
                />
                <path
                  d={`M${x} ${max} H${x + 16} M${x} ${min} H${x + 16}`}
                  stroke="var(--ink)"
                  strokeWidth="2.5"
                />
                <text
                  x={x + w / 2}
                  y={Math.min(inside(at) + 22, foot - 6)}
                  textAnchor="middle"
                  fontSize="19"
                  fontWeight="700"
                  fill={over ? "var(--outside)" : "var(--ink)"}
                >
                  {figure(at, 0)} %
                </text>
                <text x={x + w / 2} y={foot + 20} textAnchor="middle" fontSize="15" fill="var(--ink-2)">
                  {name}
                </text>
              </g>
            );
          })}
          {(
            [
              ["MAX", max],
              ["MIN", min],
            ] as const
          ).map(([name, at]) => (
            <text
              key={name}
              x={MARGIN - 8}
              y={at + 5}
              textAnchor="end"
              fontSize="14"
              fontWeight="700"
              fill="var(--ink)"
            >
              {name}
            </text>
          ))}
        </svg>
      )}
    </div>
  );
}

/** What to draw off, or where it will stand. */
export function ReservoirSays({ answer }: { answer: Schemas["ReservoirAnswer"] }) {
  const draw = answer.room.verdict === "draw-off-first";
  return (
    <>
      <div className="window flex items-end gap-6">
        <div>
          <div className="text-[17px]">{draw ? "Draw off first, mL" : "With the pistons home, %"}</div>
          <div className="huge">{draw ? figure(answer.room.drawOffMl) : figure(answer.levelHome, 0)}</div>
        </div>
        <div className="pb-2 text-[16px]">
          <div>{figure(answer.backMl)} mL come back</div>
          <div>{figure(answer.levelFinal, 0)} % with the pedal up</div>
        </div>
      </div>
      {answer.says.map((s, i) => (
        <p
          key={s}
          className={`m-0 text-[18px] ${i === 0 ? "font-bold" : ""} ${s.startsWith("Never") ? "font-bold text-outside" : ""}`}
        >
          {s}
        </p>
      ))}
    </>
  );
}

/** Strokes counted by touching the window; the prediction stands beside. */
export function PedalCount({
  answer,
  counted,
  firm,
  count,
  setFirm,
  reset,
  keys,
}: {
  answer: Schemas["StrokesAnswer"];
  counted: number;
  firm: boolean;
  count: () => void;
  setFirm: (firm: boolean) => void;
  reset: () => void;
  keys: boolean;
}) {
  useKeys(keys ? { Space: count, f: () => setFirm(!firm) } : {});
  if (answer.verdict === "makers-routine")
    return <p className="m-0 text-[22px] font-bold text-outside">{answer.says}</p>;
  const bad = answer.verdict === "not-firm" || answer.verdict === "firm-late";
  return (
    <>
      <button type="button" onClick={count} className="window flex items-end gap-6 text-left">
        <span className="block">
          <span className="block text-[17px]">Strokes made</span>
          <span className="huge block">{counted}</span>
        </span>
        <span className="block pb-2">
          <span className="block text-[28px] leading-none">of about {answer.expected}</span>
          <span className="mt-1 block text-[16px]">{figure(answer.gapMl)} mL to bring up</span>
          <span className="block text-[15px]">Touch here for each stroke.</span>
        </span>
      </button>
      <p
        className={`m-0 text-[20px] ${bad ? "font-bold text-outside" : answer.verdict === "firm" ? "font-bold text-inside" : ""}`}
      >
        {answer.says}
      </p>
      <div className="grid grid-cols-2 gap-2">
        <button type="button" className="btn" aria-pressed={firm} onClick={() => setFirm(!firm)}>
          Firm and high
        </button>
        <button type="button" className="btn" onClick={reset}>
          Count anew
        </button>
      </div>
    </>
  );
}

/** Where the bleeding of one corner stands, and the field for the next draw. */
export function BleedPanel({
  answer,
  draws,
  note,
  name,
  error,
  strike,
}: {
  answer: Schemas["BleedAnswer"];
  draws: Schemas["DrawLine"][];
  note: (draw: Schemas["BleedDraw"]) => Promise<unknown>;
  name: string;
  error: unknown;
  strike: (drawId: string, reason: string) => Promise<unknown>;
}) {
  const [volume, setVolume] = useState("");
  const [seen, setSeen] = useState({ bubbles: false, colourChanged: false, clear: false, filled: false });
  const ml = Number(volume.replace(",", "."));
  const bad = volume.trim() !== "" && Number.isNaN(ml);
  const go = () => {
    if (volume.trim() === "" || bad) return;
    void note({ id: newId(), volumeMl: ml, ...seen }).then(
      () => {
        setSeen({ bubbles: false, colourChanged: false, clear: false, filled: false });
      },
      () => undefined,
    );
  };
  const flag = (key: keyof typeof seen, label: string) => (
    <button
      type="button"
      className="btn !px-2"
      aria-pressed={seen[key]}
      onClick={() => setSeen({ ...seen, [key]: !seen[key] })}
    >
      {label}
    </button>
  );
  return (
    <>
      <div className="window flex items-end gap-6">
        <div>
          <div className="text-[17px]">{answer.done ? "Bled" : "Draws before filling"}</div>
          <div className="huge">{answer.done ? "done" : answer.drawsBeforeFilling}</div>
        </div>
        <div className="pb-2 text-[16px]">
          <div>{figure(answer.drawnMl)} mL drawn</div>
          <div>{answer.ranDry ? "level under MIN" : `level about ${figure(answer.levelPercent, 0)} %`}</div>
          <div>{answer.clearInARow} clear in a row</div>
        </div>
      </div>
      <p
        className={`m-0 text-[20px] ${answer.ranDry ? "font-bold text-outside" : answer.done ? "font-bold text-inside" : ""}`}
      >
        {answer.says}
      </p>
      <ol className="m-0 list-decimal pl-6 text-[16px]">
        {answer.steps.map((s) => (
          <li key={s}>{s}</li>
        ))}
      </ol>
      {draws.length > 0 && (
        <ol
          className="m-0 max-h-[156px] min-h-[104px] list-none overflow-auto p-0 text-[15px]"
          aria-label={`Draws, ${name}`}
        >
          {[...draws].reverse().map(({ draw: d, struckBecause }) => (
            <li key={d.id} className="flex min-h-12 items-center justify-between gap-2 border-t border-rule">
              <span className={struckBecause === null ? "" : "text-ink-2 line-through"}>
                {figure(d.volumeMl)} mL{d.bubbles ? ", bubbles" : ""}
                {d.colourChanged ? ", new colour" : ""}
                {d.clear ? ", clear" : ""}
                {d.filled ? ", then filled" : ""}
              </span>
              {struckBecause !== null ? (
                <span className="text-ink-2">{struckBecause}</span>
              ) : (
                <StrikeOut strike={(reason) => strike(d.id, reason)} />
              )}
            </li>
          ))}
        </ol>
      )}
      <div className="mt-auto grid grid-cols-4 gap-2">
        {flag("bubbles", "Bubbles")}
        {flag("colourChanged", "New colour")}
        {flag("clear", "Clear")}
        {flag("filled", "Then filled")}
      </div>
      <ProblemNote error={error} />
      <div className="bench-action grid grid-cols-[minmax(0,4fr)_minmax(0,5fr)] gap-2">
        <label className="field">
          <span>Drawn, mL</span>
          <input
            data-reading="20"
            inputMode="decimal"
            aria-label="Drawn, mL"
            aria-invalid={bad}
            value={volume}
            onChange={(e) => setVolume(e.target.value)}
            onKeyDown={(e) => {
              if (e.key !== "Enter") return;
              e.preventDefault();
              go();
            }}
          />
        </label>
        <button type="button" className="btn-primary" onClick={go}>
          Note the draw <span className="keycap">Enter</span>
        </button>
      </div>
    </>
  );
}

/** The pedal held hard against the clock, then the looking. */
export function LeakTimer({
  keys,
  banjoUndone = false,
  note,
  error,
}: {
  keys: boolean;
  banjoUndone?: boolean;
  /** Stores it in the job; absent on the quick bench. */
  note?: (seen: Schemas["LeakInput"]) => void;
  error?: unknown;
}) {
  const [since, setSince] = useState<number | null>(null);
  const [held, setHeld] = useState(0);
  const [seen, setSeen] = useState<{ sank: boolean; screwDry: Known; banjoDry: Known; pipes: Known }>({
    sank: false,
    screwDry: "not-known",
    banjoDry: "not-known",
    pipes: "not-known",
  });
  useEffect(() => {
    if (since === null) return;
    const tick = setInterval(() => setHeld(Math.trunc((Date.now() - since) / 1000)), 200);
    return () => clearInterval(tick);
  }, [since]);
  const body = { heldSeconds: held, ...seen, banjoUndone };
  const asked = useQuery({
    queryKey: ["bench", "leaks", body],
    queryFn: () => take(api.POST("/api/bench/leaks", { body })),
    placeholderData: keepPreviousData,
    retry: false,
    staleTime: Infinity,
  });
  // Long enough is long enough: the clock stops there by itself.
  const enough = asked.data?.secondsLeft === 0;
  useEffect(() => {
    if (enough) setSince(null);
  }, [enough]);
  const press = () => {
    if (since !== null) setSince(null);
    else {
      setHeld(0);
      setSince(Date.now());
    }
  };
  useKeys(keys ? { Space: press } : {});
  const a = asked.data;
  const known: [Known, string][] = [
    ["yes", "yes"],
    ["no", "no"],
    ["not-known", "not yet"],
  ];
  return (
    <>
      <div className="window flex items-end gap-6">
        <div>
          <div className="text-[17px]">Hold it hard, seconds to go</div>
          <div className="huge">{a?.secondsLeft ?? "?"}</div>
        </div>
        <div className="pb-2 text-[16px]">{enough ? "Held" : since === null ? "Stopped" : "Running"}</div>
      </div>
      {a && <p className={`m-0 text-[20px] font-bold ${a.passed ? "text-inside" : ""}`}>{a.says}</p>}
      <div className="grid grid-cols-2 gap-2">
        <Choice
          label="Pipes and hoses looked at, sound"
          value={seen.pipes}
          options={known}
          onChange={(pipes) => setSeen({ ...seen, pipes })}
        />
        <Choice
          label="The pedal sank"
          value={seen.sank ? "yes" : "no"}
          options={[
            ["no", "no"],
            ["yes", "yes"],
          ]}
          onChange={(t) => setSeen({ ...seen, sank: t === "yes" })}
        />
        <Choice
          label="Bleed screw dry"
          value={seen.screwDry}
          options={known}
          onChange={(screwDry) => setSeen({ ...seen, screwDry })}
        />
        <Choice
          label="Banjo dry"
          value={seen.banjoDry}
          options={known}
          onChange={(banjoDry) => setSeen({ ...seen, banjoDry })}
        />
      </div>
      <ProblemNote error={error ?? asked.error} />
      {note && a && (a.passed || seen.sank) && (
        <button
          type="button"
          className={`mt-auto ${a.passed ? "btn-primary" : "btn"}`}
          onClick={() => note(body)}
        >
          Note it in the job
        </button>
      )}
      <button
        type="button"
        className={note && a?.passed ? "btn" : note && seen.sank ? "btn-primary" : "btn-primary mt-auto"}
        onClick={press}
      >
        {since === null ? "Pedal down: start the clock" : "Pedal up: stop the clock"}{" "}
        <span className="keycap">Space</span>
      </button>
    </>
  );
}

/** What may go in, and how wet it is. */
export function FluidSays({ answer }: { answer: Schemas["FluidAnswer"] }) {
  const never = answer.mix === "never" || answer.mix === "lowers-the-grade";
  return (
    <>
      <div className="window flex items-end gap-6">
        <div>
          <div className="text-[17px]">{answer.mix ? "That bottle" : "Boils at, at least, wet, °C"}</div>
          <div className="huge huge-5">
            {answer.mix
              ? never
                ? "never"
                : "yes"
              : answer.wetCelsius === null
                ? "maker"
                : figure(answer.wetCelsius, 0)}
          </div>
        </div>
        <div className="pb-2 text-[16px]">
          {answer.dryCelsius !== null && <div>{figure(answer.dryCelsius, 0)} °C fresh</div>}
          {answer.wetCelsius !== null && <div>{figure(answer.wetCelsius, 0)} °C wet</div>}
          {answer.marginCelsius !== null && <div>{figure(answer.marginCelsius, 0)} degrees to boiling</div>}
        </div>
      </div>
      {answer.says.map((s) => (
        <p
          key={s}
          className={`m-0 text-[19px] ${never && s === answer.says[0] ? "font-bold text-outside" : ""}`}
        >
          {s}
        </p>
      ))}
    </>
  );
}
