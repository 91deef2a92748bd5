import { Link, useNavigate, useParams } from "react-router";
import { api, take, type Schemas, type Side } from "../../app/api";
import { useCatalogue, useCommand, useKeys } from "../../app/hooks";
import { ProblemNote } from "../../ui/Problem";
import { Shell } from "../../ui/Shell";
import { Spine } from "../../ui/Spine";
import { Why } from "../../ui/Why";
import { jobTitle, useThisJob } from "../jobs/JobFrame";
import { Sights } from "../practice/Sights";
import { LookDrawing } from "./drawings";
import { lookWords, SEEN } from "./words";

type Card = Schemas["LookCard"];
type Seen = Schemas["Seen"];
const REACH: [Schemas["LookReach"], string][] = [
  ["cabin", "In the cabin"],
  ["wheel-on", "Behind the wheel"],
  ["wheel-off", "Wheel off"],
  ["caliper-off", "Caliper off"],
];

/** Which brake is this: touch what you see; what still stands, what fell and by which look, and what to look at next. */
export function LookPage() {
  const job = useThisJob();
  const { side: word } = useParams();
  const side: Side = word === "right" ? "right" : "left";
  const corner = side === "left" ? job.left : job.right;
  const catalogue = useCatalogue();
  const navigate = useNavigate();
  const look = useCommand<{ look: Schemas["Look"]; seen: Seen | null }>(job, (h, b) =>
    take(api.POST("/api/jobs/{id}/looks", { params: { path: { id: job.id } }, body: { ...h, side, ...b } })),
  );
  const rule = useCommand<null>(job, (h) =>
    take(api.POST("/api/jobs/{id}/rulings", { params: { path: { id: job.id } }, body: { ...h, side } })),
  );
  const { found } = corner;
  const card = (a: Schemas["Architecture"]) =>
    catalogue.data?.architectures.find((c) => c.architecture === a);
  const closed = !!corner.ruling && !corner.methodUndecided;
  const answer = (l: Schemas["Look"]) => corner.looks.find((o) => o.look === l)?.seen;
  const say = (l: Schemas["Look"], seen: Seen) =>
    !look.isPending && look.mutate({ look: l, seen: answer(l) === seen ? null : seen });
  const next = found.next ? catalogue.data?.looks.find((c) => c.look === found.next?.look) : undefined;
  const canRule = !closed && found.ruled !== null && !(corner.methodUndecided && found.methodUndecided);
  const settle = () =>
    canRule && !rule.isPending && rule.mutate(null, { onSuccess: () => void navigate(`/jobs/${job.id}`) });
  const yesNo = next && next.answers.includes("yes") && !found.next?.waitsForRelaxed;
  useKeys({
    Space: () => (closed ? void navigate(`/jobs/${job.id}`) : settle()),
    y: () => yesNo && next && say(next.look, "yes"),
    n: () => yesNo && next && say(next.look, "no"),
    o: () => void navigate(`/jobs/${job.id}/look/${side === "left" ? "right" : "left"}`),
  });
  const { title, sub } = jobTitle(job);
  const groups = [
    ...new Map(found.fallen.map((f) => [JSON.stringify(f.felledBy[0]), f.felledBy[0]])).values(),
  ].filter((o) => o !== undefined);
  return (
    <Shell
      title={title}
      sub={sub}
      keys={{
        Y: "Yes to the next look",
        N: "No to the next look",
        Space: "Confirm brake type",
        O: "The other corner",
      }}
      info={
        <Link to={`/jobs/${job.id}`} className="flex min-h-11 items-center">
          Run sheet
        </Link>
      }
    >
      <div className="grid h-full grid-cols-[152px_minmax(0,1fr)_488px] max-[1100px]:grid-cols-[124px_minmax(0,1fr)_400px] max-[800px]:block max-[800px]:overflow-auto">
        <div className="max-[800px]:hidden">
          <Spine teeth={job.sheet.spine} stage="look" />
        </div>
        <section
          className="flex min-h-0 flex-col gap-2 overflow-auto px-4 pt-4 pb-4"
          aria-label="What is seen"
        >
          <div className="flex flex-wrap items-end justify-between gap-2">
            <div>
              <h2 className="text-[31px]">Look, {side} corner</h2>
              <p className="m-0 text-ink-2">
                {closed
                  ? "Confirmed. The looks stand as they were."
                  : "Touch what you see. The further down, the more comes apart."}
              </p>
            </div>
            {job.opened.practice && <Sights key={side} job={job} side={side} />}
            <Link className="btn" to={`/jobs/${job.id}/look/${side === "left" ? "right" : "left"}`}>
              {side === "left" ? "Right" : "Left"} corner
            </Link>
          </div>
          {REACH.map(([reach, words]) => (
            <div key={reach}>
              <h3 className="mb-1 text-[19px]">{words}</h3>
              <div className="flex flex-wrap gap-2">
                {catalogue.data?.looks
                  .filter((c) => c.reach === reach)
                  .map((c) => (
                    <Tile
                      key={c.look}
                      card={c}
                      seen={answer(c.look)}
                      say={say}
                      disabled={closed || look.isPending}
                    />
                  ))}
              </div>
            </div>
          ))}
          {["two-notches", "cross", "three-lobes", "v-shape"].includes(answer("piston-face") ?? "") && (
            <p className="m-0 border-l-8 border-pawl bg-plate px-3 py-2 text-[15px]">
              <b>A notched face is not proof of a screw.</b> Motor calipers have them too: it rules out
              nothing.
            </p>
          )}
        </section>
        <section
          className="flex min-h-0 flex-col border-l-2 border-ink bg-plate px-6 pt-4 pb-3 max-[800px]:border-l-0"
          aria-label="What is possible"
        >
          <div className="flex min-h-0 flex-1 flex-col gap-3 overflow-auto pb-3">
            <div className="flex items-start justify-between">
              <h2 className="text-[31px]">
                {found.contradictions.length > 0
                  ? "Look again"
                  : closed && corner.ruling
                    ? "Confirmed"
                    : found.standing.length === 1
                      ? "1 possible"
                      : `${found.standing.length} possible`}
              </h2>
              <Why
                reasons={closed && corner.ruling ? [found.reasons, corner.ruling.reasons] : [found.reasons]}
              />
            </div>
            {found.contradictions.length > 0 && (
              <p className="m-0 rounded border-2 border-outside p-3 text-[18px]">
                These cannot all be true: <b>{found.contradictions.map(lookWords).join(", ")}</b>. Look at
                each again.
              </p>
            )}
            {found.contradictions.length === 0 && (
              <ul
                className={`m-0 grid list-none gap-1 p-0 ${found.standing.length > 4 ? "grid-cols-2" : ""}`}
              >
                {found.standing.map((a) => (
                  <li key={a} className="flex gap-3">
                    <svg
                      width="12"
                      viewBox="0 0 12 40"
                      preserveAspectRatio="none"
                      aria-hidden="true"
                      className="h-auto self-stretch"
                    >
                      <path d="M0 0 H3 L12 40 H0 Z" fill="var(--railline)" />
                    </svg>
                    <span>
                      <span
                        className={`title block ${found.standing.length > 4 ? "text-[18px]" : "text-[24px]"}`}
                      >
                        {card(a)?.name}
                      </span>
                      <span className="text-[14px] text-ink-2">{card(a)?.back}</span>
                    </span>
                  </li>
                ))}
              </ul>
            )}
            {found.fallen.length > 0 && (
              <div>
                <h3 className="mb-1 text-[19px]">{found.fallen.length} ruled out, and by what</h3>
                {groups.map((o) => (
                  <div key={o.look} className="flex items-center gap-2 border-t border-rule py-[3px]">
                    <LookDrawing look={o.look} seen={o.seen} width={38} />
                    <span className="step-name w-[128px] flex-shrink-0 !text-[17px]">{lookWords(o)}</span>
                    <span className="text-[13px] text-ink-2">
                      {found.fallen
                        .filter((f) => f.felledBy[0]?.look === o.look)
                        .map((f) => card(f.architecture)?.short)
                        .join("; ")}
                    </span>
                  </div>
                ))}
              </div>
            )}
          </div>
          <div className="flex flex-shrink-0 flex-col gap-2 border-t-2 border-ink pt-2">
            <ProblemNote error={look.error ?? rule.error} />
            {closed && corner.ruling ? (
              <>
                <p className="title m-0 text-[34px]">{corner.ruling.headline}</p>
                <Link className="btn-primary" to={`/jobs/${job.id}`}>
                  To the run sheet <span className="keycap">Space</span>
                </Link>
              </>
            ) : canRule && (found.standing.length === 1 || found.joint) ? (
              <>
                <p className="m-0 text-ink-2">
                  {found.methodUndecided
                    ? "One ruling serves both until the spindle is back"
                    : found.joint
                      ? "One ruling serves all that are possible"
                      : "It goes back by"}
                </p>
                <p className="title m-0 text-[34px]">{corner.provisional?.headline}</p>
                <button type="button" className="btn-primary" disabled={rule.isPending} onClick={settle}>
                  Confirm brake type, {side} <span className="keycap">Space</span>
                </button>
              </>
            ) : next ? (
              <>
                <p className="m-0 text-ink-2">Look next</p>
                <div className="flex items-center gap-4">
                  <p className="title m-0 flex-1 text-[40px] max-[1100px]:text-[32px]">{next.question}</p>
                  <LookDrawing look={next.look} width={104} />
                </div>
                {found.next?.waitsForRelaxed ? (
                  <p className="m-0 text-[18px]">
                    Wait with it until the spindle is back, or the cable slack and the lever on its stop.
                  </p>
                ) : yesNo ? (
                  <div className="btn-primary !p-0">
                    <button
                      type="button"
                      className="flex h-full min-h-16 flex-1 items-center justify-between border-0 border-r-[1.5px] border-pawl-text bg-transparent px-5 text-pawl-text"
                      onClick={() => say(next.look, "yes")}
                    >
                      {next.look === "push-moves" ? "It slides" : "Yes"} <span className="keycap">Y</span>
                    </button>
                    <button
                      type="button"
                      className="flex h-full min-h-16 flex-1 items-center justify-between border-0 bg-transparent px-5 text-pawl-text"
                      onClick={() => say(next.look, "no")}
                    >
                      {next.look === "push-moves" ? "It stays put" : "No"} <span className="keycap">N</span>
                    </button>
                  </div>
                ) : (
                  <div className="grid grid-cols-3 gap-2">
                    {next.answers.map((a) => (
                      <button
                        key={a}
                        type="button"
                        className="btn min-h-16"
                        onClick={() => say(next.look, a)}
                      >
                        {SEEN[a]}
                      </button>
                    ))}
                  </div>
                )}
              </>
            ) : (
              <p className="m-0 text-[18px]">Answer one of the looks again.</p>
            )}
          </div>
        </section>
      </div>
    </Shell>
  );
}

function Tile({
  card,
  seen,
  say,
  disabled,
}: {
  card: Card;
  seen: Seen | undefined;
  say: (l: Schemas["Look"], s: Seen) => void;
  disabled: boolean;
}) {
  if (!card.answers.includes("yes"))
    return (
      <fieldset className="m-0 flex flex-wrap gap-2 border-0 p-0">
        <legend className="sr-only">{card.question}</legend>
        {card.answers.map((a) => (
          <button
            key={a}
            type="button"
            className={`btn h-[101px] w-[82px] flex-col !gap-1 !px-1 !text-[16px] ${seen === a ? "!border-[3px] !border-ink !bg-plate !text-ink" : "!bg-ground"}`}
            aria-pressed={seen === a}
            disabled={disabled}
            onClick={() => say(card.look, a)}
          >
            <LookDrawing look={card.look} seen={a} width={64} />
            {SEEN[a]}
          </button>
        ))}
      </fieldset>
    );
  const push = card.reach === "push-test";
  if (push) return null;
  return (
    <fieldset
      className={`m-0 flex h-[101px] ${card.answers.length > 2 ? "w-[250px]" : "w-[146px]"} rounded border-[1.5px] border-ink-2 p-0 ${seen ? "bg-plate" : "border-dashed"}`}
    >
      <legend className="sr-only">{card.question}</legend>
      <div className="flex min-w-0 flex-1 flex-col items-center justify-between py-1">
        <LookDrawing look={card.look} seen={seen} width={66} />
        <span className="step-name text-center !text-[16px]">{card.name}</span>
      </div>
      <div className={`flex border-l-[1.5px] border-ink-2 ${card.answers.length > 2 ? "" : "flex-col"}`}>
        {card.answers.map((a) => (
          <button
            key={a}
            type="button"
            aria-label={`${card.name}: ${SEEN[a]}`}
            aria-pressed={seen === a}
            disabled={disabled}
            onClick={() => say(card.look, a)}
            className={`min-h-[48px] w-[50px] flex-1 border-0 border-ink-2 font-title text-[17px] ${card.answers.length > 2 ? "not-first:border-l-[1.5px]" : "not-first:border-t-[1.5px]"} ${seen === a ? "bg-ink text-plate" : "bg-transparent"} ${a === "not-known" ? "!text-[13px] leading-none" : ""}`}
          >
            {a === "not-known" ? "Not sure" : SEEN[a]}
          </button>
        ))}
      </div>
    </fieldset>
  );
}
