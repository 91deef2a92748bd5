import { useQuery } from "@tanstack/react-query";
import { Link } from "react-router";
import { api, take, type Schemas } from "../../app/api";
import { NM } from "../../app/units";
import { ProblemNote } from "../../ui/Problem";
import { Shell } from "../../ui/Shell";
import { Why } from "../../ui/Why";
import { jobTitle, useThisJob } from "../jobs/JobFrame";
import { figure, moment } from "../jobs/words";
import { AngleDial } from "./AngleDial";
import { StarPattern } from "./StarPattern";

const LBF_FT = NM["lbf-ft"];

/** Every fastener of the job on one page: what, how tight, with which wrench, in which order. */
export function TorqueCardPage() {
  const job = useThisJob();
  const card = useQuery({
    queryKey: ["torque-card", job.id, job.version],
    queryFn: () => take(api.GET("/api/jobs/{id}/torque-card", { params: { path: { id: job.id } } })),
  });
  const { title, sub } = jobTitle(job);
  const range = (low: number, high: number | null) =>
    high === null ? figure(low, 1) : `${figure(low, 1)} to ${figure(high, 1)}`;
  return (
    <Shell
      title="Torque card"
      sub={`${title}, ${sub}`}
      info={
        <>
          <button
            type="button"
            className="flex min-h-11 items-center border-0 bg-transparent p-0 text-inherit"
            onClick={() => print()}
          >
            Print
          </button>
          <Link to={`/jobs/${job.id}`} className="flex min-h-11 items-center">
            Run sheet
          </Link>
        </>
      }
    >
      <section className="h-full overflow-auto p-6 print:p-0" aria-label="Fasteners" tabIndex={0}>
        <ProblemNote error={card.error} />
        {card.data && (
          <>
            <div className="grid grid-cols-2 gap-4 max-[900px]:grid-cols-1">
              {card.data.card.lines.map((l) => (
                <article
                  key={l.line.role}
                  className="flex gap-4 border-2 border-ink bg-plate p-4 break-inside-avoid"
                >
                  <div className="min-w-0 flex-1">
                    <h2 className="text-[24px]">
                      {l.name}
                      <span className="ml-2 font-sans text-[16px] text-ink-2">
                        {l.line.perCorner} a corner, {l.line.thread}, {l.line.drive}
                      </span>
                    </h2>
                    <p className="m-0 text-[40px] leading-tight font-bold">
                      {range(l.line.lowNm, l.line.highNm)}{" "}
                      <span className="text-[20px] font-normal">N m</span>
                    </p>
                    <p className="m-0 text-[17px]">
                      {range(l.line.lowNm / LBF_FT, l.line.highNm === null ? null : l.line.highNm / LBF_FT)}{" "}
                      lbf ft
                      {l.seatAtNm !== null && `. Seat at ${figure(l.seatAtNm, 0)} N m, then full`}
                    </p>
                    <p className="m-0 mt-1 text-[16px]">
                      {!l.wrenchId ? (
                        "No wrench of the workshop serves."
                      ) : l.line.socketReaches ? (
                        <>
                          Wrench <b>{l.wrenchId}</b>, set {figure(l.set?.onTheScaleNm ?? 0, 1)} N m in line.
                        </>
                      ) : (
                        <>
                          Wrench <b>{l.wrenchId}</b> with a crowfoot: the torque step computes its setting.
                        </>
                      )}{" "}
                      {l.line.renewedEveryTime && <b>New bolts every time. </b>}
                      {l.line.holdingSpanner && "Hold the pin with a spanner. "}
                    </p>
                    <Signed of={card.data.signed.filter((x) => x.role === l.line.role)} />
                    <p className="m-0 text-[15px] text-ink-2">{l.when}</p>
                    {l.questions.map((q) => (
                      <p key={q} className="m-0 border-l-4 border-undecided pl-2 text-[15px]">
                        {q}
                      </p>
                    ))}
                  </div>
                  {(l.line.order ?? []).length >= 3 && <StarPattern order={l.line.order ?? []} />}
                  {l.line.thenAngleDeg != null && <AngleDial degrees={l.line.thenAngleDeg} />}
                </article>
              ))}
            </div>
            {card.data.card.lacks.map((l) => (
              <p key={l} className="m-0 mt-2 text-[16px]">
                {l}
              </p>
            ))}
            <p className="mt-4 mb-0 text-[16px]">
              {card.data.card.studs}{" "}
              {card.data.card.leadSigns && "The lead signs bracket, caliper and wheels too. "}
              <Why reasons={[card.data.card.reasons]} />
            </p>
            <p className="m-0 text-[15px] text-ink-2">
              Figures from sheet {job.opened.sheet.code}, {job.opened.sheet.source}. The maker's current data
              outranks them.
            </p>
          </>
        )}
      </section>
    </Shell>
  );
}

type SignedFastener = Schemas["SignedFastener"];

/** Who signed, side by side: the question a lead asks first. */
function Signed({ of }: { of: SignedFastener[] }) {
  const sides = [...new Set(of.map((x) => x.side))];
  return sides.map((side) => {
    const here = of.filter((x) => x.side === side);
    const people = [...new Set(here.map((x) => x.by))];
    return people.map((by) => {
      const theirs = here.filter((x) => x.by === by);
      return (
        <p key={`${side} ${by}`} className="m-0 mt-1 border-t border-rule pt-1">
          <b className="title text-[26px]">
            {side ? `${side === "left" ? "Left" : "Right"}: ` : ""}
            {by}
          </b>
          <span className="ml-2 text-[16px] text-ink-2">
            number {theirs.map((x) => x.index).join(", ")}
            {theirs[0]!.wrenchId && `, ${theirs[0]!.wrenchId}`}, {moment(theirs.at(-1)!.at)}
            {theirs.some((x) => !x.verified) && ", not verified"}
          </span>
        </p>
      );
    });
  });
}
