import { useQuery } from "@tanstack/react-query";
import { Link, useNavigate } from "react-router";
import { api, take, type JobView, type Schemas, type StepBench } from "../../app/api";
import { useCommand, useKeys } from "../../app/hooks";
import { ProblemNote } from "../../ui/Problem";
import { Why } from "../../ui/Why";
import { TorquePanel } from "../torque/TorquePanel";
import { BenchFrame, type OnMoved, type Rested } from "./BenchFrame";
import { ClickPanel } from "./ClickPanel";
import { Finished } from "./Finished";
import { LookOverForm } from "./LookOverForm";
import { duration } from "./words";

/** The bench: whatever the step at hand needs. */
export function StepPanel({
  job,
  bench,
  rested,
  onMoved,
}: {
  job: JobView;
  bench: StepBench | null;
  rested: Rested;
  onMoved: OnMoved;
}) {
  const navigate = useNavigate();
  useKeys({ r: () => void navigate(`/jobs/${job.id}/record`) });
  if (!bench) return <Finished job={job} />;
  if (bench.role) return <TorquePanel job={job} bench={bench} rested={rested} onMoved={onMoved} />;
  switch (bench.step.stepId) {
    case "look-over":
      return <LookOverForm job={job} bench={bench} rested={rested} />;
    case "identify":
    case "push-tried":
      return <GoLook job={job} bench={bench} />;
    case "choose-route":
      return <ChooseRoute job={job} bench={bench} rested={rested} />;
    default:
      return <ClickPanel job={job} bench={bench} rested={rested} onMoved={onMoved} />;
  }
}

function GoLook({ job, bench }: { job: JobView; bench: StepBench }) {
  const navigate = useNavigate();
  const side = bench.step.side ?? "left";
  const to = `/jobs/${job.id}/look/${side}`;
  const corner = side === "left" ? job.left : job.right;
  useKeys({ Space: () => void navigate(to) });
  return (
    <BenchFrame
      bench={bench}
      action={
        <Link to={to} className="btn-primary">
          Look at the {side} corner <span className="keycap">Space</span>
        </Link>
      }
    >
      <p className="m-0 text-[22px]">{bench.how}</p>
      <div className="window">
        <div className="text-[17px]">Still possible</div>
        <div className="huge">{corner.found.standing.length}</div>
      </div>
    </BenchFrame>
  );
}

function ChooseRoute({ job, bench, rested }: { job: JobView; bench: StepBench; rested: Rested }) {
  const choose = useCommand<Schemas["ServiceRoute"]>(job, (h, route) =>
    take(api.POST("/api/jobs/{id}/route", { params: { path: { id: job.id } }, body: { ...h, route } })),
  );
  const ranking = useQuery({
    queryKey: ["routes", job.id, job.version],
    queryFn: () => take(api.GET("/api/jobs/{id}/routes", { params: { path: { id: job.id } } })),
  });
  return (
    <BenchFrame bench={bench} action={<ProblemNote error={choose.error ?? ranking.error} />}>
      {ranking.data?.routes.map((r) => (
        <button
          key={r.route}
          type="button"
          className="btn min-h-[84px] flex-col !items-start"
          disabled={!r.offered || choose.isPending}
          onClick={() => rested() && choose.mutate(r.route)}
        >
          <span className="title text-[25px]">
            {r.says}
            {r.minutes !== null && (
              <span className="ml-2 font-sans text-[15px]">{duration(r.minutes)} in all</span>
            )}
          </span>
          <span className="text-left font-sans text-[16px]">{r.because}</span>
        </button>
      ))}
      {ranking.data && (
        <p className="m-0 text-[15px] text-ink-2">
          {ranking.data.never} <Why reasons={[ranking.data.reasons]} />
        </p>
      )}
    </BenchFrame>
  );
}
