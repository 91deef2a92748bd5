import { useEffect, useState } from "react";
import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { api, take, type Schemas } from "../../app/api";
import { useKeys } from "../../app/hooks";
import { ProblemNote } from "../../ui/Problem";
import { Choice } from "../measuring/fields";

type Known = Schemas["Known"];

/** The pedal held hard against the clock, then the looking. */
export function LeakTimer({
  keys,
  banjoUndone = false,
  note,
  error,
}: {
  keys: boolean;
  banjoUndone?: boolean;
  /** Stores it in the job; absent on the quick bench. */
  note?: (seen: Schemas["LeakInput"]) => void;
  error?: unknown;
}) {
  const [since, setSince] = useState<number | null>(null);
  const [held, setHeld] = useState(0);
  const [seen, setSeen] = useState<{ sank: boolean; screwDry: Known; banjoDry: Known; pipes: Known }>({
    sank: false,
    screwDry: "not-known",
    banjoDry: "not-known",
    pipes: "not-known",
  });
  useEffect(() => {
    if (since === null) return;
    const tick = setInterval(() => setHeld(Math.trunc((Date.now() - since) / 1000)), 200);
    return () => clearInterval(tick);
  }, [since]);
  const body = { heldSeconds: held, ...seen, banjoUndone };
  const asked = useQuery({
    queryKey: ["bench", "leaks", body],
    queryFn: () => take(api.POST("/api/bench/leaks", { body })),
    placeholderData: keepPreviousData,
    retry: false,
    staleTime: Infinity,
  });
  // Long enough is long enough: the clock stops there by itself.
  const enough = asked.data?.secondsLeft === 0;
  useEffect(() => {
    if (enough) setSince(null);
  }, [enough]);
  const press = () => {
    if (since !== null) setSince(null);
    else {
      setHeld(0);
      setSince(Date.now());
    }
  };
  useKeys(keys ? { Space: press } : {});
  const a = asked.data;
  const known: [Known, string][] = [
    ["yes", "yes"],
    ["no", "no"],
    ["not-known", "not yet"],
  ];
  return (
    <>
      <div className="window flex items-end gap-6">
        <div>
          <div className="text-[17px]">Hold it hard, seconds to go</div>
          <div className="huge">{a?.secondsLeft ?? "?"}</div>
        </div>
        <div className="pb-2 text-[16px]">{enough ? "Held" : since === null ? "Stopped" : "Running"}</div>
      </div>
      {a && <p className={`m-0 text-[20px] font-bold ${a.passed ? "text-inside" : ""}`}>{a.says}</p>}
      <div className="grid grid-cols-2 gap-2">
        <Choice
          label="Pipes and hoses looked at, sound"
          value={seen.pipes}
          options={known}
          onChange={(pipes) => setSeen({ ...seen, pipes })}
        />
        <Choice
          label="The pedal sank"
          value={seen.sank ? "yes" : "no"}
          options={[
            ["no", "no"],
            ["yes", "yes"],
          ]}
          onChange={(t) => setSeen({ ...seen, sank: t === "yes" })}
        />
        <Choice
          label="Bleed screw dry"
          value={seen.screwDry}
          options={known}
          onChange={(screwDry) => setSeen({ ...seen, screwDry })}
        />
        <Choice
          label="Banjo dry"
          value={seen.banjoDry}
          options={known}
          onChange={(banjoDry) => setSeen({ ...seen, banjoDry })}
        />
      </div>
      <ProblemNote error={error ?? asked.error} />
      {note && a && (a.passed || seen.sank) && (
        <button
          type="button"
          className={`mt-auto ${a.passed ? "btn-primary" : "btn"}`}
          onClick={() => note(body)}
        >
          Note it in the job
        </button>
      )}
      <button
        type="button"
        className={note && a?.passed ? "btn" : note && seen.sank ? "btn-primary" : "btn-primary mt-auto"}
        onClick={press}
      >
        {since === null ? "Pedal down: start the clock" : "Pedal up: stop the clock"}{" "}
        <span className="keycap">Space</span>
      </button>
    </>
  );
}
