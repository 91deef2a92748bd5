import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { api, take } from "../../app/api";
import { ProblemNote } from "../../ui/Problem";

/** Where a calendar program finds the reminders. The lead's. */
export function CalendarSection() {
  const client = useQueryClient();
  const calendar = useQuery({
    queryKey: ["calendar"],
    queryFn: () => take(api.GET("/api/reminders/calendar")),
  });
  const renew = useMutation({
    mutationFn: () => take(api.POST("/api/reminders/calendar/renew")),
    onSuccess: (view) => client.setQueryData(["calendar"], view),
  });
  return (
    <section className="flex flex-col gap-2">
      <h2 className="text-[26px]">Calendar</h2>
      <p className="m-0 text-[15px] text-ink-2">
        What comes due, for a calendar program that subscribes to an address. Whoever has the address reads
        plates and days, and nothing else.
      </p>
      {calendar.data && (
        <>
          <label className="field">
            <span>Address</span>
            <input
              readOnly
              value={`${location.origin}${calendar.data.address}`}
              onFocus={(e) => e.target.select()}
            />
          </label>
          <div className="grid grid-cols-2 gap-2">
            <a className="btn" href={calendar.data.address} download="reminders.ics">
              As a file
            </a>
            <button type="button" className="btn" disabled={renew.isPending} onClick={() => renew.mutate()}>
              Make a new address
            </button>
          </div>
        </>
      )}
      <ProblemNote error={calendar.error ?? renew.error} />
    </section>
  );
}
