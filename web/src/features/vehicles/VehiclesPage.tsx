import { useInfiniteQuery, useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Link } from "react-router";
import { api, take } from "../../app/api";
import { ProblemNote } from "../../ui/Problem";
import { Shell } from "../../ui/Shell";
import { Reminders } from "./Reminders";
import { chance } from "./words";

/** Every vehicle that was here: found by a word of it, those whose pads are soonest at their minimum first. */
export function VehiclesPage() {
  const [search, setSearch] = useState("");
  const fleet = useInfiniteQuery({
    queryKey: ["fleet", search.trim()],
    queryFn: ({ pageParam: skip }) =>
      take(api.GET("/api/fleet", { params: { query: { search: search.trim(), skip } } })),
    initialPageParam: 0,
    getNextPageParam: (last, pages) => (last.more ? pages.flatMap((p) => p.vehicles).length : undefined),
    placeholderData: (old) => old,
  });
  const reminders = useReminders();
  const shown = fleet.data?.pages.flatMap((p) => p.vehicles);
  const unread = fleet.data?.pages.at(-1)?.unread ?? 0;
  return (
    <Shell title="Vehicles" sub="and what comes due">
      <div className="grid h-full grid-cols-[minmax(0,1fr)_420px] max-[1100px]:grid-cols-[minmax(0,1fr)_360px] max-[900px]:block max-[900px]:overflow-auto print:block">
        <section className="flex min-h-0 flex-col gap-3 overflow-auto p-4" aria-label="Vehicles" tabIndex={0}>
          <div className="flex flex-wrap items-end gap-2 print:hidden">
            <label className="field min-w-[220px] flex-1">
              <span>Plate, VIN, make, model or use</span>
              <input
                type="search"
                autoFocus
                value={search}
                maxLength={60}
                onChange={(e) => setSearch(e.target.value)}
              />
            </label>
            <a className="btn" href="/api/fleet/csv" download>
              As CSV
            </a>
            <button type="button" className="btn" onClick={() => print()}>
              Print
            </button>
          </div>
          <table className="w-full border-collapse text-left text-[17px]">
            <caption className="text-left text-[15px] text-ink-2">
              Chance that the thinnest lining is at its minimum within so many days
            </caption>
            <thead className="text-[15px] text-ink-2">
              <tr>
                <th scope="col">Vehicle</th>
                <th scope="col">Last here</th>
                <th scope="col">Pads by</th>
                <th scope="col">30</th>
                <th scope="col">60</th>
                <th scope="col">90</th>
              </tr>
            </thead>
            <tbody>
              {shown?.map((o) => (
                <tr key={o.vehicle.plate} className="border-t border-rule align-baseline">
                  <th scope="row" className="font-normal">
                    <Link
                      to={`/vehicles/${encodeURIComponent(o.vehicle.plate)}`}
                      className="block min-h-12 py-2 no-underline"
                    >
                      <b className="title text-[24px]">{o.vehicle.plate}</b>{" "}
                      <span className="whitespace-nowrap">{o.vehicle.model}</span>
                    </Link>
                  </th>
                  <td className="whitespace-nowrap">{o.lastOn}</td>
                  <td className="whitespace-nowrap">{o.padsDue ?? "not known"}</td>
                  {[o.within30, o.within60, o.within90].map((c, i) => (
                    <td key={i} className="whitespace-nowrap">
                      {c === null ? "" : chance(c)}
                    </td>
                  ))}
                </tr>
              ))}
            </tbody>
          </table>
          {fleet.hasNextPage && (
            <button
              type="button"
              className="btn self-start print:hidden"
              disabled={fleet.isFetching}
              onClick={() => void fleet.fetchNextPage()}
            >
              More vehicles
            </button>
          )}
          {unread > 0 && (
            <p className="m-0 text-[16px] text-ink-2">
              {unread} more are being read: after an update that takes a few minutes.
            </p>
          )}
          {shown?.length === 0 && <p className="m-0 text-[20px]">No vehicle is found by that.</p>}
          <ProblemNote error={fleet.error} />
        </section>
        <section
          className="flex min-h-0 flex-col gap-2 overflow-auto border-l-2 border-ink bg-plate p-5 max-[900px]:border-l-0 print:hidden"
          aria-label="Reminders"
          tabIndex={0}
        >
          <h2 className="text-[26px]">Comes due, 90 days</h2>
          <Reminders of={reminders.data?.reminders ?? []} />
          {reminders.data?.more && <p className="m-0 text-[16px] text-ink-2">The soonest of them.</p>}
          <Link className="link flex items-center" to="/jobs/past">
            Past jobs
          </Link>
        </section>
      </div>
    </Shell>
  );
}

/** What comes due in the workshop; the board shows it too. */
export const useReminders = () =>
  useQuery({ queryKey: ["reminders"], queryFn: () => take(api.GET("/api/reminders")), staleTime: 60_000 });
