import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { Link } from "react-router";
import { occurredAt, type Schemas } from "../../app/api";
import { useKeys } from "../../app/hooks";
import { ProblemNote } from "../../ui/Problem";
import { Shell } from "../../ui/Shell";
import { CardsWaiting, deal, keepAnswer } from "./deck";

const KEYS = ["1", "2", "3", "4", "5", "6"];

/** One decision after another, each judged before it was dealt: no network is asked in between. */
export function CardsPage() {
  const client = useQueryClient();
  // Dealt once: what was answered stays answered until the next deal.
  const deck = useQuery({
    queryKey: ["cards"],
    queryFn: deal,
    staleTime: Infinity,
    gcTime: 0,
    retry: false,
    networkMode: "always",
  });
  const [at, setAt] = useState(0);
  const [chosen, setChosen] = useState<number | null>(null);
  const [right, setRight] = useState(0);
  const card = deck.data?.[at];
  const choose = (index: number) => {
    const choice = card?.choices[index];
    if (!card || !choice || chosen !== null) return;
    setChosen(index);
    if (choice.isRight) setRight((n) => n + 1);
    keepAnswer({ cardId: card.id, isRight: choice.isRight, at: occurredAt() });
  };
  const next = () => {
    if (chosen === null) return;
    setChosen(null);
    setAt((n) => n + 1);
  };
  const again = () => {
    setAt(0);
    setRight(0);
    setChosen(null);
    void client.resetQueries({ queryKey: ["cards"] });
    void client.invalidateQueries({ queryKey: ["practice"] });
  };
  useKeys({
    ...Object.fromEntries(KEYS.map((key, i) => [key, () => choose(i)])),
    Space: next,
    enter: next,
  });
  return (
    <Shell
      title="Cards"
      sub={deck.data && card ? `${at + 1} of ${deck.data.length}` : undefined}
      keys={{ "1 to 6": "Choose", Space: "Next card" }}
      info={
        <Link to="/practice" className="flex min-h-11 items-center">
          Practice
        </Link>
      }
    >
      <div className="mx-auto flex h-full max-w-[860px] flex-col gap-4 overflow-auto p-6 max-[800px]:p-4">
        <ProblemNote error={deck.error} />
        {card && <Card key={card.id} card={card} chosen={chosen} choose={choose} next={next} />}
        {deck.data && !card && (
          <>
            <h2 className="text-[48px]">
              {deck.data.length === 0 ? "Nothing is due" : `${right} of ${deck.data.length} right`}
            </h2>
            <p className="m-0 text-[20px]">
              What was wrong comes back tomorrow; what was right waits twice as long as before.
            </p>
            <CardsWaiting />
            <button type="button" className="btn-primary" onClick={again}>
              Deal again
            </button>
          </>
        )}
      </div>
    </Shell>
  );
}

function Card({
  card,
  chosen,
  choose,
  next,
}: {
  card: Schemas["PracticeCard"];
  chosen: number | null;
  choose: (index: number) => void;
  next: () => void;
}) {
  const picked = chosen === null ? undefined : card.choices[chosen];
  return (
    <>
      <div>
        <h2 className="text-[31px]">{card.asks}</h2>
        {card.facts.map((f) => (
          <p key={f} className="m-0 text-[22px]">
            {f}
          </p>
        ))}
      </div>
      <div className="flex flex-col gap-2" role="group" aria-label={card.asks}>
        {card.choices.map((c, i) => (
          <button
            key={c.says}
            type="button"
            className="btn min-h-14 justify-start gap-3 text-left !text-[20px] whitespace-normal"
            disabled={chosen !== null && chosen !== i && !c.isRight}
            aria-pressed={chosen !== null && c.isRight}
            onClick={() => choose(i)}
          >
            <span className="keycap">{i + 1}</span>
            <span className="flex-1">{c.says}</span>
            {chosen !== null && c.isRight && <b>right</b>}
            {chosen === i && !c.isRight && <b>your choice</b>}
          </button>
        ))}
      </div>
      {picked && (
        <div role="status" className="flex flex-col gap-3">
          <p className={`title m-0 text-[48px] ${picked.isRight ? "text-inside" : "text-outside"}`}>
            {picked.isRight ? "Right" : "Not so"}
          </p>
          <p className="m-0 text-[20px]">{picked.why}</p>
          <button type="button" className="btn-primary" onClick={next}>
            Next card
          </button>
        </div>
      )}
    </>
  );
}
