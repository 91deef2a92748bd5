import { useQuery } from "@tanstack/react-query";
import { Dialog } from "radix-ui";
import { useState } from "react";
import { api, take, type JobView, type Schemas, type Side } from "../../app/api";
import { useCommand } from "../../app/hooks";
import { Overlay } from "../../ui/Overlay";
import { ProblemNote } from "../../ui/Problem";
import { AwaitForm } from "./PartsAwaited";
import { duration } from "./words";

const SIDES: Side[] = ["left", "right"];

type Found = { kind: Schemas["FindingKind"]; side: Side | null };

/** What was found, in two touches from any step: this opens, and one of them is touched. What it changes is told before it is reported. */
export function FoundDialog({ job }: { job: JobView }) {
  const [open, setOpen] = useState(false);
  const [word, setWord] = useState("");
  const [note, setNote] = useState("");
  const [found, setFound] = useState<Found | null>(null);
  const [waits, setWaits] = useState(false);
  const report = useCommand<Found>(job, (h, it) =>
    take(
      api.POST("/api/jobs/{id}/findings", {
        params: { path: { id: job.id } },
        body: { ...h, ...it, note: note.trim() || null },
      }),
    ),
  );
  const lists = job.sheet.canFind;
  if (lists.every((l) => l.length === 0) || job.sheet.night) return null;
  const close = (next: boolean) => {
    setOpen(next);
    setFound(null);
    setWaits(false);
    setWord("");
    setNote("");
    report.reset();
  };
  const [left = [], car = [], right = []] = lists.map((cards) =>
    cards.filter((c) => `${c.name} ${c.does}`.toLowerCase().includes(word.trim().toLowerCase())),
  );
  const corner = [...left, ...right.filter((c) => left.every((l) => l.kind !== c.kind))];
  const canBe = (c: Schemas["FindingCard"], side: Side) =>
    (side === "left" ? left : right).some((x) => x.kind === c.kind);
  const card = found && lists.flat().find((c) => c.kind === found.kind);
  return (
    <Dialog.Root open={open} onOpenChange={close}>
      <Dialog.Trigger className="flex min-h-11 items-center border-0 bg-transparent p-0 text-inherit">
        Report a problem
      </Dialog.Trigger>
      {open && (
        <Overlay
          title={
            card
              ? `${card.name}${found.side ? `, ${found.side}` : ""}`
              : waits
                ? "Wait for parts"
                : "Report a problem"
          }
          wide={card || waits ? true : "most"}
          beside={
            !card &&
            !waits && (
              <label className="flex min-w-0 flex-1 items-center gap-2 text-[16px]">
                <span className="whitespace-nowrap">Search by a word</span>
                <input
                  className="h-12 min-w-0 flex-1 rounded border border-ink bg-plate px-3 text-[18px]"
                  value={word}
                  maxLength={40}
                  onChange={(e) => setWord(e.target.value)}
                />
              </label>
            )
          }
        >
          {waits ? (
            <AwaitForm job={job} back={() => setWaits(false)} done={() => close(false)} />
          ) : card ? (
            <>
              <Consequence job={job} found={found} does={card.does} />
              <label className="field mt-3">
                <span>{card.noteWanted ? `Say ${card.noteWanted}` : "Note"}</span>
                <input value={note} maxLength={500} onChange={(e) => setNote(e.target.value)} />
              </label>
              <ProblemNote error={report.error} />
              <div className="mt-3 flex gap-2">
                <button type="button" className="btn flex-1" onClick={() => setFound(null)}>
                  Something else
                </button>
                <button
                  type="button"
                  className="btn-primary flex-[2]"
                  disabled={report.isPending}
                  onClick={() => report.mutate(found, { onSuccess: () => close(false) })}
                >
                  Report it
                </button>
              </div>
            </>
          ) : (
            <>
              <h3 className="title m-0 text-[18px]">At a corner: left, right</h3>
              <div className="grid grid-cols-4 gap-x-3 gap-y-0.5 max-[900px]:grid-cols-3 max-[700px]:grid-cols-1">
                {corner.map((c) => (
                  <div key={c.kind} className="flex items-center gap-1">
                    <span className="min-w-0 flex-1 text-[15px] leading-[17px]">{c.name}</span>
                    {SIDES.map((side) => (
                      <button
                        key={side}
                        type="button"
                        className="btn !min-h-12 w-12 !px-0 max-[700px]:w-16"
                        aria-label={`${c.name}, ${side}`}
                        disabled={!canBe(c, side)}
                        onClick={() => setFound({ kind: c.kind, side })}
                      >
                        {side === "left" ? "L" : "R"}
                      </button>
                    ))}
                  </div>
                ))}
              </div>
              <h3 className="title m-0 mt-1 text-[18px]">Of the car</h3>
              <div className="grid grid-cols-6 gap-1 max-[1100px]:grid-cols-4 max-[900px]:grid-cols-3 max-[700px]:grid-cols-1">
                {car.map((c) => (
                  <button
                    key={c.kind}
                    type="button"
                    className="btn !min-h-12 !px-2 !text-[15px] leading-[17px]"
                    onClick={() => setFound({ kind: c.kind, side: null })}
                  >
                    {c.name}
                  </button>
                ))}
                {!job.sheet.awaits && "waiting for parts".includes(word.trim().toLowerCase()) && (
                  <button
                    type="button"
                    className="btn !min-h-12 !px-2 !text-[15px] leading-[17px]"
                    onClick={() => setWaits(true)}
                  >
                    Waiting for parts
                  </button>
                )}
              </div>
              {corner.length + car.length === 0 && (
                <p className="m-0 text-[16px] text-ink-2">
                  Nothing with that word. Try another, or undo the last step.
                </p>
              )}
            </>
          )}
        </Overlay>
      )}
    </Dialog.Root>
  );
}

function Consequence({ job, found, does }: { job: JobView; found: Found; does: string }) {
  const preview = useQuery({
    queryKey: ["finding", job.id, job.version, found.kind, found.side],
    queryFn: () =>
      take(
        api.POST("/api/jobs/{id}/findings/preview", { params: { path: { id: job.id } }, body: { ...found } }),
      ),
  });
  const p = preview.data;
  return (
    <section aria-label="What it changes" className="text-[17px]">
      <p className="m-0 text-[19px]">{does}</p>
      {preview.isPending && <p className="m-0 text-ink-2">Reckoning what it takes.</p>}
      {p && (
        <>
          <p className="m-0 mt-2">
            <b className="title text-[26px]">
              {p.minutes === 0
                ? "No longer than before"
                : `${duration(Math.abs(p.minutes))} ${p.minutes > 0 ? "longer" : "shorter"}`}
            </b>
          </p>
          {p.parts.length > 0 && (
            <p className="m-0 mt-1">
              <b>Parts.</b> {p.parts.join(" · ")}
            </p>
          )}
          {p.steps.length > 0 && (
            <p className="m-0 mt-1 text-ink-2">
              <b>Comes in.</b> {p.steps.slice(0, 8).join(" · ")}
              {p.steps.length > 8 && ` · and ${p.steps.length - 8} more`}
            </p>
          )}
        </>
      )}
      <ProblemNote error={preview.error} />
    </section>
  );
}
