import { Outlet, useOutletContext, useParams } from "react-router";
import { ApiError, type JobView } from "../../app/api";
import { useJob } from "../../app/hooks";
import { Shell } from "../../ui/Shell";
import { Arrivals } from "./Arrivals";
import { PURPOSE } from "./words";

export const useThisJob = () => useOutletContext<JobView>();

/** Loads the job for the views below it. */
export function JobFrame() {
  const { id } = useParams();
  const job = useJob(id ?? "");
  if (job.data)
    return (
      <>
        <Arrivals key={job.data.id} job={job.data} />
        <Outlet context={job.data} />
      </>
    );
  return (
    <Shell title={job.isError ? "No such job" : ""}>
      {job.isError && (
        <p className="p-8 text-[18px]">
          {job.error instanceof ApiError
            ? job.error.message
            : "The workshop's server does not answer. It is asked again."}
        </p>
      )}
    </Shell>
  );
}

/** What a job is called on every screen: what it is for and its plate first, for a narrow screen cuts the end. */
export function jobTitle(job: JobView) {
  const v = job.opened.vehicle;
  const purpose = PURPOSE[job.opened.purpose ?? "real"];
  return { title: `${v.make} ${v.model}`, sub: `${purpose ? `${purpose}: ` : ""}plate ${v.plate}, ${v.use}` };
}
