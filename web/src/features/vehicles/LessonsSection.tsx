import { useQuery } from "@tanstack/react-query";
import { api, take } from "../../app/api";

/** What finished jobs taught the workshop: how long its steps take, and what comes up again and again. */
export function LessonsSection() {
  const lessons = useQuery({
    queryKey: ["lessons"],
    queryFn: () => take(api.GET("/api/workshop/lessons")),
  });
  const l = lessons.data;
  if (!l) return null;
  return (
    <section className="flex flex-col gap-2" aria-labelledby="lessons">
      <h2 id="lessons" className="text-[26px]">
        Learnt from finished jobs: {l.jobs}
      </h2>
      {l.minutes.length === 0 && (
        <p className="m-0 text-[17px]">A step&apos;s minutes are learnt once it was done five times.</p>
      )}
      {l.minutes.length > 0 && (
        <div className="max-h-[420px] overflow-auto" tabIndex={0} role="group" aria-label="Minutes learnt">
          <table className="w-full border-collapse text-[17px]">
            <thead>
              <tr className="text-left text-ink-2">
                <th className="font-normal">Step</th>
                <th className="text-right font-normal">Here, min</th>
                <th className="text-right font-normal">Usual, min</th>
                <th className="text-right font-normal">Times</th>
              </tr>
            </thead>
            <tbody>
              {l.minutes.map((m) => (
                <tr key={m.stepId} className="border-t border-rule">
                  <td className="py-1">{m.name}</td>
                  <td className="text-right font-bold">{m.minutes}</td>
                  <td className="text-right">{m.usual}</td>
                  <td className="text-right">{m.count}</td>
                </tr>
              ))}
            </tbody>
          </table>
        </div>
      )}
      {l.findings.map((f) => (
        <p key={`${f.vehicleType} ${f.kind}`} className="m-0 text-[17px]">
          {f.vehicleType}: {f.name.toLowerCase()}, in {f.count} of {f.of} jobs
        </p>
      ))}
    </section>
  );
}
