import { useMutation, useQueryClient } from "@tanstack/react-query";
import { Dialog } from "radix-ui";
import { useState } from "react";
import { api, ApiError, take } from "../app/api";
import { useOutbox } from "../app/kept";
import { giveUp, setPeople, signedInAgain } from "../app/outbox";
import { queries } from "../app/queries";
import { Overlay } from "./Overlay";
import { ProblemNote } from "./Problem";

/** A sign-in that has ended in the middle of work takes the PIN in place: forms stay, and what was held is sent. */
export function SignInAgain() {
  const who = useOutbox().signInWanted;
  return (
    <Dialog.Root open={who !== null}>
      {who && <Again key={who.id} id={who.id} name={who.name} says={who.says} />}
    </Dialog.Root>
  );
}

function Again({ id, name, says }: { id: string; name: string; says: string | null }) {
  const client = useQueryClient();
  const [pin, setPin] = useState("");
  const enter = useMutation({
    mutationFn: () =>
      take(api.POST(says ? "/api/session/with" : "/api/session", { body: { technicianId: id, pin } })),
    onSuccess: (session) => {
      client.setQueryData(queries.session.queryKey, session);
      signedInAgain();
      void client.invalidateQueries({ predicate: (q) => q.queryKey[0] !== "session" });
    },
    onError: (e) => e instanceof ApiError && setPin(""),
  });
  const another = () => {
    client.removeQueries({ predicate: (q) => q.queryKey[0] !== "session" });
    setPeople([]);
    void client.resetQueries({ queryKey: queries.session.queryKey });
  };
  return (
    <Overlay title={says ? `${name}, your PIN again` : `${name}, your sign-in has ended`} stays>
      <form
        className="flex flex-col gap-3"
        onSubmit={(e) => {
          e.preventDefault();
          enter.mutate();
        }}
      >
        <p className="m-0 text-[18px]">{says ?? "What you did and typed is still here."}</p>
        <label className="field">
          <span>PIN of {name}</span>
          <input
            autoFocus
            type="password"
            inputMode="numeric"
            autoComplete="off"
            value={pin}
            onChange={(e) => setPin(e.target.value)}
          />
        </label>
        <ProblemNote error={enter.error} />
        <div className="flex gap-2">
          <button type="button" className="btn flex-1" onClick={says ? () => void giveUp() : another}>
            {says ? "Do not sign it" : "Somebody else"}
          </button>
          <button
            type="submit"
            className="btn-primary flex-[2]"
            disabled={pin.length === 0 || enter.isPending}
          >
            Go on
          </button>
        </div>
      </form>
    </Overlay>
  );
}
