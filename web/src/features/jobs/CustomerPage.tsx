import { useQuery } from "@tanstack/react-query";
import { Link } from "react-router";
import { api, take, type Schemas } from "../../app/api";
import { useKeys, useSession } from "../../app/hooks";
import { ProblemNote } from "../../ui/Problem";
import { Shell } from "../../ui/Shell";
import { jobTitle, useThisJob } from "./JobFrame";
import { PURPOSE } from "./words";

const WIDTH = 300;
const HEIGHT = 26;

/** One page for whoever owns the car, in plain words, with a drawing of what was worn. */
export function CustomerPage() {
  const job = useThisJob();
  const sheet = useQuery({
    queryKey: ["job", job.id, "customer sheet", job.version],
    queryFn: () => take(api.GET("/api/jobs/{id}/customer-sheet", { params: { path: { id: job.id } } })),
  });
  useKeys({ p: () => print() });
  const car = jobTitle(job);
  return (
    <Shell
      title="Customer's sheet"
      sub={`${car.title}, ${car.sub}`}
      keys={{ P: "Print" }}
      info={
        <Link className="flex min-h-11 items-center text-inherit no-underline" to={`/jobs/${job.id}/record`}>
          Record
        </Link>
      }
    >
      <div className="h-full overflow-auto" tabIndex={0} role="group" aria-label="Customer's sheet">
        {sheet.data && <Page of={sheet.data} />}
        <ProblemNote error={sheet.error} />
      </div>
    </Shell>
  );
}

function Page({ of: s }: { of: Schemas["CustomerSheet"] }) {
  const session = useSession();
  const v = s.vehicle;
  return (
    <article className="mx-auto max-w-[820px] bg-plate px-10 py-6 text-[17px] max-[800px]:px-4 print:max-w-none print:px-0 print:py-0 print:text-[13px]">
      <div className="flex flex-wrap items-start justify-between gap-3 border-b-2 border-ink pb-3">
        <div>
          <h2 className="text-[32px]">Your rear brakes</h2>
          <p className="m-0">
            {session.data?.workshop}, {s.on}, job {s.number}
          </p>
          <p className="m-0">
            {v.make} {v.model}, plate {v.plate}, {s.odometerKm} km
          </p>
          {PURPOSE[s.purpose] && (
            <p className="m-0 font-bold">{PURPOSE[s.purpose]}: it proves nothing of any vehicle.</p>
          )}
          {!s.handedOver && <p className="m-0 font-bold text-outside">Not finished: not to be handed out.</p>}
        </div>
        <button type="button" className="btn print:hidden" onClick={() => print()}>
          Print <span className="keycap">P</span>
        </button>
      </div>
      <h3 className="mt-4 text-[22px]">You said</h3>
      <p className="m-0">{s.youSaid}</p>
      <h3 className="mt-4 text-[22px]">What was done</h3>
      <List of={s.done} none="Nothing yet." />
      {s.worn.length > 0 && (
        <>
          <h3 className="mt-4 text-[22px]">How worn it was</h3>
          <ul className="m-0 grid list-none grid-cols-2 gap-x-6 gap-y-3 p-0 max-[700px]:grid-cols-1">
            {s.worn.map((w) => (
              <li key={w.says}>
                <Worn part={w} />
                <span className="text-[15px] print:text-[12px]">{w.says}</span>
              </li>
            ))}
          </ul>
        </>
      )}
      <h3 className="mt-4 text-[22px]">For you</h3>
      <List of={s.forYou} none="" />
      <p className="mt-4 border-t border-rule pt-2 text-[15px] text-ink-2 print:text-[11px]">
        The maker's data for the vehicle and local law outrank every figure here.
      </p>
    </article>
  );
}

const List = ({ of, none }: { of: string[]; none: string }) =>
  of.length === 0 ? (
    <p className="m-0">{none}</p>
  ) : (
    <ul className="m-0 pl-5">
      {of.map((line) => (
        <li key={line}>{line}</li>
      ))}
    </ul>
  );

/** A new part's thickness as a frame, what was left of it filled in, and the least it must have as a mark. */
function Worn({ part: { leftMm, newMm, leastMm, says } }: { part: Schemas["WornPart"] }) {
  const x = (mm: number | null) => (Math.min(mm ?? 0, newMm ?? 1) / (newMm || 1)) * WIDTH;
  return (
    <svg viewBox={`0 0 ${WIDTH + 2} ${HEIGHT + 10}`} className="block w-full" role="img" aria-label={says}>
      <rect x="1" y="5" width={WIDTH} height={HEIGHT} fill="none" stroke="var(--ink)" strokeWidth="1.5" />
      <rect x="1" y="5" width={x(leftMm)} height={HEIGHT} fill="var(--ink)" />
      <path
        d={`M${1 + x(leastMm)} 0 V${HEIGHT + 10}`}
        stroke="var(--outside)"
        strokeWidth="3"
        strokeDasharray="5 3"
      />
    </svg>
  );
}
