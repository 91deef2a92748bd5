import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { api, take, type Schemas } from "../../app/api";
import { useSession } from "../../app/hooks";
import { queries } from "../../app/queries";
import { base64 } from "../../app/pictures";
import { typedNumber } from "../../app/units";
import { VerdictMark } from "../../ui/marks";
import { ProblemNote } from "../../ui/Problem";
import { Why } from "../../ui/Why";

type Wrench = Schemas["Wrench"];
type Typed = Record<string, string>;

const WRENCH = [
  ["id", "Short name"],
  ["name", "What it is"],
  ["maximumNm", "Top of its scale, N m"],
  ["incrementNm", "Step of its scale, N m"],
  ["gripLengthMm", "Grip to drive, mm"],
] as const;
const POINTS = [0, 1, 2];
const POINT = [
  ["set", "Set, N m"],
  ["found", "Gave, as found"],
  ["left", "Gave, as left"],
] as const;
// A figure that is no number is sent as it is not: the server says what is wrong with it.
const figure = (typed: string | undefined) => typedNumber(typed ?? "") as number;

/** The workshop's torque wrenches, each as its certificates have it. */
export function Wrenches() {
  const lead = useSession().data?.me?.isLead ?? false;
  const wrenches = useQuery(queries.wrenches);
  const certified = useQuery({
    queryKey: ["certificates"],
    queryFn: () => take(api.GET("/api/workshop/wrenches/certificates")),
  });
  const [form, setForm] = useState<string | null>(null);
  const done = () => setForm(null);
  return (
    <section className="flex flex-col gap-2" aria-labelledby="wrenches">
      <h2 id="wrenches" className="text-[26px]">
        Wrenches
      </h2>
      {wrenches.data?.length === 0 && (
        <p className="m-0 text-[17px]">None yet: without a wrench in calibration no torque is verified.</p>
      )}
      {wrenches.data?.map((w) => {
        const of = certified.data?.find((c) => c.wrenchId === w.id);
        return (
          <div key={w.id} className="flex flex-col gap-1 border-t border-rule pt-1">
            <span className="step-name">
              {w.id}: {w.name}
            </span>
            <div className="text-[16px] text-ink-2">
              To {w.maximumNm} N m in steps of {w.incrementNm}; grip to drive {w.gripLengthMm} mm; in
              calibration until {w.calibratedUntil};{" "}
              {w.permissibleDeviation !== undefined &&
                `reckoned with ${Number((w.permissibleDeviation * 100).toFixed(2))} % `}
              {of ? "by its certificates" : "by its class: no certificate entered"}.
            </div>
            {of && <Certified of={of} />}
            {lead && form !== w.id && (
              <button type="button" className="btn self-start" onClick={() => setForm(w.id)}>
                Enter a certificate, {w.id}
              </button>
            )}
            {lead && form === w.id && <CertificateForm wrench={w} done={done} />}
          </div>
        );
      })}
      {lead && form !== "new" && (
        <button type="button" className="btn self-start" onClick={() => setForm("new")}>
          Add a wrench
        </button>
      )}
      {lead && form === "new" && <WrenchForm done={done} />}
    </section>
  );
}

function Certified({ of }: { of: Schemas["WrenchCertified"] }) {
  const { says } = of;
  const last = of.certificates.at(-1);
  const percent = (v: number) => `${v > 0 ? "+" : ""}${v.toFixed(1)} %`;
  return (
    <div className="flex flex-wrap items-center gap-x-4 gap-y-1 text-[17px]">
      <span className="flex items-center gap-2">
        As found {percent(says.asFoundPercent)} <VerdictMark verdict={says.asFound} />
      </span>
      <span className="flex items-center gap-2">
        As left {percent(says.asLeftPercent)} <VerdictMark verdict={says.asLeft} />
      </span>
      {says.driftPercentAYear !== null && <span>Drifts {percent(says.driftPercentAYear)} a year</span>}
      <Why reasons={[says.reasons]} />
      <span className="basis-full">
        {last && `Certificate ${last.number}, ${last.on}. `}
        {last?.hasFile && (
          <a
            className="underline"
            href={`/api/workshop/wrenches/${encodeURIComponent(of.wrenchId)}/certificates/${last.on}/file`}
            download
          >
            Its paper.
          </a>
        )}{" "}
        {says.says}
      </span>
    </div>
  );
}

function Fields({
  fields,
  typed,
  set,
  type = "text",
}: {
  fields: readonly (readonly [string, string])[];
  typed: Typed;
  set: (typed: Typed) => void;
  type?: string;
}) {
  return fields.map(([key, label]) => (
    <label key={key} className="field min-w-0">
      <span>{label}</span>
      <input
        type={type}
        value={typed[key] ?? ""}
        maxLength={40}
        required={type === "date"}
        onChange={(e) => set({ ...typed, [key]: e.target.value })}
      />
    </label>
  ));
}

function FormEnd({
  does,
  save,
  done,
}: {
  does: string;
  save: { error: unknown; isPending: boolean };
  done: () => void;
}) {
  return (
    <>
      <ProblemNote error={save.error} />
      <div className="flex gap-2">
        <button className="btn" disabled={save.isPending}>
          {does}
        </button>
        <button type="button" className="btn" onClick={done}>
          Not now
        </button>
      </div>
    </>
  );
}

function CertificateForm({ wrench, done }: { wrench: Wrench; done: () => void }) {
  const client = useQueryClient();
  const [typed, setTyped] = useState<Typed>({});
  const [paper, setPaper] = useState<File | null>(null);
  const given = POINTS.filter((i) => POINT.some(([key]) => typed[`${key}${i}`]));
  const save = useMutation({
    mutationFn: async () =>
      take(
        api.POST("/api/workshop/wrenches/{id}/certificates", {
          params: { path: { id: wrench.id } },
          body: {
            number: typed.number ?? "",
            on: typed.on ?? "",
            until: typed.until ?? "",
            uncertaintyPercent: figure(typed.uncertainty),
            points: given.map((i) => ({
              setNm: figure(typed[`set${i}`]),
              asFoundNm: figure(typed[`found${i}`]),
              asLeftNm: figure(typed[`left${i}`]),
            })),
            file: paper && (await base64(paper)),
          },
        }),
      ),
    onSuccess: (all) => {
      client.setQueryData(["certificates"], all);
      void client.invalidateQueries({ queryKey: queries.wrenches.queryKey });
      done();
    },
  });
  return (
    <form
      className="flex flex-col gap-2"
      aria-label={`Certificate of ${wrench.id}`}
      onSubmit={(e) => {
        e.preventDefault();
        save.mutate();
      }}
    >
      <div className="grid grid-cols-2 gap-2">
        <Fields fields={[["number", "Certificate number"]]} typed={typed} set={setTyped} />
        <Fields fields={[["uncertainty", "Its uncertainty (k = 2), %"]]} typed={typed} set={setTyped} />
        <Fields
          type="date"
          fields={[
            ["on", "Calibrated on"],
            ["until", "Counts until"],
          ]}
          typed={typed}
          set={setTyped}
        />
      </div>
      {POINTS.map((i) => (
        <fieldset key={i} className="m-0 grid grid-cols-3 gap-2 border-0 p-0">
          <legend className="text-[15px] text-ink-2">Point {i + 1}</legend>
          <Fields fields={POINT.map(([key, label]) => [`${key}${i}`, label])} typed={typed} set={setTyped} />
        </fieldset>
      ))}
      <label className="field">
        <span>The laboratory&apos;s paper, PDF</span>
        <input
          type="file"
          accept="application/pdf,.pdf"
          onChange={(e) => setPaper(e.target.files?.[0] ?? null)}
        />
      </label>
      <FormEnd does="Keep the certificate" save={save} done={done} />
    </form>
  );
}

function WrenchForm({ done }: { done: () => void }) {
  const client = useQueryClient();
  const [typed, setTyped] = useState<Typed>({});
  const save = useMutation({
    mutationFn: () =>
      take(
        api.POST("/api/workshop/wrenches", {
          body: {
            id: (typed.id ?? "").trim(),
            name: (typed.name ?? "").trim(),
            maximumNm: figure(typed.maximumNm),
            incrementNm: figure(typed.incrementNm),
            gripLengthMm: figure(typed.gripLengthMm),
            type: typed.beam ? "bending-beam" : "setting",
            calibratedUntil: typed.calibratedUntil ?? "",
          },
        }),
      ),
    onSuccess: (all) => {
      client.setQueryData(["wrenches"], all);
      done();
    },
  });
  return (
    <form
      className="flex flex-col gap-2"
      aria-label="A new wrench"
      onSubmit={(e) => {
        e.preventDefault();
        save.mutate();
      }}
    >
      <div className="grid grid-cols-2 gap-2">
        <Fields fields={WRENCH} typed={typed} set={setTyped} />
        <Fields
          type="date"
          fields={[["calibratedUntil", "In calibration until"]]}
          typed={typed}
          set={setTyped}
        />
      </div>
      <button
        type="button"
        className="btn self-start"
        aria-pressed={Boolean(typed.beam)}
        onClick={() => setTyped({ ...typed, beam: typed.beam ? "" : "yes" })}
      >
        A bending beam
      </button>
      <FormEnd does="Add it" save={save} done={done} />
    </form>
  );
}
