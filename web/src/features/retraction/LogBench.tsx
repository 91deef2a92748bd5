import { newId } from "../../app/ids";
import { Dialog } from "radix-ui";
import { useRef, useState } from "react";
import { ApiError, type Schemas } from "../../app/api";
import { useKeys } from "../../app/hooks";
import { toMm, typedNumber, useLength, useLengthUnit } from "../../app/units";
import { Overlay } from "../../ui/Overlay";
import { ProblemNote } from "../../ui/Problem";
import { StrikeOut } from "../../ui/StrikeOut";
import { figure } from "../jobs/words";
import { useInstruments } from "../measuring/fields";
import { GaugePanel } from "../measuring/GaugePanel";
import { useSpoken, type useTurnCount } from "./count";
import { LogPlot } from "./LogPlot";

type Answer = Schemas["LogAnswer"];
type Point = Schemas["LogPoint"];
export interface LogLine {
  point: Point;
  gauge: string;
  struckBecause: string | null;
}

/** Characters of the largest figure that still gets the largest size. */
const FIVE = 4;

/** The number to act on and the place to tap for each turn: eyes on the boot, one hand on the tool. */
export function CountWindow({
  answer,
  count,
  turned,
  planned,
  still,
  halt = null,
}: {
  answer: Answer | undefined;
  count: ReturnType<typeof useTurnCount>;
  turned: boolean;
  planned: { turns: number | null; travelMm: number } | null;
  still: boolean;
  /** What else stops the work, such as a torn boot. */
  halt?: { name: string; do: string } | null;
}) {
  const toGo = answer?.turnsToGo ?? null;
  const big =
    toGo ?? (turned ? (planned?.turns ?? null) : (answer?.travelToGoMm ?? planned?.travelMm ?? null));
  const inTurns = toGo !== null || (turned && planned?.turns !== null);
  const unit = turned ? "turns" : "strokes";
  const length = useLength();
  // What stops the work takes the number's place.
  const found = answer?.findings.find((f) => f.stop);
  const stop = halt ? { ...halt, kind: "boot" as const } : found;
  const text = stop
    ? stop.kind === "home"
      ? "home"
      : "stop"
    : big === null
      ? "?"
      : inTurns
        ? big.toFixed(1)
        : length.of(big);
  const spoken = useSpoken(
    stop ? `${stop.name}. ${stop.do}` : big === null ? null : `${figure(big)} to go`,
    `${count.turns} ${stop?.kind ?? ""}`,
  );
  return (
    <div className="window flex items-stretch gap-3 !p-0 max-[800px]:flex-col max-[800px]:gap-0">
      <button
        type="button"
        disabled={still}
        onClick={() => count.add(1)}
        className="flex min-w-0 flex-1 items-end gap-5 border-0 bg-transparent px-5 py-2 text-left text-inherit"
        aria-label={`${inTurns ? unit : length.name} to go ${text}. Touch for each ${turned ? "turn" : "stroke"}`}
      >
        <span className="block">
          <span className="block text-[17px]">
            {stop
              ? stop.name
              : inTurns
                ? `${turned ? "Turns" : "Strokes"} to go`
                : turned
                  ? "Turns to make"
                  : `Push it in, ${length.name}`}
          </span>
          <span className={`huge block ${stop || text.length > FIVE ? "huge-5 pb-2" : ""}`}>{text}</span>
        </span>
        <span className="block pb-2">
          {answer?.travelToGoMm != null && inTurns && (
            <span className="block text-[30px] leading-none">{length.with(answer.travelToGoMm)}</span>
          )}
          <span className="mt-1 block text-[16px]">
            {answer?.turnsToGoError != null && `± ${figure(answer.turnsToGoError, 2)}, `}
            {figure(count.turns, 2)} {unit} made
            {answer?.fluidToComeMl != null && `, ${figure(answer.fluidToComeMl)} mL still to come`}
          </span>
          {!still && !stop && (
            <span className="block text-[15px]">
              {count.paused
                ? "Paused: touches do not count."
                : `Touch here for each ${turned ? "turn" : "stroke"}.`}
            </span>
          )}
        </span>
      </button>
      {!still && (
        <div className="flex flex-col justify-center gap-1 py-2 pr-3 max-[1100px]:pr-2 max-[800px]:flex-row max-[800px]:justify-start max-[800px]:pl-4">
          {turned && (
            <button type="button" className="btn btn-dark" onClick={() => count.add(0.5)}>
              + ½
            </button>
          )}
          <button type="button" className="btn btn-dark" aria-pressed={count.paused} onClick={count.pause}>
            {count.paused ? "Go on" : "Pause"}
          </button>
          {spoken.can && (
            <button type="button" className="btn btn-dark" aria-pressed={spoken.on} onClick={spoken.toggle}>
              Spoken
            </button>
          )}
        </div>
      )}
    </div>
  );
}

/** What the log finds, the gravest first, with what to do. */
export function Findings({ answer, children }: { answer: Answer; children?: React.ReactNode }) {
  const first = answer.findings[0];
  if (!first) return null;
  const bad = first.stop && first.kind !== "home";
  // Stuck says what stopped it: once is enough.
  const rest = answer.findings
    .slice(1)
    .filter((f) => first.kind !== "stuck" || f.kind === "harder-than-other");
  return (
    <div
      role="status"
      className={`flex-shrink-0 rounded border-2 px-3 py-2 ${first.kind === "home" ? "border-inside" : bad ? "border-outside" : "border-undecided"}`}
    >
      <p
        className={`title m-0 text-[25px] ${first.kind === "home" ? "text-inside" : bad ? "text-outside" : "text-undecided"}`}
      >
        {first.name}. {first.do}
      </p>
      <p className="m-0 text-[15px]">{first.says}</p>
      {rest.map((f) => (
        <p key={f.kind} className="m-0 mt-1 text-[15px]">
          <b>{f.name}.</b> {f.says} {f.do}
        </p>
      ))}
      {children}
    </div>
  );
}

/** Every line of the log; a wrong one is struck out with its reason and stays visible. */
function Lines({
  lines,
  turned,
  strike,
}: {
  lines: LogLine[];
  turned: boolean;
  strike: (id: string, reason: string) => Promise<unknown>;
}) {
  const length = useLength();
  return (
    <Dialog.Root>
      <Dialog.Trigger
        className="btn !px-2"
        disabled={lines.length === 0}
        aria-label={`The log, ${lines.length} lines`}
      >
        Log {lines.length}
      </Dialog.Trigger>
      <Overlay title="The log">
        <ol className="m-0 flex list-none flex-col gap-1 p-0">
          {lines.map(({ point: p, gauge, struckBecause }) => (
            <li key={p.id} className="flex items-center justify-between gap-2 border-t border-rule py-1">
              <span className={struckBecause === null ? "" : "text-ink-2 line-through"}>
                <b>
                  {figure(p.turns, 2)} {turned ? "turns" : "strokes"}
                </b>
                , {length.with(p.protrusionMm, 3)}
                {p.released ? ", tool released" : ""}
                {(p.stage ?? 1) > 1 ? `, stage ${p.stage}` : ""}
                {p.effortNm != null ? `, ${figure(p.effortNm)} N m` : ""}
                <span className="block text-[14px] text-ink-2">{struckBecause ?? gauge}</span>
              </span>
              {struckBecause === null && <StrikeOut strike={(reason) => strike(p.id, reason)} />}
            </li>
          ))}
        </ol>
      </Overlay>
    </Dialog.Root>
  );
}

/** The plot, what is found, and the field a gauge types into. The same with a job and without. */
export function LogPanel({
  answer,
  lines,
  home,
  turned,
  planned,
  count,
  note,
  strike,
  found,
  stops,
  active,
}: {
  answer: Answer | undefined;
  lines: LogLine[];
  home: number | null;
  turned: boolean;
  planned: number | null;
  count: ReturnType<typeof useTurnCount>;
  note: (point: Point, instrumentId: string) => Promise<unknown>;
  strike: (id: string, reason: string) => Promise<unknown>;
  found?: React.ReactNode;
  stops?: React.ReactNode;
  active: boolean;
}) {
  const [unit, setUnit] = useLengthUnit();
  const [text, setText] = useState("");
  const [effort, setEffort] = useState("");
  const [tool, setTool] = useState("depth-gauge");
  const [released, setReleased] = useState(false);
  const [reversed, setReversed] = useState(false);
  const [error, setError] = useState<unknown>(null);
  const field = useRef<HTMLInputElement>(null);
  const busy = useRef(false);
  const instruments = useInstruments();
  const points = lines.filter((l) => l.struckBecause === null).map((l) => l.point);
  const mm = toMm(text, unit);
  const pull = typedNumber(effort);
  const bad = Number.isNaN(mm) || Number.isNaN(pull);
  const log = async () => {
    if (mm === null || bad) return field.current?.focus();
    if (busy.current) return;
    busy.current = true;
    try {
      await note(
        {
          id: newId(),
          turns: count.turns,
          protrusionMm: Number(mm.toFixed(6)),
          stage: (answer?.stage ?? 1) + (reversed ? 1 : 0),
          released,
          effortNm: released ? null : pull,
        },
        tool,
      );
      setText("");
      setReleased(false);
      setReversed(false);
      setError(null);
      field.current?.focus();
    } catch (e) {
      setError(e);
    } finally {
      busy.current = false;
    }
  };
  useKeys({
    ...(active ? { Space: () => count.add(1), p: count.pause } : {}),
    ...(active && turned ? { h: () => count.add(0.5) } : {}),
  });
  const noun = turned ? "turn" : "stroke";
  return (
    <>
      {answer && <Findings answer={answer}>{found}</Findings>}
      {answer && (
        <LogPlot
          answer={answer}
          points={points}
          home={home}
          count={count.turns}
          turned={turned}
          teeth={planned}
        />
      )}
      {stops}
      {active && (
        <div className="flex flex-shrink-0 flex-col gap-2">
          <div className="flex flex-wrap items-stretch gap-1">
            <label className="field !min-h-[48px] min-w-[96px] flex-1 !px-2 !py-0">
              <span className="truncate">Measured with</span>
              <select value={tool} onChange={(e) => setTool(e.target.value)}>
                {instruments.data
                  ?.filter(({ instrument: i }) => !i.uses || i.uses.includes("depth"))
                  .map(({ instrument: i, inDate }) => (
                    <option key={i.id} value={i.id}>
                      {i.name}
                      {inDate ? "" : ", out of calibration"}
                    </option>
                  ))}
              </select>
            </label>
            {turned && (
              <label className="field !min-h-[48px] w-[66px] !px-2 !py-0">
                <span>N m</span>
                <input
                  inputMode="decimal"
                  value={effort}
                  aria-invalid={Number.isNaN(pull)}
                  onChange={(e) => setEffort(e.target.value)}
                />
              </label>
            )}
            <button
              type="button"
              className="btn !px-1.5"
              aria-pressed={released}
              onClick={() => setReleased(!released)}
            >
              Tool released
            </button>
            {turned && (
              <button
                type="button"
                className="btn !px-1.5"
                aria-pressed={reversed}
                onClick={() => setReversed(!reversed)}
              >
                Turned back
              </button>
            )}
            <GaugePanel bench={{ instrument: () => tool, unit, setUnit }} measurand="rotor-thickness" />
            <Lines lines={lines} turned={turned} strike={strike} />
          </div>
          <ProblemNote error={error instanceof ApiError && !error.problem.errors?.length ? error : null} />
          <div className="bench-action grid grid-cols-[minmax(0,4fr)_minmax(0,5fr)] gap-2">
            <label className="field min-w-0">
              <span className="truncate">
                Stands proud at {noun} {figure(count.turns, 2)}, {unit}
              </span>
              <input
                ref={field}
                data-reading="0"
                inputMode="decimal"
                aria-label="Stands proud"
                aria-invalid={bad || error !== null}
                value={text}
                onChange={(e) => {
                  setText(e.target.value);
                  setError(null);
                }}
                onKeyDown={(e) => {
                  if (e.key !== "Enter") return;
                  e.preventDefault();
                  void log();
                }}
              />
            </label>
            <button type="button" className="btn-primary" onClick={() => void log()}>
              Log {noun} {figure(count.turns, 2)} <span className="keycap">Enter</span>
            </button>
          </div>
          {(bad || error !== null) && (
            <p className="wrong m-0" role="alert">
              {bad
                ? "A plain figure is wanted, such as 7.9."
                : error instanceof ApiError
                  ? (error.problem.errors?.map((x) => x.message).join(" ") ?? "")
                  : "No answer from the server. What you typed is still here."}
            </p>
          )}
        </div>
      )}
    </>
  );
}
