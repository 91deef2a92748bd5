import { useQuery } from "@tanstack/react-query";
import { Link } from "react-router";
import { api, take } from "../../app/api";
import { useKeys, useSession } from "../../app/hooks";
import { VerdictMark } from "../../ui/marks";
import { Shell } from "../../ui/Shell";
import { jobTitle, useThisJob } from "./JobFrame";
import { figure, moment, PURPOSE } from "./words";

/** The record: made as the work went, printed as it was shown. */
export function RecordPage() {
  const job = useThisJob();
  const purpose = PURPOSE[job.opened.purpose ?? "real"];
  const session = useSession();
  const record = useQuery({
    queryKey: ["record", job.id, job.version],
    queryFn: () => take(api.GET("/api/jobs/{id}/record", { params: { path: { id: job.id } } })),
    placeholderData: (old) => old,
  });
  const verified = useQuery({
    queryKey: ["verified", job.id, job.version],
    queryFn: () => take(api.GET("/api/jobs/{id}/verified", { params: { path: { id: job.id } } })),
  });
  useKeys({ p: () => window.print() });
  const r = record.data;
  const { title, sub } = jobTitle(job);
  const v = job.opened.vehicle;
  return (
    <Shell
      title={title}
      sub={sub}
      keys={{ P: "Print" }}
      info={
        <Link to={`/jobs/${job.id}`} className="flex min-h-11 items-center">
          Run sheet
        </Link>
      }
    >
      <div className="h-full overflow-auto">
        <article className="mx-auto max-w-[980px] bg-plate px-10 py-6 max-[800px]:px-4 print:max-w-none print:px-0 print:text-[12px]">
          <div className="flex flex-wrap items-start justify-between gap-3 border-b-2 border-ink pb-3">
            <div>
              <h2 className="text-[34px]">
                Brake record, job {job.number}
                {r && !r.finished && ", not finished"}
              </h2>
              <p className="m-0">{session.data?.workshop}</p>
              {purpose && (
                <p className="m-0 text-[16px] font-bold">
                  {purpose}: what is simulated proves nothing of any vehicle.
                </p>
              )}
              {job.imported && (
                <p className="m-0 text-[16px] font-bold">
                  A copy, read in by {job.imported.by} on {new Date(job.imported.at).toLocaleString("en-GB")}.
                </p>
              )}
              {verified.data && (
                <p
                  className={`m-0 text-[16px] ${verified.data.verified ? "text-ink-2" : "font-bold text-outside"}`}
                >
                  {verified.data.says}
                </p>
              )}
            </div>
            <div className="no-print flex gap-2">
              <button type="button" className="btn" onClick={() => window.print()}>
                Print <span className="keycap">P</span>
              </button>
              <Link className="btn" to={`/jobs/${job.id}/customer`}>
                Customer's sheet
              </Link>
              <a className="btn" href={`/api/jobs/${job.id}/file`} download>
                The job as a file
              </a>
            </div>
          </div>
          <dl className="my-3 grid grid-cols-[150px_1fr] gap-y-1">
            <dt className="text-ink-2">Vehicle</dt>
            <dd className="m-0">
              <Link to={`/vehicles/${encodeURIComponent(v.plate)}`}>
                {v.make} {v.model}
              </Link>
              , {v.use}, plate {v.plate}
              {v.vin && `, VIN ${v.vin}`}
              {r?.vinSays && <span className="text-ink-2"> ({r.vinSays})</span>}
            </dd>
            <dt className="text-ink-2">Odometer</dt>
            <dd className="m-0">{job.opened.odometerKm} km</dd>
            <dt className="text-ink-2">Complaint</dt>
            <dd className="m-0">{job.opened.complaint}</dd>
            <dt className="text-ink-2">Renewed</dt>
            <dd className="m-0">{r && r.fitted.length > 0 ? r.fitted.join(" ") : "nothing yet"}</dd>
            <dt className="text-ink-2">Limits from</dt>
            <dd className="m-0">
              {job.opened.sheet.code}, {job.opened.sheet.title}. {job.opened.sheet.source}.
            </dd>
          </dl>
          {r && r.openPoints.length > 0 && (
            <p className="rounded border-2 border-outside p-3">
              <b>Open:</b> {r.openPoints.join(" ")}
            </p>
          )}
          <h3 className="mt-4 text-[22px]">Brakes</h3>
          {r?.brakes.map((b) => (
            <p key={b} className="m-0">
              {b}
            </p>
          ))}
          {r && r.verdicts.length > 0 && (
            <>
              <h3 className="mt-4 text-[22px]">Readings and verdicts</h3>
              <table className="w-full border-collapse text-[15px]">
                <tbody>
                  {r.verdicts.map((x) => (
                    <tr key={x.what} className="border-t border-rule">
                      <td className="py-1">{x.what}</td>
                      <td>
                        <b>{figure(x.valueMm, 3)} mm</b>, {x.reasons.lines[0]?.result.split(", ")[1]}
                      </td>
                      <td>
                        {x.kind === "minimum" ? "least" : "most"} {figure(x.limitMm, 3)} mm
                        {x.reasons.lines.some((l) => l.kind === "default" && l.label === "Minimum")
                          ? " (default)"
                          : ""}
                        , safety margin {figure(x.guardBandMm, 3)}
                      </td>
                      <td>
                        <VerdictMark verdict={x.verdict} />
                      </td>
                    </tr>
                  ))}
                </tbody>
              </table>
            </>
          )}
          {r && r.torques.length > 0 && (
            <>
              <h3 className="mt-4 text-[22px]">Torques</h3>
              <table className="w-full border-collapse text-[15px]">
                <thead>
                  <tr className="text-left text-ink-2">
                    <th className="font-normal">Side</th>
                    <th className="font-normal">Fastener</th>
                    <th className="font-normal">At the bolt</th>
                    <th className="font-normal">Wrench</th>
                    <th className="font-normal">Applied</th>
                    <th className="font-normal">Signed</th>
                  </tr>
                </thead>
                <tbody>
                  {r.torques.map((t, i) => (
                    <tr key={i} className="border-t border-rule">
                      <td className="py-1">{t.where}</td>
                      <td>{t.fastener}</td>
                      <td>{t.wanted}</td>
                      <td>
                        {t.wrench}
                        {t.verified && `, set to ${t.setting}`}
                      </td>
                      <td>{t.verified ? t.applied : `unverified: ${t.applied}`}</td>
                      <td>{t.by}</td>
                    </tr>
                  ))}
                </tbody>
              </table>
            </>
          )}
          {r && r.proofs.length > 0 && (
            <>
              <h3 className="mt-4 text-[22px]">Proved</h3>
              {r.proofs.map((p) => (
                <p key={p} className="m-0">
                  {p}
                </p>
              ))}
            </>
          )}
          {r && r.decisions.length > 0 && (
            <>
              <h3 className="mt-4 text-[22px]">Decided</h3>
              {r.decisions.map((d) => (
                <p key={d} className="m-0">
                  {d}
                </p>
              ))}
            </>
          )}
          {r && r.photos.length > 0 && (
            <>
              <h3 className="mt-4 text-[22px]">Photos</h3>
              <div className="mt-1 grid grid-cols-3 gap-3 max-[700px]:grid-cols-1">
                {r.photos.map((p, i) => (
                  <figure key={i} className="m-0 break-inside-avoid text-[15px]">
                    <a href={`/api/jobs/${job.id}/photos/${p.sha256}`} target="_blank" rel="noreferrer">
                      <img
                        src={`/api/jobs/${job.id}/photos/${p.sha256}`}
                        alt={`${p.caption}, ${p.where}`}
                        width={p.widthPx}
                        height={p.heightPx}
                        loading="lazy"
                        className="h-[200px] w-full rounded border border-rule bg-rule object-contain"
                      />
                    </a>
                    <figcaption>
                      <b>{p.caption}</b>
                      <span className="block text-ink-2">
                        {p.where}
                        {p.report && `, ${p.report.toLowerCase()}`}, {p.by}, {moment(p.at)}
                      </span>
                    </figcaption>
                  </figure>
                ))}
              </div>
            </>
          )}
          <h3 className="mt-4 text-[22px]">Advice</h3>
          {r?.advice.map((a) => (
            <p key={a} className="m-0">
              {a}
            </p>
          ))}
          <h3 className="mt-4 text-[22px]">Step by step</h3>
          <table className="w-full border-collapse text-[15px]">
            <tbody>
              {r?.log.map((l) => (
                <tr
                  key={l.seq}
                  className={`border-t border-rule ${l.voided ? "text-ink-2 line-through" : ""}`}
                >
                  <td className="w-[44px] py-1 text-ink-2">{l.seq}</td>
                  <td className="w-[176px] pr-3 whitespace-nowrap">
                    {moment(l.at)}
                    {l.clientAt && <span className="block text-ink-2">sent {moment(l.clientAt)}</span>}
                  </td>
                  <td className="w-[56px]">{l.where}</td>
                  <td>
                    {l.what}
                    {l.detail && <span className="text-ink-2">: {l.detail}</span>}
                  </td>
                  <td className="text-right">{l.by}</td>
                </tr>
              ))}
            </tbody>
          </table>
          <p className="mt-4 mb-0 border-t-2 border-ink pt-2 text-[15px]">
            The maker's data for the vehicle, local law and a licensed technician's judgement outrank every
            figure here. Times are the server&apos;s; the sender&apos;s stands beside where it differs by more
            than 5 minutes. Each entry carries the hash of the one before and this workshop&apos;s seal.
          </p>
        </article>
      </div>
    </Shell>
  );
}
