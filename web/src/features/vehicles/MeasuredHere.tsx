import { useQuery } from "@tanstack/react-query";
import { api, take } from "../../app/api";

/** What was measured on cars of this sheet: each figure with its day, to be taken over by the lead. */
export function MeasuredHere({
  code,
  values,
  put,
}: {
  code: string;
  values: Record<string, string>;
  put?: ((field: string, value: string) => void) | undefined;
}) {
  const measured = useQuery({
    queryKey: ["measured", code],
    queryFn: () => take(api.GET("/api/spec-sheets/{code}/measured", { params: { path: { code } } })),
  });
  if (!measured.data?.length) return null;
  return (
    <section aria-label="Measured on these cars">
      <h3 className="mb-1 text-[20px]">Measured on these cars</h3>
      {measured.data.map(({ plate, card, figure }) => (
        <div
          key={`${plate} ${figure.field} ${figure.side}`}
          className="flex items-center gap-2 border-t border-rule py-1 text-[16px]"
        >
          <span className="min-w-0 flex-1">
            {card.name}
            {figure.side && `, ${figure.side}`}: <b>{figure.value}</b> {card.unit}, on {plate}, {figure.on}
          </span>
          {put && values[figure.field] !== String(figure.value) && (
            <button
              type="button"
              className="btn !min-h-12"
              onClick={() => put(figure.field, String(figure.value))}
            >
              Take it
            </button>
          )}
        </div>
      ))}
    </section>
  );
}
