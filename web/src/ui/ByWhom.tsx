import { useKeys } from "../app/hooks";
import { useOutbox } from "../app/kept";
import { takeHand } from "../app/outbox";

/**
 * A signature. Alone at the device it is one button; where two are signed in it asks which of them with the same one touch, and nobody
 * stands first.
 */
export function ByWhom({
  says,
  go,
  disabled,
  byKey = false,
  className = "btn-primary",
}: {
  says: string;
  go: () => void;
  disabled: boolean;
  /** True of the primary action: Space gives it, or 1 and 2 where two are here. */
  byKey?: boolean;
  className?: string;
}) {
  const { people } = useOutbox();
  const two = people.length > 1;
  const by = (id: string) => {
    if (disabled) return;
    takeHand(id);
    go();
  };
  useKeys(
    byKey
      ? two
        ? Object.fromEntries(people.map((p, i) => [`${i + 1}`, () => by(p.id)]))
        : { Space: go }
      : {},
  );
  if (!two)
    return (
      <button type="button" className={className} disabled={disabled} onClick={go}>
        <span>{says}</span>
        {byKey && <span className="keycap">Space</span>}
      </button>
    );
  return (
    <div role="group" aria-label={`${says}, by whom`} className="flex flex-col gap-1">
      <p className="m-0 text-center text-[17px] font-bold">{says}</p>
      <div className="grid grid-cols-2 gap-2">
        {people.map((p, i) => (
          <button
            key={p.id}
            type="button"
            className={`${className} !px-3 !text-[20px]`}
            disabled={disabled}
            onClick={() => by(p.id)}
            aria-label={`${says}: ${p.name}`}
          >
            <span>{p.name}</span>
            {byKey && <span className="keycap">{i + 1}</span>}
          </button>
        ))}
      </div>
    </div>
  );
}
