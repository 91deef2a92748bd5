/**
 * A closed shape through points at angles, as a polygon takes it: between them the radius runs evenly, so that a round drum looks round. No
 * points, as while readings are on their way, make no shape.
 */
export function round(
  points: { deg: number; r: number }[],
  place: (r: number, deg: number) => readonly [number, number],
) {
  return points
    .flatMap((p, i) => {
      const after = points[(i + 1) % points.length]!;
      const next = i + 1 < points.length ? after : { deg: after.deg + 360, r: after.r };
      const steps = Math.ceil((next.deg - p.deg) / 5) || 1;
      return Array.from({ length: steps }, (_, k) =>
        place(p.r + ((next.r - p.r) * k) / steps, p.deg + ((next.deg - p.deg) * k) / steps).join(","),
      );
    })
    .join(" ");
}
