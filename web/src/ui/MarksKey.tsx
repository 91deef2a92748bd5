import { BoltHead, Pawl, VerdictMark } from "./marks";

const PAWLS: [string, string][] = [
  ["var(--pawl)", "Amber pawl: someone is working there now"],
  ["var(--ink)", "Dark pawl: it rests there"],
  ["var(--undecided)", "Brown pawl over a hatched tooth: a verdict too close to call"],
  ["var(--outside)", "Red pawl over a flat block: stopped, a piston does not move"],
];

/** What the product's own marks mean, once, in the help of every view. */
export function MarksKey() {
  const row = "flex items-center gap-4 py-1";
  return (
    <section className="text-[15px]" aria-label="Marks">
      {PAWLS.map(([fill, says]) => (
        <div key={says} className={row}>
          <svg width="44" height="30" viewBox="-2 -2 46 32" aria-hidden="true" className="flex-shrink-0">
            <Pawl fill={fill} />
          </svg>
          {says}
        </div>
      ))}
      {[true, false].map((met) => (
        <div key={String(met)} className={row}>
          <span className="inline-flex w-11 flex-shrink-0 justify-center text-ink">
            <BoltHead met={met} />
          </span>
          {met
            ? "Stripe straight across bolt and bar: this side has met the hold"
            : "Bolt turned, stripe broken: this side has not met it yet"}
        </div>
      ))}
      {(["inside", "not-yet-enough", "too-close-to-call", "outside"] as const).map((v) => (
        <div key={v} className="grid grid-cols-[190px_1fr] items-center py-1">
          <VerdictMark verdict={v} />
          {
            {
              inside: "the pawl is seated",
              "not-yet-enough": "the pawl is not down yet: places are still to be read or looked at",
              "too-close-to-call": "the pawl is on the tooth's tip: not passed",
              outside: "the pawl is past the tooth",
            }[v]
          }
        </div>
      ))}
    </section>
  );
}
