import { type Schemas } from "../../app/api";
import { figure } from "../jobs/words";

/** What may go in, and how wet it is. */
export function FluidSays({ answer }: { answer: Schemas["FluidAnswer"] }) {
  const never = answer.mix === "never" || answer.mix === "lowers-the-grade";
  return (
    <>
      <div className="window flex items-end gap-6">
        <div>
          <div className="text-[17px]">{answer.mix ? "That bottle" : "Boils at, at least, wet, °C"}</div>
          <div className="huge huge-5">
            {answer.mix
              ? never
                ? "never"
                : "yes"
              : answer.wetCelsius === null
                ? "maker"
                : figure(answer.wetCelsius, 0)}
          </div>
        </div>
        <div className="pb-2 text-[16px]">
          {answer.dryCelsius !== null && <div>{figure(answer.dryCelsius, 0)} °C fresh</div>}
          {answer.wetCelsius !== null && <div>{figure(answer.wetCelsius, 0)} °C wet</div>}
          {answer.marginCelsius !== null && <div>{figure(answer.marginCelsius, 0)} degrees to boiling</div>}
        </div>
      </div>
      {answer.says.map((s) => (
        <p
          key={s}
          className={`m-0 text-[19px] ${never && s === answer.says[0] ? "font-bold text-outside" : ""}`}
        >
          {s}
        </p>
      ))}
    </>
  );
}
