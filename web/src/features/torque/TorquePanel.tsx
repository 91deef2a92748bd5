import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { api, ApiError, take, type Schemas } from "../../app/api";
import { useCommand } from "../../app/hooks";
import { useWaitingAt } from "../../app/kept";
import { queries } from "../../app/queries";
import { TORQUE_UNIT_NAMES, TORQUE_UNITS, typedNumber } from "../../app/units";
import { ByWhom } from "../../ui/ByWhom";
import { ProblemNote } from "../../ui/Problem";
import { Why } from "../../ui/Why";
import { staleShownAbove, type StepProps } from "../jobs/BenchFrame";
import { StepHeading } from "../jobs/StepHeading";
import { AngleDial } from "./AngleDial";
import { StarPattern } from "./StarPattern";
import { Questions, TorqueWindow, useBothUnits } from "./TorqueRead";
import { WrenchDrawing } from "./Wrench";

/** A figure that is asked about is signed with a word on why it is right. */
function WhyRight({ why, setWhy }: { why: string; setWhy: (why: string) => void }) {
  return (
    <label className="field">
      <span>Why this figure is right all the same</span>
      <input value={why} maxLength={200} onChange={(e) => setWhy(e.target.value)} />
    </label>
  );
}

type Mode = "plain" | "entered" | "unverified" | "wrench";

/** The bench of a torque step: the figure, what to set the wrench to, and one signature a bolt. */
export function TorquePanel({ job, bench, rested, onMoved }: StepProps) {
  const line = bench.torque;
  const order = line?.order ?? [];
  const last = bench.signed.at(-1);
  const [mode, setMode] = useState<Mode>(!line ? "entered" : line.socketReaches || last ? "plain" : "wrench");
  const [wrenchId, setWrenchId] = useState<string | null>(last?.wrench?.id ?? null);
  const [crowfoot, setCrowfoot] = useState(last ? !!last.crowfoot : line ? !line.socketReaches : false);
  const [extension, setExtension] = useState(last?.crowfoot ? String(last.crowfoot.extensionMm) : "");
  const [angle, setAngle] = useState(last?.crowfoot ? String(last.crowfoot.angleFromInLineDeg) : "0");
  const [reason, setReason] = useState("");
  const [why, setWhy] = useState("");
  const [value, setValue] = useState("");
  const [unit, setUnit] = useState<Schemas["TorqueUnit"] | "">("");
  const [count, setCount] = useState("");
  const foot = crowfoot ? { extensionMm: Number(extension), angleFromInLineDeg: Number(angle) } : null;
  const wrenches = useQuery({ ...queries.wrenches, staleTime: Infinity });
  // A figure entered by hand is reckoned and asked about like one of the sheet, before anything is signed.
  const figureTyped = typedNumber(value);
  const typed =
    figureTyped === null || Number.isNaN(figureTyped) || !unit ? null : { value: figureTyped, unit };
  const ask = useQuery({
    queryKey: ["torque-line", line, typed, wrenchId, foot],
    queryFn: () =>
      line
        ? take(api.POST("/api/bench/torque-line", { body: { line, wrenchId, crowfoot: foot } }))
        : take(
            api.POST("/api/bench/torque", {
              body: {
                role: bench.role!,
                value: typed!.value,
                unit: typed!.unit,
                highValue: null,
                threadDiameterMm: null,
                threadPitchMm: null,
                class: "not-known",
                wrenchId,
                crowfoot: foot,
              },
            }),
          ),
    enabled:
      (!!line || !!typed) && (!foot || (foot.extensionMm > 0 && !Number.isNaN(foot.angleFromInLineDeg))),
    retry: false,
    placeholderData: (old) => old,
  });
  // A crowfoot is measured, never assumed: a wrong length is a wrong torque.
  const unmeasured = crowfoot && !(Number(extension) > 0);
  // Nobody signs for a setting that is still being reckoned: neither figure nor wrench is on the screen yet.
  const reckoning =
    (!!line || !!typed) && (ask.isPlaceholderData || (ask.isPending && ask.fetchStatus !== "idle"));
  // What was signed here and not sent yet: the next one is the one after it.
  const unsent = useWaitingAt(job.id, "torques", bench.step).length;
  const index = bench.nextIndex + unsent;
  const sign = useCommand<{ unverified: string | null; handTight?: boolean }>(
    job,
    (h, { unverified, handTight }) =>
      take(
        api.POST("/api/jobs/{id}/torques", {
          params: { path: { id: job.id } },
          body: {
            ...h,
            stepId: bench.step.stepId,
            side: bench.step.side,
            index,
            wrenchId: unverified ? null : (wrenchId ?? ask.data?.wrench?.id ?? null),
            crowfoot: unverified ? null : foot,
            unit: line ? "nm" : unit || "nm",
            enteredValue: line ? null : figureTyped,
            enteredPerCorner: line || count.trim() === "" ? null : Number(count),
            unverifiedReason: unverified,
            reason: why.trim() || null,
            shownNm: unverified || handTight ? null : (ask.data?.set.onTheScaleNm ?? null),
            handTight: handTight ?? false,
          },
        }),
      ),
  );
  const set = line || typed ? ask.data?.set : undefined;
  const both = useBothUnits();
  const atTheBolt = set && both(set.atTheBoltNm, set.atTheBoltLbfFt);
  const asked =
    (!!set?.questions.some((q) => q.wantsReason) && !bench.signed.some((s) => s.verified && s.reason)) ||
    (sign.error instanceof ApiError && !!sign.error.problem.errors?.some((e) => e.field === "reason"));
  const of = line?.perCorner ?? (Number(count) || 1);
  const allSigned = unsent > 0 && index > of;
  const acceptByHand = () =>
    rested() &&
    sign.mutate(
      { unverified: null, handTight: true },
      {
        onError: (e) => e instanceof ApiError && e.problem.reason === "stale-version" && onMoved(e, [count]),
      },
    );
  const send = (unverified: string | null) =>
    sign.mutate(
      { unverified },
      {
        onError: (e) =>
          e instanceof ApiError && e.problem.reason === "stale-version" && onMoved(e, [reason, value]),
      },
    );
  const go = () =>
    rested() &&
    !sign.isPending &&
    mode !== "unverified" &&
    !unmeasured &&
    !reckoning &&
    !allSigned &&
    !set?.refusal &&
    (!asked || why.trim() !== "") &&
    (line || typed) &&
    send(null);
  return (
    <div className="flex h-full flex-col px-6 pt-4 pb-3 max-[1100px]:px-4 max-[800px]:h-auto">
      <div className="flex min-h-0 flex-1 flex-col gap-2 overflow-auto pb-2 max-[800px]:overflow-visible">
        <div className="flex items-start justify-between gap-2">
          <div>
            <StepHeading bench={bench} />
            <p className="m-0 text-ink-2">
              Number {Math.min(index, of)} of {of}
              {unsent > 0 && `, ${unsent} signed here and not sent yet`}. By hand first, to catch a crossed
              thread.
            </p>
          </div>
          {set && <Why reasons={[set.reasons]} />}
        </div>
        {bench.boltsSay?.[index - 1] && (
          <p className="m-0 border-l-4 border-ink pl-3 text-[17px]">{bench.boltsSay?.[index - 1]}</p>
        )}
        {line && unmeasured && (
          <p className="m-0 text-[22px]">
            A socket does not reach it. Measure the crowfoot, from the drive to the bolt's centre: the setting
            follows from it.
          </p>
        )}
        {line && set && !unmeasured && (
          <>
            <div className="flex items-end gap-4 [@media(max-height:500px)]:hidden">
              <div>
                <div className="text-[16px] text-ink-2">At the bolt</div>
                <div className="text-[58px] leading-none font-bold [@media(max-height:700px)]:text-[44px]">
                  {atTheBolt?.[0].figure}
                </div>
              </div>
              <div className="pb-1">
                <div className="text-[24px] leading-none">{atTheBolt?.[0].unit}</div>
                <div className="text-[17px] text-ink-2">
                  {atTheBolt?.[1].figure} {atTheBolt?.[1].unit}
                </div>
              </div>
              <div className="ml-auto pb-1 text-right text-[15px] text-ink-2">
                {line.drive}
                {line.renewedEveryTime ? ", new bolt" : ""}
                <br />
                {line.holdingSpanner && "hold the pin with a spanner"}
              </div>
            </div>
            <TorqueWindow set={set} name="Set the wrench to" />
            {ask.data?.wrench && (
              <div className="[@media(max-height:700px)]:hidden">
                <WrenchDrawing
                  gripMm={ask.data.wrench.gripLengthMm}
                  extensionMm={foot ? foot.extensionMm : null}
                  angleDeg={foot?.angleFromInLineDeg}
                />
              </div>
            )}
            {(order.length >= 3 || line.thenAngleDeg != null) && (
              <div className="flex gap-3 [@media(max-height:700px)]:hidden">
                {order.length >= 3 && <StarPattern order={order} next={index} />}
                {line.thenAngleDeg != null && <AngleDial degrees={line.thenAngleDeg} />}
              </div>
            )}
            <p className="m-0 text-[15px]">
              {foot && ask.data?.wrench && (
                <>
                  <b>Why less.</b> {atTheBolt?.[0].figure} × {ask.data.wrench.gripLengthMm} / (
                  {ask.data.wrench.gripLengthMm} + {foot.extensionMm}
                  {foot.angleFromInLineDeg === 0 ? "" : ` × cos ${foot.angleFromInLineDeg}°`}) ={" "}
                  {both(set.settingNm, set.settingLbfFt)[0].figure}.{" "}
                </>
              )}
              <span className="text-ink-2">
                Sheet {job.opened.sheet.code}.{" "}
                {ask.data?.wrench ? (
                  <>
                    Wrench {ask.data.wrench.id}, in calibration until{" "}
                    <span className="whitespace-nowrap">{ask.data.wrench.calibratedUntil}</span>.
                  </>
                ) : (
                  "No wrench here serves: choose another or add one."
                )}
              </span>
            </p>
            <Questions set={set} />
            {asked && <WhyRight why={why} setWhy={setWhy} />}
          </>
        )}
        {!line && (
          <div className="flex flex-col gap-2">
            <p className="m-0 text-[18px]">The sheet has no figure here. Enter the maker's, with its unit.</p>
            {bench.mayBeHandTight && (
              <ByWhom
                className="btn"
                says="No figure anywhere: accept it hand-tight, in my name"
                disabled={sign.isPending}
                go={acceptByHand}
              />
            )}
            <div className="grid grid-cols-3 gap-2">
              <label className="field">
                <span>Torque</span>
                <input inputMode="decimal" value={value} onChange={(e) => setValue(e.target.value)} />
              </label>
              <label className="field">
                <span>Unit</span>
                <select value={unit} onChange={(e) => setUnit(e.target.value as Schemas["TorqueUnit"])}>
                  <option value="">choose</option>
                  {TORQUE_UNITS.map((u) => (
                    <option key={u} value={u}>
                      {TORQUE_UNIT_NAMES[u]}
                    </option>
                  ))}
                </select>
              </label>
              <label className="field">
                <span>How many</span>
                <input inputMode="numeric" value={count} onChange={(e) => setCount(e.target.value)} />
              </label>
            </div>
            {set && (
              <>
                <TorqueWindow set={set} name="Set the wrench to" />
                <p className="m-0 text-[15px] text-ink-2">
                  {atTheBolt?.[0].figure} {atTheBolt?.[0].unit} at the bolt, {atTheBolt?.[1].figure}{" "}
                  {atTheBolt?.[1].unit}. Entered by hand.
                  {ask.data?.wrench ? ` Wrench ${ask.data.wrench.id}.` : ""}
                </p>
                <Questions set={set} />
                {asked && <WhyRight why={why} setWhy={setWhy} />}
              </>
            )}
          </div>
        )}
        {mode === "wrench" && (
          <fieldset className="m-0 grid grid-cols-2 gap-2 border-0 p-0">
            <legend className="sr-only">Wrench</legend>
            {wrenches.data?.map((w) => (
              <button
                key={w.id}
                type="button"
                className="btn"
                aria-pressed={(wrenchId ?? ask.data?.wrench?.id) === w.id}
                onClick={() => setWrenchId(w.id)}
              >
                {w.id}, to {w.maximumNm} N m
              </button>
            ))}
          </fieldset>
        )}
        {mode === "wrench" && (
          <div className="grid grid-cols-3 gap-2">
            <button
              type="button"
              className="btn"
              aria-pressed={crowfoot}
              onClick={() => setCrowfoot(!crowfoot)}
            >
              Crowfoot
            </button>
            {crowfoot && (
              <>
                <label className="field">
                  <span>Crowfoot length, mm</span>
                  <input
                    inputMode="decimal"
                    value={extension}
                    onChange={(e) => setExtension(e.target.value)}
                  />
                </label>
                <label className="field">
                  <span>Angle, °</span>
                  <input inputMode="decimal" value={angle} onChange={(e) => setAngle(e.target.value)} />
                </label>
              </>
            )}
          </div>
        )}
        {mode === "unverified" && (
          <div className="flex flex-col gap-2 rounded border-2 border-outside p-3">
            <p className="m-0">
              It cannot be measured here: tightened with a spanner and marked. The job stays held until the
              lead accepts it by name and reason.
            </p>
            <label className="field">
              <span>Why it cannot be measured</span>
              <input value={reason} maxLength={200} onChange={(e) => setReason(e.target.value)} />
            </label>
            <ByWhom
              className="btn btn-stop"
              says="Sign it as unverified"
              disabled={reason.trim() === "" || sign.isPending}
              go={() => rested() && send(reason)}
            />
          </div>
        )}
        {ask.error instanceof ApiError && <ProblemNote error={ask.error} />}
      </div>
      <div className="bench-action flex flex-shrink-0 flex-col gap-2">
        <ProblemNote error={staleShownAbove(sign.error)} />
        <div className="grid grid-cols-2 gap-2">
          <button
            type="button"
            className="btn"
            aria-pressed={mode === "unverified"}
            onClick={() => setMode(mode === "unverified" ? "plain" : "unverified")}
          >
            Cannot reach it
          </button>
          <button
            type="button"
            className="btn"
            aria-pressed={mode === "wrench"}
            onClick={() => setMode(mode === "wrench" ? "plain" : "wrench")}
          >
            Other wrench or crowfoot
          </button>
        </div>
        <ByWhom
          byKey
          says={
            allSigned
              ? "All signed here, not sent yet"
              : unmeasured
                ? "Measure the crowfoot first"
                : `Number ${index} clicked${line?.thenAngleDeg ? `, then ${line.thenAngleDeg}° further` : ""}: sign it`
          }
          disabled={
            sign.isPending ||
            mode === "unverified" ||
            unmeasured ||
            reckoning ||
            allSigned ||
            !!set?.refusal ||
            (asked && why.trim() === "") ||
            (!line && !typed)
          }
          go={go}
        />
      </div>
    </div>
  );
}
