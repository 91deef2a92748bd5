import { useMutation, useQueryClient } from "@tanstack/react-query";
import { Dialog } from "radix-ui";
import { useState } from "react";
import { useNavigate } from "react-router";
import { api, ApiError, take } from "../app/api";
import { useHand, useSession } from "../app/hooks";
import { setPeople, takeHand } from "../app/outbox";
import { queries } from "../app/queries";
import { TORQUE_UNIT_NAMES, useLengthUnit, useTorqueRead } from "../app/units";
import { Overlay } from "./Overlay";
import { ProblemNote } from "./Problem";

/** As the sheet names whoever did a step. */
export const initials = (name: string) =>
  name
    .split(" ")
    .map((w) => w.charAt(0).toUpperCase())
    .join("")
    .slice(0, 3);

/** Who works here, in the header; behind it, who is signed in on this device, and the way in for a second and out. */
export function WhoIsHere() {
  const session = useSession().data;
  const hand = useHand();
  if (!session?.me || !hand) return null;
  const other = [session.me, session.with].find((p) => p && p.id !== hand.id);
  const title = `${hand.name}${hand.isLead ? ", lead" : ""}`;
  return (
    <Dialog.Root>
      <Dialog.Trigger
        className="min-h-12 min-w-11 border-0 bg-transparent whitespace-nowrap text-rail-text"
        aria-label={`Signed in: ${hand.name}${other ? `, with ${other.name}` : ""}`}
      >
        <span className="max-[1100px]:hidden">
          {title}
          {other && ` + ${initials(other.name)}`}
        </span>
        <span className="title text-[20px] min-[1101px]:hidden">
          {initials(hand.name)}
          {other && `+${initials(other.name)}`}
        </span>
      </Dialog.Trigger>
      <Overlay title={other ? "Two work here" : title}>
        {other ? <Two /> : <Alone />}
        <Units name={hand.name} />
      </Overlay>
    </Dialog.Root>
  );
}

function useSignOut() {
  const client = useQueryClient();
  const navigate = useNavigate();
  return async () => {
    setPeople([]);
    await api.DELETE("/api/session");
    // Whoever is next sees nothing of what this one had open.
    client.removeQueries({ predicate: (q) => q.queryKey[0] !== "session" });
    await client.resetQueries({ queryKey: queries.session.queryKey });
    void navigate("/");
  };
}

function Two() {
  const session = useSession().data!;
  const hand = useHand();
  const client = useQueryClient();
  const signOut = useSignOut();
  const people = [session.me, session.with].filter((p) => p != null);
  const leave = useMutation({
    mutationFn: (id: string) => take(api.DELETE("/api/session/with/{id}", { params: { path: { id } } })),
    onSuccess: (next) => client.setQueryData(queries.session.queryKey, next),
  });
  return (
    <div className="flex flex-col gap-3">
      <p className="m-0 text-[17px]">
        What is done is recorded under whoever works now. A signature asks which of the two.
      </p>
      <div className="grid grid-cols-2 gap-2">
        {people.map((p) => (
          <button
            key={p.id}
            type="button"
            className="btn !min-h-16"
            aria-pressed={p.id === hand?.id}
            onClick={() => takeHand(p.id)}
          >
            {p.name}
            {p.id === hand?.id && <span className="font-sans text-[15px]">works now</span>}
          </button>
        ))}
        {people.map((p) => (
          <button
            key={p.id}
            type="button"
            className="btn"
            disabled={leave.isPending}
            onClick={() => leave.mutate(p.id)}
          >
            Sign {p.name.split(" ")[0]} out
          </button>
        ))}
      </div>
      <button type="button" className="btn" onClick={() => void signOut()}>
        Sign both out
      </button>
      <ProblemNote error={leave.error} />
    </div>
  );
}

function Alone() {
  const session = useSession().data!;
  const client = useQueryClient();
  const signOut = useSignOut();
  const [second, setSecond] = useState<string | null>(null);
  const [open, setOpen] = useState(false);
  const [pin, setPin] = useState("");
  const enter = useMutation({
    mutationFn: () => take(api.POST("/api/session/with", { body: { technicianId: second ?? "", pin } })),
    onSuccess: (next) => client.setQueryData(queries.session.queryKey, next),
    onError: (e) => e instanceof ApiError && setPin(""),
  });
  return (
    <div className="flex flex-col gap-3">
      <p className="m-0">What you do here is recorded under this name.</p>
      {open ? (
        <form
          className="flex flex-col gap-3"
          onSubmit={(e) => {
            e.preventDefault();
            enter.mutate();
          }}
        >
          <fieldset className="m-0 grid grid-cols-2 gap-2 border-0 p-0">
            <legend className="mb-1">Who works on this device with you?</legend>
            {session.technicians
              .filter((t) => t.id !== session.me?.id)
              .map((t) => (
                <button
                  key={t.id}
                  type="button"
                  className="btn"
                  aria-pressed={second === t.id}
                  onClick={() => setSecond(t.id)}
                >
                  {t.name}
                </button>
              ))}
          </fieldset>
          <label className="field">
            <span>Their PIN</span>
            <input
              type="password"
              inputMode="numeric"
              autoComplete="off"
              value={pin}
              onChange={(e) => setPin(e.target.value)}
            />
          </label>
          <ProblemNote error={enter.error} />
          <button
            type="submit"
            className="btn-primary"
            disabled={!second || pin.length === 0 || enter.isPending}
          >
            Sign them in beside you
          </button>
        </form>
      ) : (
        <button type="button" className="btn" onClick={() => setOpen(true)}>
          Somebody works here with me
        </button>
      )}
      <button type="button" className="btn" onClick={() => void signOut()}>
        Sign out
      </button>
    </div>
  );
}

/** What whoever works here reads lengths and torques in: chosen once, kept in this browser under their name. */
function Units({ name }: { name: string }) {
  const [length, setLength] = useLengthUnit();
  const [torque, setTorque] = useTorqueRead();
  const choice = <T extends string>(says: string, now: T, choose: (next: T) => void, of: [T, string][]) => (
    <div role="group" aria-label={says} className="grid grid-cols-[1fr_6rem_6rem] items-center gap-2">
      <span>{says}</span>
      {of.map(([value, unit]) => (
        <button
          key={value}
          type="button"
          className="btn"
          aria-pressed={now === value}
          onClick={() => choose(value)}
        >
          {unit}
        </button>
      ))}
    </div>
  );
  return (
    <section className="mt-4 flex flex-col gap-2 border-t border-rule pt-3" aria-label={`Units of ${name}`}>
      {choice("Lengths in", length, setLength, [
        ["mm", "mm"],
        ["inch", "inch"],
      ])}
      {choice("Torques in", torque, setTorque, [
        ["nm", TORQUE_UNIT_NAMES.nm],
        ["lbf-ft", TORQUE_UNIT_NAMES["lbf-ft"]],
      ])}
    </section>
  );
}
