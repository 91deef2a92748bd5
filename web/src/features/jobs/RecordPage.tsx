import { useQuery } from "@tanstack/react-query";
import { Link } from "react-router";
import { api, take, type Schemas } from "../../app/api";
import { useKeys, useSession } from "../../app/hooks";
import { VerdictMark } from "../../ui/marks";
import { Shell } from "../../ui/Shell";
import { ScenarioFromJob } from "../practice/OwnScenario";
import { jobTitle, useThisJob } from "./JobFrame";

/** The record: made as the work went, printed as it was shown. What it says is the server's, for page, PDF and file alike. */
export function RecordPage() {
  const job = useThisJob();
  const me = useSession().data?.me;
  const record = useQuery({
    queryKey: ["record", job.id, job.version],
    queryFn: () => take(api.GET("/api/jobs/{id}/record/document", { params: { path: { id: job.id } } })),
    placeholderData: (old) => old,
  });
  useKeys({ p: () => window.print() });
  const r = record.data;
  const { title, sub } = jobTitle(job);
  const files = `/api/jobs/${job.id}`;
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
          <nav className="no-print mb-4 flex flex-wrap gap-2" aria-label="Ways to keep it">
            <button type="button" className="btn" onClick={() => window.print()}>
              Print <span className="keycap">P</span>
            </button>
            <Link className="btn" to={`/jobs/${job.id}/customer`}>
              Customer's sheet
            </Link>
            <Link className="btn" to={`/vehicles/${encodeURIComponent(job.opened.vehicle.plate)}`}>
              This vehicle
            </Link>
            <a className="btn" href={`${files}/record.pdf`} download>
              PDF, A4
            </a>
            <a className="btn" href={`${files}/record.pdf?paper=letter`} download>
              PDF, Letter
            </a>
            <a className="btn" href={`${files}/record.html`} download>
              HTML
            </a>
            <a className="btn" href={`${files}/torques.csv`} download>
              Torques
            </a>
            <a className="btn" href={`${files}/file`} download>
              The job as a file
            </a>
            {me?.isLead && job.handedOver && !job.opened.practice && <ScenarioFromJob job={job} />}
          </nav>
          {r && (
            <>
              <div className="flex items-start justify-between gap-3 border-b-2 border-ink pb-3">
                <div>
                  <h2 className="text-[34px]">{r.title}</h2>
                  <p className="m-0">{r.workshop}</p>
                  {r.notes.map((n) => (
                    <p
                      key={n.says}
                      className={`m-0 text-[16px] ${n.warns ? "font-bold text-outside" : "text-ink-2"}`}
                    >
                      {n.says}
                    </p>
                  ))}
                </div>
                <img
                  src={`${files}/address.svg`}
                  alt="The job's address, to point a camera at"
                  className="h-[96px] w-[96px] flex-shrink-0 bg-white p-1"
                />
              </div>
              {r.parts.map((p) => (
                <Part key={p.heading} part={p} files={files} />
              ))}
              <p className="mt-4 mb-0 border-t-2 border-ink pt-2 text-[15px]">{r.foot}</p>
            </>
          )}
        </article>
      </div>
    </Shell>
  );
}

function Part({ part, files }: { part: Schemas["DocumentPart"]; files: string }) {
  return (
    <section className={part.warns ? "mt-4 rounded border-2 border-outside p-3" : "mt-4"}>
      {part.heading && <h3 className="text-[22px]">{part.heading}</h3>}
      {part.facts.length > 0 && (
        <dl className="m-0 grid grid-cols-[150px_1fr] gap-y-1 max-[600px]:grid-cols-[100px_1fr]">
          {part.facts.map((f) => (
            <div key={f.name} className="contents">
              <dt className="text-ink-2">{f.name}</dt>
              <dd className="m-0">{f.says}</dd>
            </div>
          ))}
        </dl>
      )}
      {part.lines.map((l) => (
        <p key={l} className="m-0">
          {l}
        </p>
      ))}
      {part.table && <Table table={part.table} />}
      {part.photos.length > 0 && (
        <div className="mt-1 grid grid-cols-3 gap-3 max-[700px]:grid-cols-1">
          {part.photos.map((p, i) => (
            <figure key={i} className="m-0 break-inside-avoid text-[15px]">
              <a href={`${files}/photos/${p.sha256}`} target="_blank" rel="noreferrer">
                <img
                  src={`${files}/photos/${p.sha256}`}
                  alt={`${p.caption}, ${p.says}`}
                  width={p.widthPx}
                  height={p.heightPx}
                  loading="lazy"
                  className="h-[200px] w-full rounded border border-rule bg-rule object-contain"
                />
              </a>
              <figcaption>
                <b>{p.caption}</b>
                <span className="block text-ink-2">{p.says}</span>
              </figcaption>
            </figure>
          ))}
        </div>
      )}
    </section>
  );
}

function Table({ table }: { table: Schemas["DocumentTable"] }) {
  const whole = table.columns.reduce((sum, c) => sum + c.share, 0);
  return (
    <div className="overflow-x-auto">
      <table className="w-full border-collapse text-[15px]">
        <colgroup>
          {table.columns.map((c, i) => (
            <col key={i} style={{ width: `${(c.share / whole) * 100}%` }} />
          ))}
        </colgroup>
        {table.hasHeading && (
          <thead>
            <tr className="text-left text-ink-2">
              {table.columns.map((c) => (
                <th key={c.heading} className="pr-2 font-normal">
                  {c.heading}
                </th>
              ))}
            </tr>
          </thead>
        )}
        <tbody>
          {table.rows.map((row, i) => (
            <tr key={i} className={`border-t border-rule ${row.struck ? "text-ink-2 line-through" : ""}`}>
              {row.cells.map((cell, at) => (
                <td key={at} className="py-1 pr-2 align-top">
                  {row.verdict && at === row.cells.length - 1 ? <VerdictMark verdict={row.verdict} /> : cell}
                </td>
              ))}
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}
