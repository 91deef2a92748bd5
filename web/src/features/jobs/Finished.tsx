import { Link } from "react-router";
import { api, take, type JobView } from "../../app/api";
import { useCommand, useKeys } from "../../app/hooks";
import { ProblemNote } from "../../ui/Problem";
import { AimReached } from "../planning/GoalDialog";
import { StopNote } from "./StopNote";

/** Nothing is next: handed over, left for the night, at its aim, or held. */
export function Finished({ job }: { job: JobView }) {
  const corners = [job.left, job.right].filter((c) => c.stop);
  return (
    <div className="flex h-full flex-col gap-4 px-6 pt-4 pb-3">
      <h2 className="text-[31px]">
        {job.handedOver
          ? "Handed over"
          : job.sheet.night
            ? "Left overnight"
            : job.sheet.goal.reached
              ? job.sheet.goal.says
              : "Nothing can be done now"}
      </h2>
      {job.sheet.night && <ComeBack job={job} />}
      {job.notCovered && <p className="m-0 text-[18px]">{job.notCovered}</p>}
      {corners.map((c) => (
        <StopNote key={c.side} job={job} corner={c} />
      ))}
      {!job.handedOver && !job.notCovered && !job.sheet.night && job.sheet.goal.reached && (
        <AimReached job={job} />
      )}
      {!job.handedOver &&
        !job.notCovered &&
        !job.sheet.night &&
        !job.sheet.goal.reached &&
        corners.length === 0 && (
          <p className="m-0 text-[18px]">Undo the last step, or follow the maker's order.</p>
        )}
      {job.handedOver && <p className="m-0 text-[22px]">{job.sheet.goal.then}</p>}
      <Link to={`/jobs/${job.id}/record`} className={`${job.handedOver ? "btn-primary" : "btn"} mt-auto`}>
        Open the record <span className="keycap">R</span>
      </Link>
    </div>
  );
}

function ComeBack({ job }: { job: JobView }) {
  const back = useCommand<null>(job, (h) =>
    take(api.POST("/api/jobs/{id}/come-back", { params: { path: { id: job.id } }, body: h })),
  );
  const go = () => !back.isPending && back.mutate(null);
  useKeys({ Space: go });
  return (
    <>
      <p className="m-0 text-[20px]">{job.sheet.goal.then}</p>
      <ul className="m-0 pl-6 text-[18px]">
        {job.sheet.night?.tags.map((t) => (
          <li key={t}>{t}</li>
        ))}
      </ul>
      <p className="m-0 text-[16px] text-ink-2">
        On return stands, chocks and tags are looked at first; then spindles and levers again.
      </p>
      <ProblemNote error={back.error} />
      <button type="button" className="btn-primary" onClick={go}>
        Back at it: all as it was left <span className="keycap">Space</span>
      </button>
    </>
  );
}
