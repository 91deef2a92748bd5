import { useInfiniteQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Link } from "react-router";
import { api, take } from "../../app/api";
import { ProblemNote } from "../../ui/Problem";
import { Shell } from "../../ui/Shell";

/** Jobs that are behind the workshop, found by plate, number, make, model or use. */
export function PastJobs() {
  const [search, setSearch] = useState("");
  const past = useInfiniteQuery({
    queryKey: ["past", search.trim()],
    queryFn: ({ pageParam }) =>
      take(
        api.GET("/api/jobs/past", {
          params: { query: { search: search.trim(), before: pageParam ?? undefined } },
        }),
      ),
    initialPageParam: null as number | null,
    getNextPageParam: (page) => page.before,
    placeholderData: (old) => old,
  });
  const jobs = past.data?.pages.flatMap((p) => p.jobs) ?? [];
  return (
    <Shell title="Past jobs" sub="Finished here, or read in from a file">
      <div className="mx-auto flex h-full max-w-[980px] flex-col gap-3 overflow-auto px-6 py-4">
        <label className="field flex-shrink-0">
          <span>Plate, job number, make, model or use</span>
          <input
            type="search"
            autoFocus
            value={search}
            maxLength={60}
            onChange={(e) => setSearch(e.target.value)}
          />
        </label>
        <ProblemNote error={past.error} />
        {past.data && jobs.length === 0 && (
          <p className="m-0 text-[20px]">No finished job is found by that.</p>
        )}
        <ul className="m-0 list-none p-0" aria-label="Past jobs">
          {jobs.map((j) => (
            <li key={j.jobId} className="border-t border-rule">
              <Link
                to={`/jobs/${j.jobId}/record`}
                className="flex min-h-[60px] flex-wrap items-center gap-x-4 py-2 no-underline"
              >
                <b className="title w-[128px] text-[27px]">{j.vehicle.plate}</b>
                <span className="min-w-0 flex-1 text-[18px]">
                  {j.vehicle.make} {j.vehicle.model}, {j.vehicle.use}
                </span>
                <span className="text-ink-2">
                  Job {j.number}
                  {j.by && `, ${j.by}`}
                </span>
              </Link>
            </li>
          ))}
        </ul>
        {past.hasNextPage && (
          <button
            type="button"
            className="btn self-start"
            disabled={past.isFetchingNextPage}
            onClick={() => void past.fetchNextPage()}
          >
            Older jobs
          </button>
        )}
      </div>
    </Shell>
  );
}
