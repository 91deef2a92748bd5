import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { api, ApiError, take, type Schemas } from "../../app/api";
import { ProblemNote } from "../../ui/Problem";

type View = Schemas["BackupsView"];

/** Taking a backup, and laying one ready that the next start puts back. The lead's. */
export function BackupSection() {
  const client = useQueryClient();
  const [wanted, setWanted] = useState<string | File | null>(null);
  const backups = useQuery({
    queryKey: ["backups"],
    queryFn: () => take(api.GET("/api/workshop/backups")),
  });
  const done = (view: View) => {
    setWanted(null);
    client.setQueryData(["backups"], view);
  };
  const lay = useMutation<View, ApiError | Error>({
    mutationFn: () =>
      typeof wanted === "string"
        ? take(api.POST("/api/workshop/restore/kept", { body: { day: wanted } }))
        : sendFile(wanted!),
    onSuccess: done,
  });
  const withdraw = useMutation<View, ApiError | Error>({
    mutationFn: () => take(api.DELETE("/api/workshop/restore")),
    onSuccess: done,
  });
  const waiting = backups.data?.waiting;
  return (
    <section className="flex flex-col gap-2">
      <h2 className="text-[26px]">Backup</h2>
      <p className="m-0 text-[15px] text-ink-2">
        One is made every day and kept for fourteen. This one is for a stick in a drawer: it holds every
        record and the key of their seals.
      </p>
      <a className="btn" href="/api/workshop/backup" download>
        Take a backup now
      </a>
      {waiting ? (
        <div className="rounded border-2 border-ink p-3">
          <p className="m-0 text-[18px] font-bold">
            A backup of {waiting.jobs} jobs and {waiting.events} events is put back at the next start.
          </p>
          <p className="m-0 mt-1 text-[15px]">
            Stop the server and start it again. What is here now is moved aside, never thrown away; what
            people enter until then goes aside with it.
          </p>
          <button
            type="button"
            className="btn mt-2"
            disabled={withdraw.isPending}
            onClick={() => withdraw.mutate()}
          >
            Put nothing back
          </button>
        </div>
      ) : (
        <>
          <label className="field">
            <span>Put a kept day back</span>
            <select
              value={typeof wanted === "string" ? wanted : ""}
              onChange={(e) => setWanted(e.target.value || null)}
            >
              <option value="">{backups.data?.kept.length === 0 ? "no day is kept yet" : "choose"}</option>
              {backups.data?.kept.map((day) => (
                <option key={day}>{day}</option>
              ))}
            </select>
          </label>
          <label className="btn cursor-pointer focus-within:outline focus-within:outline-2">
            {wanted instanceof File ? wanted.name : "Or a backup from a file"}
            <input type="file" className="sr-only" onChange={(e) => setWanted(e.target.files?.[0] ?? null)} />
          </label>
          {wanted && (
            <button type="button" className="btn" disabled={lay.isPending} onClick={() => lay.mutate()}>
              Lay it ready for the next start
            </button>
          )}
        </>
      )}
      <ProblemNote error={lay.error ?? withdraw.error ?? backups.error} />
    </section>
  );
}

async function sendFile(file: File): Promise<View> {
  const answer = await fetch("/api/workshop/restore/file", {
    method: "POST",
    headers: { "content-type": "application/octet-stream" },
    body: file,
  });
  const said = (await answer.json()) as View & { title?: string };
  if (!answer.ok)
    throw new ApiError({ ...said, status: answer.status, title: said.title ?? "It was refused." });
  return said;
}
