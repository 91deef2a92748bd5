import { Dialog } from "radix-ui";
import { useState } from "react";
import { api, take, type JobView, type Schemas, type Side } from "../../app/api";
import { useCommand } from "../../app/hooks";
import { Overlay } from "../../ui/Overlay";
import { ProblemNote } from "../../ui/Problem";

const PLACES: { side: Side | null; name: string }[] = [
  { side: "left", name: "Left corner" },
  { side: null, name: "Car" },
  { side: "right", name: "Right corner" },
];

/** What was found, in two touches from any step: this opens, and one of them is touched. The plan and the parts follow. */
export function FoundDialog({ job }: { job: JobView }) {
  const [open, setOpen] = useState(false);
  const [note, setNote] = useState("");
  const report = useCommand<{ kind: Schemas["FindingKind"]; side: Side | null }>(job, (h, found) =>
    take(
      api.POST("/api/jobs/{id}/findings", {
        params: { path: { id: job.id } },
        body: { ...h, ...found, note: note.trim() || null },
      }),
    ),
  );
  const lists = job.sheet.canFind;
  if (lists.every((l) => l.length === 0) || job.sheet.night) return null;
  return (
    <Dialog.Root open={open} onOpenChange={setOpen}>
      <Dialog.Trigger className="flex min-h-11 items-center border-0 bg-transparent p-0 text-inherit">
        Report a problem
      </Dialog.Trigger>
      {open && (
        <Overlay title="Report a problem" wide>
          <div className="grid grid-cols-3 items-start gap-3 max-[700px]:grid-cols-1">
            {PLACES.map((p, i) => (
              <div key={p.name} className="flex flex-col gap-2">
                <h3 className="title m-0 text-[20px]">{p.name}</h3>
                {lists[i]?.map((c) => (
                  <button
                    key={c.kind}
                    type="button"
                    className="btn flex-col !items-start !gap-0 py-1"
                    disabled={report.isPending}
                    onClick={() =>
                      report.mutate(
                        { kind: c.kind, side: p.side },
                        {
                          onSuccess: () => {
                            setOpen(false);
                            setNote("");
                          },
                        },
                      )
                    }
                  >
                    <span>{c.name}</span>
                    <span className="text-left font-sans text-[13px]">{c.does}</span>
                  </button>
                ))}
                {lists[i]?.length === 0 && <p className="m-0 text-[15px] text-ink-2">Nothing more here.</p>}
              </div>
            ))}
          </div>
          <ProblemNote error={report.error} />
          <label className="field mt-3">
            <span>Note, before you touch one</span>
            <input value={note} maxLength={500} onChange={(e) => setNote(e.target.value)} />
          </label>
        </Overlay>
      )}
    </Dialog.Root>
  );
}
