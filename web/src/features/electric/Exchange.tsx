import { useQuery } from "@tanstack/react-query";
import { Dialog } from "radix-ui";
import { useState } from "react";
import { api, take, type JobView } from "../../app/api";
import { Overlay } from "../../ui/Overlay";

/** What went over the link in this job, asked and said, in words and in hex. */
export function Exchange({ job }: { job: JobView }) {
  const [open, setOpen] = useState(false);
  const lines = useQuery({
    queryKey: ["exchange", job.id, job.version],
    queryFn: () => take(api.GET("/api/jobs/{id}/electric/exchange", { params: { path: { id: job.id } } })),
    enabled: open,
  });
  return (
    <Dialog.Root open={open} onOpenChange={setOpen}>
      <Dialog.Trigger className="btn">The exchange</Dialog.Trigger>
      <Overlay title="What went over the link" wide>
        <ol className="m-0 flex max-h-[60vh] list-none flex-col overflow-auto p-0 text-[15px]" tabIndex={0}>
          {lines.data?.length === 0 && <li>Nothing yet.</li>}
          {lines.data?.map((e, i) => (
            <li key={i} className="grid grid-cols-[92px_64px_minmax(0,1fr)] gap-2 border-t border-rule py-1">
              <span>{e.at.slice(11, 19)}</span>
              <span>{e.sent ? "asked" : "said"}</span>
              <span>
                {e.words}
                <span className="block font-key text-[13px] break-all text-ink-2">{e.hex.slice(0, 120)}</span>
              </span>
            </li>
          ))}
        </ol>
      </Overlay>
    </Dialog.Root>
  );
}
