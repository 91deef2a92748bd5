import { useState } from "react";
import { type Schemas } from "../../app/api";
import { newId } from "../../app/ids";
import { ProblemNote } from "../../ui/Problem";
import { StrikeOut } from "../../ui/StrikeOut";
import { figure } from "../jobs/words";

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
