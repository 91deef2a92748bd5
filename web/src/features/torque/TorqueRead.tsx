import type { Schemas } from "../../app/api";
import { useTorqueRead } from "../../app/units";
import { figure } from "../jobs/words";

/** A torque in both units, the one first that whoever works here reads in. */
export function useBothUnits() {
  const [unit] = useTorqueRead();
  return (nm: number, lbfFt: number) => {
    const both = [
      { figure: figure(nm, 1), unit: "N m" },
      { figure: figure(lbfFt, 1), unit: "lbf ft" },
    ] as const;
    return unit === "nm" ? both : ([both[1], both[0]] as const);
  };
}

/** The setting to act on, as large as the bench allows, in both units. */
export function TorqueWindow({ set, name }: { set: Schemas["TorqueSet"]; name: string }) {
  const both = useBothUnits();
  const [first, second] = both(set.onTheScaleNm, set.settingLbfFt);
  const big = first.figure;
  if (set.refusal)
    return (
      <div className="window" role="status">
        <div className="text-[17px]">No setting</div>
        <p className="m-0 mt-1 text-[26px] leading-snug max-[1100px]:text-[22px]">{set.refusal}</p>
      </div>
    );
  return (
    <div className="window flex items-end gap-5 max-[1100px]:gap-3">
      <div>
        <div className="text-[17px]">{name}</div>
        <div className={`huge ${big.length > 4 ? "huge-5" : ""}`}>{big}</div>
      </div>
      <div className="pb-2">
        <div className="text-[32px] leading-none whitespace-nowrap max-[800px]:text-[22px]">{first.unit}</div>
        <div className="mt-2 text-[20px] whitespace-nowrap max-[1100px]:text-[17px] max-[800px]:text-[15px]">
          {second.figure} {second.unit}
        </div>
      </div>
    </div>
  );
}

/** Questions the core asks of a figure. */
export function Questions({ set }: { set: Schemas["TorqueSet"] }) {
  return set.questions.map((q) => (
    <p key={q.says} className="m-0 border-l-8 border-undecided bg-ground px-3 py-2 text-[16px]" role="status">
      {q.says}
    </p>
  ));
}
