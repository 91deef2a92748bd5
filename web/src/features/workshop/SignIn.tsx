import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { api, ApiError, take } from "../../app/api";
import { useSession } from "../../app/hooks";
import { queries } from "../../app/queries";
import { ProblemNote } from "../../ui/Problem";
import { Shell } from "../../ui/Shell";

/** Pick your name, type your PIN. In a new workshop the first visit makes the lead. */
export function SignIn() {
  const session = useSession();
  const client = useQueryClient();
  const [who, setWho] = useState<string | null>(null);
  const [pin, setPin] = useState("");
  const [name, setName] = useState("");
  const [workshop, setWorkshop] = useState("");
  const first = session.data?.firstRun ?? false;
  const enter = useMutation({
    mutationFn: () =>
      first
        ? take(api.POST("/api/workshop/first-lead", { body: { workshop, name, pin } }))
        : take(
            api.POST("/api/session", {
              body: { technicianId: who ?? "00000000-0000-0000-0000-000000000000", pin },
            }),
          ),
    onSuccess: (s) => client.setQueryData(queries.session.queryKey, s),
    onError: (e) => {
      if (!first && e instanceof ApiError) setPin("");
    },
  });
  return (
    <Shell title={first ? "A new workshop" : "Who is it?"} sub={session.data?.workshop}>
      <form
        className="mx-auto flex max-w-[560px] flex-col gap-4 p-6"
        onSubmit={(e) => {
          e.preventDefault();
          enter.mutate();
        }}
      >
        {first ? (
          <>
            <p className="m-0 text-[18px]">Nobody works here yet. The first to sign in is the lead.</p>
            <label className="field">
              <span>Workshop</span>
              <input value={workshop} onChange={(e) => setWorkshop(e.target.value)} />
            </label>
            <label className="field">
              <span>Your name</span>
              <input value={name} onChange={(e) => setName(e.target.value)} autoComplete="name" />
            </label>
          </>
        ) : (
          <fieldset className="m-0 grid grid-cols-2 gap-2 border-0 p-0">
            <legend className="mb-2 text-[18px]">Pick your name.</legend>
            {session.data?.technicians.map((t) => (
              <button
                key={t.id}
                type="button"
                className="btn"
                aria-pressed={who === t.id}
                onClick={() => setWho(t.id)}
              >
                {t.name}
                {t.isLead && <span className="font-sans text-[14px]">lead</span>}
              </button>
            ))}
          </fieldset>
        )}
        <label className="field">
          <span>PIN, 4 to 12 digits</span>
          <input
            type="password"
            inputMode="numeric"
            value={pin}
            onChange={(e) => setPin(e.target.value)}
            autoComplete="off"
          />
        </label>
        {session.data?.demoPin && !first && (
          <p className="m-0">Demo data. Every PIN here is {session.data.demoPin}.</p>
        )}
        <ProblemNote error={enter.error} />
        <button
          type="submit"
          className="btn-primary"
          disabled={enter.isPending || pin.length === 0 || (!first && !who)}
        >
          {first ? "Open the workshop" : "Sign in"}
        </button>
        <p className="m-0 text-[15px] text-ink-2">
          Maker's data for the vehicle on the lift, local law and a licensed technician's judgement outrank
          every figure here.
        </p>
      </form>
    </Shell>
  );
}
