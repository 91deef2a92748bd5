import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { Link, useNavigate } from "react-router";
import { api, take, type Schemas } from "../../app/api";
import { useSession } from "../../app/hooks";
import { queries } from "../../app/queries";
import { ProblemNote } from "../../ui/Problem";
import { FaultsSection } from "../electric/FaultsSection";
import { CalendarSection } from "../vehicles/CalendarSection";
import { LessonsSection } from "../vehicles/LessonsSection";
import { BackupSection } from "./BackupSection";
import { People } from "./People";
import { Wrenches } from "./Wrenches";
import { Shell } from "../../ui/Shell";

/** Technicians, spec sheets, wrenches, and jobs read back from their files. */
export function WorkshopPage() {
  const session = useSession();
  const client = useQueryClient();
  const navigate = useNavigate();
  const sheets = useQuery(queries.sheets);
  const [name, setName] = useState("");
  const [pin, setPin] = useState("");
  const [lead, setLead] = useState(false);
  const add = useMutation({
    mutationFn: () => take(api.POST("/api/technicians", { body: { name, pin, isLead: lead } })),
    onSuccess: (s) => {
      client.setQueryData(queries.session.queryKey, s);
      setName("");
      setPin("");
    },
  });
  const readJob = useMutation({
    mutationFn: async (file: File) =>
      take(
        api.POST("/api/jobs/import", {
          bodySerializer: (b) => b as unknown as string,
          body: (await file.text()) as unknown as Schemas["JobFile"],
          headers: { "content-type": "application/json" },
        }),
      ),
    onSuccess: (a) => a.added && void navigate(`/jobs/${a.jobId}`),
  });
  const readSheet = useMutation({
    mutationFn: async (file: File) =>
      take(
        api.POST("/api/spec-sheets", {
          bodySerializer: (b) => b as unknown as string,
          body: (await file.text()) as unknown as Schemas["SpecSheet"],
          headers: { "content-type": "application/json" },
        }),
      ),
    onSuccess: () => client.invalidateQueries({ queryKey: queries.sheets.queryKey }),
  });
  const isLead = session.data?.me?.isLead ?? false;
  const pick = (label: string, onFile: (f: File) => void) => (
    <label className="btn cursor-pointer focus-within:outline-3 focus-within:outline-measure">
      {label}
      <input
        type="file"
        accept="application/json,.json"
        className="sr-only"
        onChange={(e) => {
          const file = e.target.files?.[0];
          if (file) onFile(file);
          e.target.value = "";
        }}
      />
    </label>
  );
  return (
    <Shell title="Workshop" sub={session.data?.workshop}>
      <div className="grid h-full content-start gap-8 overflow-auto p-6 min-[900px]:grid-cols-2">
        <section className="flex flex-col gap-3">
          <h2 className="text-[26px]">Rules and sources</h2>
          <Link className="btn" to="/workshop/house-rules">
            House rules
          </Link>
          <Link className="btn" to="/sources">
            Sources and interlocks
          </Link>
          <Link className="btn" to="/workshop/instruments">
            Measuring instruments
          </Link>
          <h2 className="mt-3 text-[26px]">A job from its file</h2>
          <p className="m-0 text-[15px] text-ink-2">
            The chain of hashes is checked before anything is stored. Reading a job in twice changes nothing.
            It is a copy here: it is looked at, and takes nothing more.
          </p>
          {pick("Read a job file", (f) => readJob.mutate(f))}
          {readJob.data && !readJob.data.added && (
            <p className="m-0">
              That job is here already, with all that the file holds.{" "}
              <Link to={`/jobs/${readJob.data.jobId}`} className="underline">
                Open it
              </Link>
            </p>
          )}
          <ProblemNote error={readJob.error} />
        </section>
        <section className="flex flex-col gap-3">
          <h2 className="text-[26px]">Technicians</h2>
          <People />
          {isLead && (
            <form
              className="grid grid-cols-2 gap-2"
              onSubmit={(e) => {
                e.preventDefault();
                add.mutate();
              }}
            >
              <label className="field">
                <span>Name</span>
                <input value={name} onChange={(e) => setName(e.target.value)} />
              </label>
              <label className="field">
                <span>PIN, 4 to 12 digits</span>
                <input
                  type="password"
                  inputMode="numeric"
                  value={pin}
                  onChange={(e) => setPin(e.target.value)}
                  autoComplete="new-password"
                />
              </label>
              <button type="button" className="btn" aria-pressed={lead} onClick={() => setLead(!lead)}>
                Is a lead
              </button>
              <button className="btn" disabled={name.trim() === "" || pin === "" || add.isPending}>
                Add the technician
              </button>
            </form>
          )}
          <ProblemNote error={add.error} />
        </section>
        {isLead && <BackupSection />}
        {isLead && <CalendarSection />}
        {isLead && <FaultsSection />}
        <section className="flex flex-col gap-2">
          <h2 className="text-[26px]">Spec sheets</h2>
          {sheets.data?.map((s) => (
            <div key={s.code} className="border-t border-rule pt-1">
              <Link
                className="step-name flex min-h-11 items-center underline"
                to={`/workshop/spec-sheets/${encodeURIComponent(s.code)}`}
              >
                {s.code}: {s.title}
              </Link>
              <div className="text-[15px] text-ink-2">
                {s.source}. {s.torques.length} torques; rotor least{" "}
                {s.rotor.minimumThicknessMm ?? "not given"} mm; lining least{" "}
                {s.pads.minimumLiningMm ?? "not given, default used"}.
              </div>
            </div>
          ))}
          {isLead && (
            <Link className="btn" to="/workshop/spec-sheets/new">
              New spec sheet
            </Link>
          )}
          {isLead && pick("Read a spec sheet file", (f) => readSheet.mutate(f))}
          <ProblemNote error={readSheet.error} />
        </section>
        <LessonsSection />
        <Wrenches />
      </div>
    </Shell>
  );
}
