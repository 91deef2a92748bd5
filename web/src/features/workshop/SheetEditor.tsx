import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { Link, useNavigate, useParams, useSearchParams } from "react-router";
import { api, ApiError, take, type Schemas } from "../../app/api";
import { useSession } from "../../app/hooks";
import { toNm, TORQUE_UNITS, type TorqueUnit } from "../../app/units";
import { ProblemNote } from "../../ui/Problem";
import { Shell } from "../../ui/Shell";
import { MeasuredHere } from "./MeasuredHere";

type Sheet = Schemas["SpecSheet"];
type Kind = "text" | "words" | "figure" | "yes" | readonly string[];
const ARCHITECTURES = [
  "",
  "cable-screw",
  "puller-screw",
  "lever-push",
  "motor-push",
  "motor-turn",
  "hat-shoes",
  "puller-hat",
  "motor-hat",
  "fixed-hat",
  "spot-caliper",
  "rear-hex",
  "plain",
  "electric-only",
] as const;
const TURNS = ["", "clockwise", "anticlockwise"] as const;
const KNOWN = ["not-known", "yes", "no"] as const;
const PAD_ENDS = ["", "leading", "trailing"] as const;
const SENSOR_SIDES = ["", "left", "right", "both"] as const;
const FLUIDS = ["", "dot3", "dot4", "class6", "dot51", "dot5", "mineral-oil"] as const;
const SPLITS = ["", "by-axle", "diagonal"] as const;
const ROLES = [
  "slide-pin",
  "bracket",
  "rotor-screw",
  "actuator-screw",
  "banjo",
  "bleed-screw",
  "wheel",
  "spot-caliper",
] as const;
const CLASSES = ["not-known", "c48", "c58", "c88", "c98", "c109", "c129"] as const;

/** Every field of a sheet: where it stands in the format, what it is called, what kind it is. */
const GROUPS: [string, [string, string, Kind][]][] = [
  [
    "The sheet",
    [
      ["code", "Code", "text"],
      ["title", "What it covers", "text"],
      ["source", "Where the figures come from", "text"],
      ["architecture", "Parking brake", ARCHITECTURES],
    ],
  ],
  [
    "Piston",
    [
      ["piston.diameterMm", "Bore, mm", "figure"],
      ["piston.pistonsPerCaliper", "Pistons a caliper", "figure"],
      ["piston.leadMm", "Travel a turn, mm", "figure"],
      ["piston.homeProtrusionMm", "Proud when home, mm", "figure"],
      ["piston.directionLeft", "Turns home, left", TURNS],
      ["piston.directionRight", "Turns home, right", TURNS],
      ["piston.slots", "Slots in the face", "figure"],
      ["piston.protrusionLimitMm", "Furthest proud, mm", "figure"],
      ["piston.turnsFreelyAtHome", "Turns freely at home", KNOWN],
      ["piston.resealAllowed", "Reseal allowed", KNOWN],
      ["piston.twoStage", "Two stages", "yes"],
      ["piston.otherWayAllowed", "Other direction may be tried", "yes"],
    ],
  ],
  [
    "Pads",
    [
      ["pads.newInnerTotalMm", "New inner, total, mm", "figure"],
      ["pads.newOuterTotalMm", "New outer, total, mm", "figure"],
      ["pads.backingMm", "Backing with shims, mm", "figure"],
      ["pads.minimumLiningMm", "Least lining, mm", "figure"],
    ],
  ],
  [
    "What the pad set carries",
    [
      ["padSet.indicator", "Wear indicator at the", PAD_ENDS],
      ["padSet.pin", "Inner pad has a pin", KNOWN],
      ["padSet.springClip", "Spring into the piston", KNOWN],
      ["padSet.notch", "Notch or arrow", KNOWN],
      ["padSet.sensorAt", "Wear sensor at", SENSOR_SIDES],
    ],
  ],
  [
    "Rotor",
    [
      ["rotor.newThicknessMm", "New, mm", "figure"],
      ["rotor.minimumThicknessMm", "Minimum, mm", "figure"],
      ["rotor.variationLimitMm", "Variation limit, mm", "figure"],
      ["rotor.runoutLimitMm", "Runout limit, mm", "figure"],
      ["rotor.jackingThread", "Jacking thread", "words"],
      ["rotor.hasScrews", "Held by screws", "yes"],
      ["rotor.comesOffWithBracketOn", "Off with bracket on", "yes"],
    ],
  ],
  [
    "Reservoir",
    [
      ["reservoir.bandMl", "MIN to MAX, mL", "figure"],
      ["reservoir.headspaceMl", "MAX to brim, mL", "figure"],
    ],
  ],
  [
    "Fluid and master cylinder",
    [
      ["hydraulics.fluid", "Fluid, by the cap", FLUIDS],
      ["hydraulics.masterDiameterMm", "Master cylinder bore, mm", "figure"],
      ["hydraulics.masterStrokeMm", "Its piston's stroke, mm", "figure"],
      ["hydraulics.split", "Circuits", SPLITS],
      ["hydraulics.bleedOrder", "Order of bleeding", "words"],
    ],
  ],
  [
    "Electric parking brake",
    [
      ["electric.spindleTool", "Spindle drive", "text"],
      ["electric.batteryFloorV", "Battery floor, V", "figure"],
      ["electric.serviceOnGround", "Service on its wheels", "yes"],
      ["electric.noManualRelease", "No manual release", "yes"],
    ],
  ],
  [
    "Drum in the hat",
    [
      ["drum.nominalMm", "New, mm", "figure"],
      ["drum.maximumMm", "Maximum, mm", "figure"],
      ["drum.outOfRoundLimitMm", "Out of round, mm", "figure"],
      ["drum.machineToMm", "Machine to, mm", "figure"],
      ["drum.minimumLiningMm", "Least shoe lining, mm", "figure"],
      ["drum.targetLowMm", "Clearance from, mm", "figure"],
      ["drum.targetHighMm", "Clearance to, mm", "figure"],
      ["drum.lockAndBackOff", "Clicks from lock", "figure"],
      ["drum.anchorDistanceMm", "Centre to anchor, mm", "figure"],
      ["drum.adjusterDistanceMm", "Centre to adjuster, mm", "figure"],
      ["drum.pitchMm", "Adjuster pitch, mm", "figure"],
      ["drum.teeth", "Star wheel teeth", "figure"],
      ["drum.holeAt", "Hole at, o'clock", "figure"],
      ["drum.leftRightPair", "Left and right thread", "yes"],
    ],
  ],
];
const FITTINGS = ["wear-sensor", "rattle-spring", "hose-bracket", "pin-caps", "hat-plug"] as const;
const WHOLE = new Set(["electric", "drum", "hydraulics", "padSet"]);

interface Line {
  role: string;
  perCorner: string;
  d: string;
  p: string;
  cls: string;
  drive: string;
  low: string;
  high: string;
  unit: TorqueUnit | "";
  singleUse: boolean;
  socketReaches: boolean;
  holdingSpanner: boolean;
  then: string;
  reuse: boolean;
  note: string;
  locker: string;
  partNumber: string;
  boltNotes: string;
}

const at = (sheet: unknown, path: string) =>
  path.split(".").reduce<unknown>((o, k) => (o as Record<string, unknown> | null | undefined)?.[k], sheet);
const typed = (v: unknown) =>
  v === null || v === undefined ? "" : typeof v === "boolean" ? (v ? "yes" : "no") : String(v);

/** What stands in the fields for a sheet. */
const fill = (sheet: Sheet | undefined) =>
  Object.fromEntries(GROUPS.flatMap(([, fields]) => fields.map(([path]) => [path, typed(at(sheet, path))])));
const fillLines = (sheet: Sheet | undefined): Line[] =>
  (sheet?.torques ?? []).map((t) => ({
    role: t.role,
    perCorner: String(t.perCorner),
    d: typed(t.threadDiameterMm),
    p: typed(t.threadPitchMm),
    cls: t.class,
    drive: t.drive,
    low: String(t.lowNm),
    high: typed(t.highNm),
    unit: "nm",
    singleUse: t.singleUse,
    socketReaches: t.socketReaches,
    holdingSpanner: t.holdingSpanner,
    then: typed(t.thenAngleDeg),
    reuse: t.reuseAllowed,
    note: t.note ?? "",
    locker: t.locker ?? "not-known",
    partNumber: t.partNumber ?? "",
    boltNotes: (t.boltNotes ?? []).join("; "),
  }));

const num = (text: string) => (text.trim() === "" ? null : Number(text.replace(",", ".")));

/** The sheet as it is typed; unknown fields of the original stay as they are. */
function build(base: Sheet | undefined, values: Record<string, string>, lines: Line[]): Sheet {
  const sheet = structuredClone(base ?? {}) as unknown as Record<string, Record<string, unknown> | unknown>;
  for (const [, fields] of GROUPS) {
    const group = fields[0]![0].includes(".") ? fields[0]![0].split(".")[0]! : "";
    if (WHOLE.has(group) && fields.every(([path]) => (values[path] ?? "") === "" || values[path] === "no")) {
      sheet[group] = null;
      continue;
    }
    for (const [path, , kind] of fields) {
      const text = values[path] ?? "";
      const value =
        kind === "figure"
          ? num(text)
          : kind === "yes"
            ? text === "yes"
            : text.trim() === "" && kind !== "text"
              ? // Where one answer stands for silence, silence is that answer.
                typeof kind !== "string" && kind[0] !== ""
                ? kind[0]!
                : null
              : text;
      if (group === "") sheet[path] = value;
      else sheet[group] = { ...(sheet[group] as object | null), [path.split(".")[1]!]: value };
    }
  }
  sheet.torques = lines.map((l) => ({
    role: l.role,
    perCorner: num(l.perCorner),
    threadDiameterMm: num(l.d),
    threadPitchMm: num(l.p),
    class: l.cls,
    drive: l.drive,
    lowNm: toNm(num(l.low), l.unit),
    highNm: l.high.trim() === "" ? null : toNm(num(l.high), l.unit),
    singleUse: l.singleUse,
    socketReaches: l.socketReaches,
    holdingSpanner: l.holdingSpanner,
    thenAngleDeg: num(l.then),
    reuseAllowed: l.reuse,
    note: l.note.trim() || null,
    locker: l.locker,
    partNumber: l.partNumber.trim() || null,
    boltNotes: l.boltNotes.trim() === "" ? null : l.boltNotes.split(";").map((n) => n.trim()),
    thread: "",
    wantedNm: 0,
  }));
  return sheet as unknown as Sheet;
}

const parts = (sheet: Sheet | undefined) =>
  (sheet?.electric?.inCar ?? []).map((s) => `${s.seconds} ${s.says}`).join("\n");
const part = (line: string) => {
  const [, seconds, says] = /^\s*(\d*)\s*(.*)$/.exec(line)!;
  return { seconds: Number(seconds || 0), says: says!.trim() };
};

/** Waits for the sheets, then opens the form on the one named, on a copy of it, or empty. */
export function SheetEditor() {
  const { code } = useParams();
  const [query] = useSearchParams();
  const sheets = useQuery({ queryKey: ["sheets"], queryFn: () => take(api.GET("/api/spec-sheets")) });
  if (!sheets.data)
    return <Shell title="Spec sheet">{sheets.error && <ProblemNote error={sheets.error} />}</Shell>;
  const from = sheets.data.find((s) => s.code === (code ?? query.get("copy")));
  return (
    <SheetForm
      key={code ?? `new ${query.get("copy")}`}
      base={code ? from : from && { ...from, code: "" }}
      isNew={!code}
    />
  );
}

function SheetForm({ base, isNew }: { base: Sheet | undefined; isNew: boolean }) {
  const session = useSession();
  const client = useQueryClient();
  const navigate = useNavigate();
  const isLead = session.data?.me?.isLead ?? false;
  const [values, setValues] = useState(() => fill(base));
  const [lines, setLines] = useState(() => fillLines(base));
  const [fittings, setFittings] = useState<Schemas["Fitting"][]>(() => base?.fittings ?? []);
  const [sequence, setSequence] = useState(() => parts(base));
  const [whole, setWhole] = useState(base);
  const sheet = build(whole, values, lines);
  sheet.fittings = fittings;
  if (sheet.electric)
    sheet.electric.inCar = sequence
      .split("\n")
      .filter((l) => l.trim() !== "")
      .map(part);
  const look = useMutation({ mutationFn: () => take(api.POST("/api/spec-sheets/look", { body: sheet })) });
  const save = useMutation({
    mutationFn: () => take(api.POST("/api/spec-sheets", { body: sheet })),
    onSuccess: (s) => {
      void client.invalidateQueries({ queryKey: ["sheets"] });
      void navigate(`/workshop/spec-sheets/${s.code}`);
    },
  });
  const read = useMutation({
    mutationFn: (text: string) => take(api.POST("/api/spec-sheets/csv/read", { body: { text } })),
    onSuccess: (r) => {
      if (!r.sheet) return;
      setWhole(r.sheet);
      setValues(fill(r.sheet));
      setLines(fillLines(r.sheet));
      setFittings(r.sheet.fittings ?? []);
      setSequence(parts(r.sheet));
    },
  });
  const error = save.error ?? look.error;
  const wrong = (path: string) => (error instanceof ApiError ? error.field(path) : undefined);
  const noUnit = lines.some((l) => l.unit === "");
  const set = (i: number, change: Partial<Line>) =>
    setLines(lines.map((l, j) => (j === i ? { ...l, ...change } : l)));
  return (
    <Shell
      title={isNew ? "New spec sheet" : `Spec sheet ${base?.code ?? ""}`}
      sub={isNew && base ? "a copy: give it its own code" : base?.title}
    >
      <div className="grid h-full grid-cols-[minmax(0,1fr)_380px] max-[900px]:block max-[900px]:overflow-auto">
        <section className="flex min-h-0 flex-col gap-4 overflow-auto p-6" aria-label="Figures">
          {GROUPS.map(([title, fields]) => (
            <fieldset key={title} className="m-0 border-0 border-t-2 border-ink p-0 pt-2" disabled={!isLead}>
              <legend className="sr-only">{title}</legend>
              <h2 className="mb-2 text-[22px]">{title}</h2>
              <div className="grid grid-cols-4 gap-2 max-[1100px]:grid-cols-3 max-[800px]:grid-cols-2">
                {fields.map(([path, name, kind]) => (
                  <div key={path} className={kind === "text" && path !== "code" ? "col-span-2" : ""}>
                    {kind === "yes" ? (
                      <button
                        type="button"
                        className="btn h-full w-full"
                        aria-pressed={values[path] === "yes"}
                        onClick={() =>
                          setValues({ ...values, [path]: values[path] === "yes" ? "no" : "yes" })
                        }
                      >
                        {name}
                      </button>
                    ) : (
                      <label className="field">
                        <span>{name}</span>
                        {typeof kind === "string" ? (
                          <input
                            value={values[path]}
                            inputMode={kind === "figure" ? "decimal" : "text"}
                            aria-invalid={!!wrong(path)}
                            disabled={path === "code" && !isNew}
                            onChange={(e) => setValues({ ...values, [path]: e.target.value })}
                          />
                        ) : (
                          <select
                            value={values[path]}
                            onChange={(e) => setValues({ ...values, [path]: e.target.value })}
                          >
                            {kind.map((k) => (
                              <option key={k} value={k}>
                                {k === "" ? "not given" : k.replaceAll("-", " ")}
                              </option>
                            ))}
                          </select>
                        )}
                      </label>
                    )}
                    {wrong(path) && <p className="wrong m-0 mt-1">{wrong(path)}</p>}
                  </div>
                ))}
              </div>
            </fieldset>
          ))}
          <fieldset className="m-0 border-0 border-t-2 border-ink p-0 pt-2" disabled={!isLead}>
            <legend className="sr-only">Small parts and sequence</legend>
            <h2 className="mb-2 text-[22px]">Small parts the vehicle has</h2>
            <div className="flex flex-wrap gap-2">
              {FITTINGS.map((f) => (
                <Toggle
                  key={f}
                  label={f.replaceAll("-", " ")}
                  on={fittings.includes(f)}
                  flip={() =>
                    setFittings(fittings.includes(f) ? fittings.filter((x) => x !== f) : [...fittings, f])
                  }
                />
              ))}
            </div>
            {sheet.electric && (
              <label className="field mt-2">
                <span>
                  Into service by the car itself: a part a line, its seconds first, such as 5 Hold the switch
                  down
                </span>
                <textarea
                  className="w-full"
                  rows={4}
                  value={sequence}
                  onChange={(e) => setSequence(e.target.value)}
                />
              </label>
            )}
          </fieldset>
          <fieldset className="m-0 border-0 border-t-2 border-ink p-0 pt-2" disabled={!isLead}>
            <legend className="sr-only">Fasteners</legend>
            <h2 className="mb-2 text-[22px]">Fasteners</h2>
            {lines.map((l, i) => (
              <div
                key={i}
                className="grid grid-cols-6 gap-2 border-t border-rule py-2 max-[1100px]:grid-cols-4"
                role="group"
                aria-label={`Fastener ${i + 1}`}
              >
                <Pick label="Fastener" value={l.role} options={ROLES} onChange={(role) => set(i, { role })} />
                <Small label="A corner" value={l.perCorner} onChange={(perCorner) => set(i, { perCorner })} />
                <Small label="Torque, or from" value={l.low} onChange={(low) => set(i, { low })} />
                <Small label="To" value={l.high} onChange={(high) => set(i, { high })} />
                <Pick
                  label="Unit"
                  value={l.unit}
                  options={["", ...TORQUE_UNITS]}
                  onChange={(unit) => set(i, { unit: unit as TorqueUnit })}
                />
                <Small label="Drive" value={l.drive} onChange={(drive) => set(i, { drive })} />
                <Small label="Thread, mm" value={l.d} onChange={(d) => set(i, { d })} />
                <Small label="Pitch, mm" value={l.p} onChange={(p) => set(i, { p })} />
                <Pick label="Class" value={l.cls} options={CLASSES} onChange={(cls) => set(i, { cls })} />
                <Toggle
                  label="New each time"
                  on={l.singleUse}
                  flip={() => set(i, { singleUse: !l.singleUse })}
                />
                <Toggle
                  label="Crowfoot only"
                  on={!l.socketReaches}
                  flip={() => set(i, { socketReaches: !l.socketReaches })}
                />
                <Toggle
                  label="Pin is held"
                  on={l.holdingSpanner}
                  flip={() => set(i, { holdingSpanner: !l.holdingSpanner })}
                />
                <Pick
                  label="Thread locker"
                  value={l.locker}
                  options={KNOWN}
                  onChange={(locker) => set(i, { locker })}
                />
                <Small
                  label="Part number"
                  value={l.partNumber}
                  onChange={(partNumber) => set(i, { partNumber })}
                />
                <Small label="Note" value={l.note} onChange={(note) => set(i, { note })} />
                <Small
                  label="Each bolt, by ;"
                  value={l.boltNotes}
                  onChange={(boltNotes) => set(i, { boltNotes })}
                />
                <Small label="Then, degrees" value={l.then} onChange={(then) => set(i, { then })} />
                {l.then.trim() !== "" && (
                  <Toggle label="May be reused" on={l.reuse} flip={() => set(i, { reuse: !l.reuse })} />
                )}
                <button
                  type="button"
                  className="btn"
                  onClick={() => setLines(lines.filter((_, j) => j !== i))}
                >
                  Take out
                </button>
              </div>
            ))}
            <button
              type="button"
              className="btn"
              onClick={() =>
                setLines([
                  ...lines,
                  {
                    role: "slide-pin",
                    perCorner: "2",
                    d: "",
                    p: "",
                    cls: "not-known",
                    drive: "",
                    low: "",
                    high: "",
                    unit: "",
                    singleUse: false,
                    socketReaches: true,
                    holdingSpanner: false,
                    then: "",
                    reuse: false,
                    note: "",
                    locker: "not-known",
                    partNumber: "",
                    boltNotes: "",
                  },
                ])
              }
            >
              Add a fastener
            </button>
          </fieldset>
        </section>
        <section
          className="flex min-h-0 flex-col gap-3 overflow-auto border-l-2 border-ink bg-plate p-5"
          aria-label="Questions"
        >
          {base && !isNew && (
            <MeasuredHere
              code={base.code}
              values={values}
              put={isLead ? (field, value) => setValues({ ...values, [field]: value }) : undefined}
            />
          )}
          <h2 className="text-[24px]">Before it is kept</h2>
          <div className="flex flex-wrap gap-2">
            {!isNew && base && (
              <>
                <Link className="btn" to={`/workshop/spec-sheets/new?copy=${encodeURIComponent(base.code)}`}>
                  Copy
                </Link>
                <a className="btn" href={`/api/spec-sheets/${encodeURIComponent(base.code)}/json`} download>
                  JSON
                </a>
                <a className="btn" href={`/api/spec-sheets/${encodeURIComponent(base.code)}/csv`} download>
                  CSV
                </a>
              </>
            )}
            <label className="btn cursor-pointer focus-within:outline-3 focus-within:outline-measure">
              Read a CSV
              <input
                type="file"
                accept=".csv,text/csv"
                className="sr-only"
                onChange={(e) => {
                  void e.target.files?.[0]?.text().then((t) => read.mutate(t));
                  e.target.value = "";
                }}
              />
            </label>
          </div>
          <ProblemNote error={read.error} />
          {read.data && (
            <div className="text-[15px]" role="status">
              <p className="m-0 font-bold">
                {read.data.lines.filter((l) => l.taken).length} lines understood,{" "}
                {read.data.lines.filter((l) => !l.taken).length} not.
                {read.data.sheet ? " Read into the form." : " Not whole yet: the form stays as it was."}
              </p>
              {read.data.lines
                .filter((l) => !l.taken)
                .map((l) => (
                  <p key={l.line} className="m-0">
                    Line {l.line}: {l.says}
                  </p>
                ))}
              {read.data.errors.map((e) => (
                <p key={e.field + e.message} className="wrong m-0">
                  {e.message}
                </p>
              ))}
            </div>
          )}
          {look.data && (
            <div className="flex flex-col gap-1">
              {look.data.length === 0 && (
                <p className="m-0 text-[17px]">Nothing odd, and nothing left open.</p>
              )}
              {look.data.map((q) => (
                <p
                  key={q.field + q.says}
                  className={`m-0 border-l-4 pl-2 text-[15px] ${q.isDefault ? "border-rule" : "border-undecided font-bold"}`}
                >
                  <span className="text-ink-2">{q.field}</span> {q.says}
                </p>
              ))}
            </div>
          )}
          <ProblemNote error={error} />
          {noUnit && <p className="m-0 text-[15px]">Choose each torque's unit: it is never assumed.</p>}
          {isLead ? (
            <div className="mt-auto flex flex-col gap-2">
              <button
                type="button"
                className="btn"
                disabled={noUnit || look.isPending}
                onClick={() => look.mutate()}
              >
                Look for slips
              </button>
              <button
                type="button"
                className="btn-primary"
                disabled={noUnit || save.isPending}
                onClick={() => save.mutate()}
              >
                Keep the sheet
              </button>
            </div>
          ) : (
            <p className="m-0">The lead keeps the spec sheets.</p>
          )}
        </section>
      </div>
    </Shell>
  );
}

function Small({ label, value, onChange }: { label: string; value: string; onChange: (v: string) => void }) {
  return (
    <label className="field">
      <span>{label}</span>
      <input value={value} onChange={(e) => onChange(e.target.value)} />
    </label>
  );
}

function Toggle({ label, on, flip }: { label: string; on: boolean; flip: () => void }) {
  return (
    <button type="button" className="btn" aria-pressed={on} onClick={flip}>
      {label}
    </button>
  );
}

function Pick({
  label,
  value,
  options,
  onChange,
}: {
  label: string;
  value: string;
  options: readonly string[];
  onChange: (v: string) => void;
}) {
  return (
    <label className="field">
      <span>{label}</span>
      <select value={value} onChange={(e) => onChange(e.target.value)}>
        {options.map((o) => (
          <option key={o} value={o}>
            {o === "" ? "choose" : o.replaceAll("-", " ")}
          </option>
        ))}
      </select>
    </label>
  );
}
