import { useQuery } from "@tanstack/react-query";
import { Dialog } from "radix-ui";
import { useState } from "react";
import { api, take, type JobView, type Schemas, type Side } from "../../app/api";
import { useCommand } from "../../app/hooks";
import { Overlay } from "../../ui/Overlay";
import { ProblemNote } from "../../ui/Problem";
import { NoteForm, PhotoField, usePhoto } from "./NoteForm";
import { AwaitForm } from "../planning/PartsAwaited";
import { duration } from "./words";

const SIDES: Side[] = ["left", "right"];

// What is said without being a finding.
const FORMS = {
  waits: { found: "Waiting for parts", title: "Wait for parts", form: AwaitForm },
  note: { found: "Note or photo", title: "Note or photo", form: NoteForm },
};

type Found = { kind: Schemas["FindingKind"]; side: Side | null };

/** What was found, in two touches from any step: this opens, and one of them is touched. What it changes is told before it is reported. */
export function FoundDialog({ job }: { job: JobView }) {
  const [open, setOpen] = useState(false);
  const [word, setWord] = useState("");
  const [note, setNote] = useState("");
  const [found, setFound] = useState<Found | null>(null);
  const [form, setForm] = useState<keyof typeof FORMS | null>(null);
  const [file, setFile] = useState<File | null>(null);
  // The report that the photo belongs to, once it is recorded.
  const [reported, setReported] = useState<string | null>(null);
  const report = useCommand<Found>(job, async (h, it) => {
    await take(
      api.POST("/api/jobs/{id}/findings", {
        params: { path: { id: job.id } },
        body: { ...h, ...it, note: note.trim() || null },
      }),
    );
    setReported(h.eventId);
    return h.eventId;
  });
  const photo = usePhoto(job);
  const lists = job.sheet.canFind;
  if (lists.every((l) => l.length === 0) || job.sheet.night) return null;
  const close = (next: boolean) => {
    setOpen(next);
    setFound(null);
    setForm(null);
    setWord("");
    setNote("");
    setFile(null);
    setReported(null);
    report.reset();
    photo.reset();
  };
  const sendPhoto = (of: string) =>
    photo.mutate(
      { file: file!, side: found!.side, of, caption: note.trim().slice(0, 200) || card!.name },
      { onSuccess: () => close(false) },
    );
  const [left = [], car = [], right = []] = lists.map((cards) =>
    cards.filter((c) => `${c.name} ${c.does}`.toLowerCase().includes(word.trim().toLowerCase())),
  );
  const corner = [...left, ...right.filter((c) => left.every((l) => l.kind !== c.kind))];
  const canBe = (c: Schemas["FindingCard"], side: Side) =>
    (side === "left" ? left : right).some((x) => x.kind === c.kind);
  const Form = form && FORMS[form].form;
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
              : form
                ? FORMS[form].title
                : "Report a problem"
          }
          wide={card || form ? true : "most"}
          beside={
            !card &&
            !form && (
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
          {Form ? (
            <Form job={job} back={() => setForm(null)} done={() => close(false)} />
          ) : card ? (
            <>
              <Consequence job={job} found={found} does={card.does} />
              <label className="field mt-3">
                <span>{card.noteWanted ? `Say ${card.noteWanted}` : "Note"}</span>
                <input value={note} maxLength={500} onChange={(e) => setNote(e.target.value)} />
              </label>
              <div className="mt-3">
                <PhotoField file={file} set={setFile} />
              </div>
              {reported && (
                <p className="m-0 mt-3 text-[17px]">The report is recorded; its photo is not yet.</p>
              )}
              <ProblemNote error={photo.error ?? report.error} />
              <div className="mt-3 flex gap-2">
                <button
                  type="button"
                  className="btn flex-1"
                  onClick={() => (reported ? close(false) : setFound(null))}
                >
                  {reported ? "Leave the photo out" : "Something else"}
                </button>
                <button
                  type="button"
                  className="btn-primary flex-[2]"
                  disabled={report.isPending || photo.isPending}
                  onClick={() =>
                    reported
                      ? sendPhoto(reported)
                      : report.mutate(found, {
                          onSuccess: (of) => (file ? sendPhoto(of as string) : close(false)),
                        })
                  }
                >
                  {reported ? "Send the photo" : "Report it"}
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
                {(Object.keys(FORMS) as (keyof typeof FORMS)[])
                  .filter(
                    (f) =>
                      (f !== "waits" || !job.sheet.awaits) &&
                      FORMS[f].found.toLowerCase().includes(word.trim().toLowerCase()),
                  )
                  .map((f) => (
                    <button
                      key={f}
                      type="button"
                      className="btn !min-h-12 !px-2 !text-[15px] leading-[17px]"
                      onClick={() => setForm(f)}
                    >
                      {FORMS[f].found}
                    </button>
                  ))}
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
