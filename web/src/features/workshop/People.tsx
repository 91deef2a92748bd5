import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { api, take } from "../../app/api";
import { useSession } from "../../app/hooks";
import { queries } from "../../app/queries";
import { ProblemNote } from "../../ui/Problem";

/** Who works here: another PIN for oneself or, by the lead, for anybody; who has left signs in no more. */
export function People() {
  const session = useSession();
  const client = useQueryClient();
  const [whose, setWhose] = useState<string | null>(null);
  const [oldPin, setOldPin] = useState("");
  const [newPin, setNewPin] = useState("");
  const [leaving, setLeaving] = useState<string | null>(null);
  const me = session.data?.me;
  const settled = () => {
    setWhose(null);
    setLeaving(null);
    setOldPin("");
    setNewPin("");
    return client.invalidateQueries({ queryKey: queries.session.queryKey });
  };
  const change = useMutation({
    mutationFn: (id: string) =>
      take(
        api.POST("/api/technicians/{id}/pin", {
          params: { path: { id } },
          body: { oldPin: id === me?.id ? oldPin : null, newPin },
        }),
      ),
    onSuccess: settled,
  });
  const leave = useMutation({
    mutationFn: (id: string) => take(api.POST("/api/technicians/{id}/left", { params: { path: { id } } })),
    onSuccess: settled,
  });
  return (
    <div className="flex flex-col">
      {session.data?.technicians.map((t) => (
        <div key={t.id} className="flex flex-wrap items-center gap-2 border-t border-rule py-1">
          <span className="min-w-0 flex-1">
            {t.name}
            {t.isLead && " (lead)"}
          </span>
          {(me?.isLead || me?.id === t.id) && whose !== t.id && leaving !== t.id && (
            <button type="button" className="btn !min-h-12" onClick={() => setWhose(t.id)}>
              New PIN
            </button>
          )}
          {me?.isLead && me.id !== t.id && whose !== t.id && leaving !== t.id && (
            <button type="button" className="btn !min-h-12" onClick={() => setLeaving(t.id)}>
              Has left
            </button>
          )}
          {leaving === t.id && (
            <>
              <span className="w-full text-[16px]">
                The name stays in every record; nobody signs in with it any more.
              </span>
              <button type="button" className="btn" onClick={() => setLeaving(null)}>
                Still here
              </button>
              <button type="button" className="btn btn-stop" onClick={() => leave.mutate(t.id)}>
                {t.name} has left
              </button>
            </>
          )}
          {whose === t.id && (
            <form
              className="flex w-full flex-wrap gap-2"
              onSubmit={(e) => {
                e.preventDefault();
                change.mutate(t.id);
              }}
            >
              {me?.id === t.id && <Pin label="PIN until now" value={oldPin} onChange={setOldPin} old />}
              <Pin label="New PIN, 4 to 12 digits" value={newPin} onChange={setNewPin} />
              <button className="btn" disabled={newPin === "" || change.isPending}>
                Change it
              </button>
            </form>
          )}
        </div>
      ))}
      <ProblemNote error={change.error ?? leave.error} />
    </div>
  );
}

function Pin({
  label,
  value,
  onChange,
  old = false,
}: {
  label: string;
  value: string;
  onChange: (pin: string) => void;
  old?: boolean;
}) {
  return (
    <label className="field min-w-[180px] flex-1">
      <span>{label}</span>
      <input
        type="password"
        inputMode="numeric"
        autoComplete={old ? "current-password" : "new-password"}
        value={value}
        onChange={(e) => onChange(e.target.value)}
      />
    </label>
  );
}
