import { Link } from "react-router";
import { Shell } from "../../ui/Shell";
import { jobTitle, useThisJob } from "./JobFrame";

/** A bench of a job: named after both, with the way back to the run sheet. */
export function JobBenchShell({
  title,
  keys = {},
  children,
}: {
  title: string;
  keys?: Record<string, string>;
  children: React.ReactNode;
}) {
  const job = useThisJob();
  const car = jobTitle(job);
  return (
    <Shell
      title={title}
      sub={`${car.title}, ${car.sub}`}
      keys={keys}
      info={
        <Link className="flex min-h-11 items-center text-inherit no-underline" to={`/jobs/${job.id}`}>
          Run sheet
        </Link>
      }
    >
      {children}
    </Shell>
  );
}
