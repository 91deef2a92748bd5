import { type Schemas, type Side } from "../../app/api";
import { VerdictMark } from "../../ui/marks";
import { Why } from "../../ui/Why";
import { figure } from "../jobs/words";
import { Headline, NotPassed, Wanted } from "../measuring/BenchPage";
import { NumberLine, SettleNote } from "../measuring/NumberLine";
import { ForecastPlot, PadPicture } from "./drawings";
import { Answer, Facts } from "./model";

export function WearVerdict({
  answer,
  facts,
  change,
  newest,
}: {
  answer: Answer | undefined;
  facts: Facts;
  change: (patch: Partial<Facts>) => void;
  newest: number | null;
}) {
  const pads = answer?.pads;
  if (!pads) return <Wanted title="Pads against their minimum" lacks={answer?.lacks ?? []} />;
  const thin = pads.thinnest;
  const say = (causeId: string, side: Side | null, a: Schemas["CheckAnswer"]) =>
    change({
      answers: [
        ...facts.answers.filter((x) => x.causeId !== causeId || x.side !== side),
        ...(a === "not-made" ? [] : [{ causeId, side, answer: a }]),
      ],
    });
  return (
    <>
      <Headline>
        <VerdictMark verdict={pads.verdict} />
        {pads.verdict !== "inside" && <NotPassed />}
        <Why reasons={[pads.reasons, thin.minimum.reasons]} />
      </Headline>
      <div className="flex items-end gap-4">
        <span className="huge">{thin.thinnestMm.toFixed(1)}</span>
        <span className="pb-2 text-[18px]">
          mm, thinnest: {thin.side} {thin.pad}
          <br />
          <b>{figure(thin.percentLeft, 0)} %</b> left, least {figure(thin.minimum.limitMm, 1)}
          {thin.minimum.reasons.lines.some(
            (l) => l.kind === "default" && l.sourceId === "practice-minimum-lining",
          ) && ", a default"}
        </span>
      </div>
      <NumberLine
        verdict={thin.minimum}
        limitName="LEAST"
        values={pads.pads.map((p) => ({ mm: p.thinnestMm, hollow: p.side === "right" }))}
      />
      <SettleNote ways={pads.settledBy} />
      <PadPicture pads={pads.pads} newest={newest ?? Math.max(...pads.pads.map((p) => p.thinnestMm))} />
      {pads.findings.map((f) => (
        <section key={f.says} className="border-t border-rule pt-1">
          <h3 className="text-[22px]">{f.says}</h3>
          {f.causes.map((c, i) => (
            <div
              key={c.id}
              className={`mt-1 flex items-center justify-between gap-2 ${c.answer === "rules-out" ? "text-ink-2 line-through" : ""}`}
            >
              <span className="text-[16px]">
                <b>
                  {i + 1}. {c.says}.
                </b>{" "}
                {c.check} {c.confirms}
              </span>
              <span className="flex gap-1">
                <button
                  type="button"
                  className="btn whitespace-nowrap !px-2"
                  aria-label={`${c.says}: it is so`}
                  aria-pressed={c.answer === "confirms"}
                  onClick={() => say(c.id, f.side, c.answer === "confirms" ? "not-made" : "confirms")}
                >
                  Yes, seen
                </button>
                <button
                  type="button"
                  className="btn whitespace-nowrap !px-2"
                  aria-label={`${c.says}: it is not so`}
                  aria-pressed={c.answer === "rules-out"}
                  onClick={() => say(c.id, f.side, c.answer === "rules-out" ? "not-made" : "rules-out")}
                >
                  No
                </button>
              </span>
            </div>
          ))}
        </section>
      ))}
      <p className="m-0 text-[15px] text-ink-2">{[...(answer.lacks ?? []), ...pads.notes].join(" ")}</p>
    </>
  );
}

export function Forecast({ answer, facts }: { answer: Answer | undefined; facts: Facts }) {
  const f = answer?.forecast;
  if (!f)
    return (
      <Wanted
        title="How long they last"
        lacks={["The linings and the odometer now, or an earlier reading."]}
      />
    );
  const now = f.line[0]!;
  const points =
    answer.pads && facts.odometerKm !== null
      ? [...facts.history, { odometerKm: facts.odometerKm, liningMm: answer.pads.thinnest.thinnestMm }]
      : facts.history;
  return (
    <>
      <Headline>
        <h2 className="text-[31px]">To the least lining</h2>
        <Why reasons={[f.reasons]} />
      </Headline>
      <div className="flex items-end gap-4">
        <span className="huge huge-5">
          {f.toMinimumKm === null ? "none" : figure(f.toMinimumKm / 1000, 1)}
        </span>
        <span className="pb-2 text-[18px]">
          {f.toMinimumKm === null ? "" : "thousand km"}
          <br />
          {figure(f.wearPerThousandKmMm, 3)} mm a 1000 km{f.fromDefault ? ", a default" : ""}
        </span>
      </div>
      <ForecastPlot
        forecast={f}
        history={points.length > 0 ? points : [now]}
        leastMm={f.line[1]?.liningMm ?? 0}
      />
      <p className="m-0 text-[18px]">{f.says}</p>
      {f.lastsToNext !== null && facts.nextInspectionKm !== null && (
        <p className="m-0 text-[18px]">
          It lasts to the next inspection in {facts.nextInspectionKm} km with a chance of{" "}
          <b>{figure(f.lastsToNext * 100, 0)} %</b>.
        </p>
      )}
    </>
  );
}
