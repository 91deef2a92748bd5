import { useMutation } from "@tanstack/react-query";
import { Dialog } from "radix-ui";
import { useState } from "react";
import { api, take, type JobView, type Schemas, type Side } from "../../app/api";
import { useCatalogue } from "../../app/hooks";
import { Overlay } from "../../ui/Overlay";
import { ProblemNote } from "../../ui/Problem";

/** In practice: what each look shows is seen by looking; what it means is for the learner to say. */
export function Sights({ job, side }: { job: JobView; side: Side }) {
  const catalogue = useCatalogue();
  const [seen, setSeen] = useState<Record<string, string>>({});
  const look = useMutation({
    mutationFn: (of: Schemas["Look"]) =>
      take(
        api.POST("/api/jobs/{id}/practice/sight", {
          params: { path: { id: job.id } },
          body: { side, look: of },
        }),
      ),
    onSuccess: (shown, of) => setSeen((s) => ({ ...s, [of]: shown.says })),
  });
  return (
    <Dialog.Root>
      <Dialog.Trigger className="btn">What is there?</Dialog.Trigger>
      <Overlay title={`What is there, ${side}`} wide>
        <div className="grid grid-cols-2 gap-x-6 max-[800px]:grid-cols-1">
          {catalogue.data?.looks.map((c) => (
            <div
              key={c.look}
              className="flex items-center gap-3 border-t border-rule py-1 text-[17px]"
              role="group"
              aria-label={c.name}
            >
              <button
                type="button"
                className="btn"
                disabled={look.isPending}
                onClick={() => look.mutate(c.look)}
              >
                {c.name}
              </button>
              <b>{seen[c.look]}</b>
            </div>
          ))}
        </div>
        <ProblemNote error={look.error} />
      </Overlay>
    </Dialog.Root>
  );
}
