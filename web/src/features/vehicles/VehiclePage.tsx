import { useQuery } from "@tanstack/react-query";
import { Link, useParams } from "react-router";
import { api, take, type Schemas } from "../../app/api";
import { ProblemNote } from "../../ui/Problem";
import { Shell } from "../../ui/Shell";
import { Why } from "../../ui/Why";
import { kilonewtons } from "../electric/words";
import { figure } from "../jobs/words";
import { Reminders } from "./Reminders";
import { StoryPlot } from "./StoryPlot";
import { chance, JUDGED, km } from "./words";

type Story = Schemas["VehicleStory"];

/** A vehicle over the years: what it comes to, its figures over distance, what was learnt at it, its jobs. */
export function VehiclePage() {
  const plate = useParams().plate ?? "";
  const story = useQuery({
    queryKey: ["story", plate],
    queryFn: () => take(api.GET("/api/vehicles/{plate}/story", { params: { path: { plate } } })),
  });
  const v = story.data?.vehicle;
  return (
    <Shell
      title={v ? `${v.make} ${v.model}` : plate}
      sub={v ? `plate ${v.plate}, ${v.use}` : ""}
      info={
        <Link className="flex min-h-11 items-center text-inherit no-underline" to="/vehicles">
          Vehicles
        </Link>
      }
    >
      {story.data && <Shown story={story.data} />}
      <ProblemNote error={story.error} />
    </Shell>
  );
}

function Shown({ story }: { story: Story }) {
  const { outlook: o, vehicle: v } = story;
  const kms = [o.last.odometerKm, ...story.series.flatMap((s) => s.points.map((p) => p.odometerKm))];
  const from = Math.min(...kms);
  const to = Math.max(...kms, from + 1);
  const kinds = [...new Set(story.series.map((s) => s.about.judged))];
  return (
    <div className="grid h-full grid-cols-[minmax(0,1fr)_488px] max-[1100px]:grid-cols-[minmax(0,1fr)_420px] max-[900px]:flex max-[900px]:flex-col max-[900px]:overflow-auto max-[900px]:pb-24">
      <section
        className="flex min-h-0 flex-col gap-4 overflow-auto p-4 max-[900px]:flex-shrink-0"
        aria-label="Its years"
        tabIndex={0}
      >
        <div className="flex flex-wrap items-baseline gap-x-6 gap-y-1 text-[15px] text-ink-2">
          <h2 className="text-[26px] text-ink">Over distance</h2>
          <span>
            <b className="text-measure">●</b> left
          </span>
          <span>
            <b className="text-ink">■</b> right
          </span>
          <span>○ new part · dotted: the limit</span>
        </div>
        {kinds.length === 0 && <p className="m-0 text-[18px]">No figure of it was judged yet.</p>}
        <div className="grid grid-cols-2 gap-x-5 gap-y-2 max-[640px]:grid-cols-1">
          {kinds.map((kind) => (
            <figure key={kind} className="m-0 min-w-0">
              <figcaption className="title text-[19px]">{JUDGED[kind]}</figcaption>
              <StoryPlot series={story.series.filter((s) => s.about.judged === kind)} from={from} to={to} />
            </figure>
          ))}
        </div>
        {story.traces.length > 0 && (
          <section aria-label="Motor current">
            <h2 className="text-[26px]">Motor current</h2>
            <table className="w-full border-collapse text-left text-[17px]">
              <thead className="text-ink-2">
                <tr>
                  <th className="font-normal">Day, distance</th>
                  <th className="font-normal">Side</th>
                  <th className="font-normal">Read as</th>
                  <th className="font-normal">At its end</th>
                  <th className="font-normal">Clamp</th>
                  <th className="font-normal">Points</th>
                </tr>
              </thead>
              <tbody>
                {story.traces.map((t) => (
                  <tr key={`${t.jobId} ${t.sha256} ${t.side}`} className="border-t border-rule">
                    <td className="py-1">
                      {t.on}, {km(t.odometerKm)}
                    </td>
                    <td>{t.side}</td>
                    <td>
                      {t.name}, {t.from}
                    </td>
                    <td>{t.endA === null ? "not read" : `${figure(t.endA)} A`}</td>
                    <td>{t.clampN === null ? "not known" : `${kilonewtons(t.clampN)} kN`}</td>
                    <td>
                      <a
                        className="inline-flex min-h-11 items-center"
                        href={`/api/jobs/${t.jobId}/traces/${t.sha256}`}
                        download
                      >
                        CSV
                      </a>
                    </td>
                  </tr>
                ))}
              </tbody>
            </table>
          </section>
        )}
        <section aria-label="Its jobs">
          <h2 className="text-[26px]">Its jobs</h2>
          <ul className="m-0 list-none p-0">
            {story.visits.map((job) => (
              <li key={job.jobId} className="border-t border-rule">
                <Link
                  to={`/jobs/${job.jobId}${job.handedOver ? "/record" : ""}`}
                  className="block py-2 text-[17px] no-underline"
                >
                  <b>
                    {job.on}, {km(job.odometerKm)}
                  </b>
                  , job {job.number}
                  {!job.handedOver && ", still here"}: {job.complaint}
                  <span className="block text-[16px] text-ink-2">{job.fitted.join(" ")}</span>
                </Link>
              </li>
            ))}
          </ul>
        </section>
      </section>
      <section
        className="flex min-h-0 flex-col gap-3 border-l-2 border-ink bg-plate p-5 max-[900px]:order-first max-[900px]:flex-shrink-0 max-[900px]:border-l-0"
        aria-label="What it comes to"
      >
        <div
          className="flex min-h-0 flex-1 flex-col gap-3 overflow-auto"
          tabIndex={0}
          role="group"
          aria-label="Outlook"
        >
          <div className="flex items-start justify-between gap-2">
            <h2 className="text-[30px]">{o.padsDue ? "Pads looked at by" : "Pads not forecast"}</h2>
            <Why reasons={[o.reasons]} />
          </div>
          {o.padsDue && (
            <div className="window flex flex-col gap-2">
              <span className="text-[56px] leading-none font-bold whitespace-nowrap">{o.padsDue}</span>
              <span className="text-[17px]">{o.pads?.says}</span>
            </div>
          )}
          {o.within30 !== null && (
            <table className="w-full text-left text-[18px]">
              <caption className="text-left text-[16px] text-ink-2">
                Chance that they are at their minimum
              </caption>
              <thead>
                <tr>
                  <th scope="col">30 days</th>
                  <th scope="col">60 days</th>
                  <th scope="col">90 days</th>
                </tr>
              </thead>
              <tbody>
                <tr>
                  <td>{chance(o.within30)}</td>
                  <td>{chance(o.within60)}</td>
                  <td>{chance(o.within90)}</td>
                </tr>
              </tbody>
            </table>
          )}
          <p className="m-0 text-[17px]">
            About {km(o.driven.expectedKm)} today, {Math.round(o.driven.kmPerDay)} km a day
            {o.driven.fromDefault ? " by default: its visits do not tell" : ""}.
          </p>
          <h3 className="title m-0 text-[22px]">Comes due</h3>
          <Reminders of={o.reminders} linked={false} />
          {story.learnt.length > 0 && (
            <>
              <h3 className="title m-0 text-[22px]">Learnt at it</h3>
              <ul className="m-0 list-none p-0 text-[17px]">
                {story.learnt.map((l) => (
                  <li key={l} className="border-t border-rule py-1">
                    {l}
                  </li>
                ))}
              </ul>
            </>
          )}
        </div>
        <div className="bench-action flex flex-col">
          <Link className="btn-primary" to={`/jobs/new?plate=${encodeURIComponent(v.plate)}`}>
            New job on it
          </Link>
        </div>
      </section>
    </div>
  );
}
