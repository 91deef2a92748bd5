/** Bolts round a circle, each with its turn in the order of tightening. */
export function StarPattern({ order, size = 120, next }: { order: number[]; size?: number; next?: number }) {
  const n = order.length;
  const place = (bolt: number) => {
    const a = ((bolt - 1) / n) * 2 * Math.PI - Math.PI / 2;
    return [60 + 40 * Math.cos(a), 60 + 40 * Math.sin(a)] as const;
  };
  return (
    <svg
      width={size}
      height={size}
      viewBox="0 0 120 120"
      role="img"
      aria-label={`Tighten in the order ${order.join(", ")}`}
    >
      <circle cx="60" cy="60" r="54" fill="none" stroke="var(--ink)" strokeWidth="1.5" />
      <circle cx="60" cy="60" r="10" fill="none" stroke="var(--ink-2)" />
      <polyline
        points={order.map((b) => place(b).join(",")).join(" ")}
        fill="none"
        stroke="var(--rule)"
        strokeWidth="3"
      />
      {order.map((bolt, turn) => {
        const [x, y] = place(bolt);
        return (
          <g key={bolt}>
            <circle
              cx={x}
              cy={y}
              r="11"
              fill={turn + 1 === next ? "var(--pawl)" : "var(--plate)"}
              stroke="var(--ink)"
              strokeWidth="1.5"
            />
            <text
              x={x}
              y={y + 5}
              textAnchor="middle"
              fontSize="14"
              fill={turn + 1 === next ? "var(--pawl-text)" : "var(--ink)"}
            >
              {turn + 1}
            </text>
          </g>
        );
      })}
    </svg>
  );
}
