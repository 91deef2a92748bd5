/** How far a bolt is turned once its torque is reached: a mark at the top, and where it ends. */
export function AngleDial({ degrees, size = 120 }: { degrees: number; size?: number }) {
  const end = ((degrees - 90) * Math.PI) / 180;
  const [x, y] = [60 + 44 * Math.cos(end), 60 + 44 * Math.sin(end)];
  return (
    <svg
      width={size}
      height={size}
      viewBox="0 0 120 120"
      role="img"
      aria-label={`Then ${degrees} degrees further`}
    >
      <circle cx="60" cy="60" r="54" fill="none" stroke="var(--ink)" strokeWidth="1.5" />
      {Array.from({ length: 12 }, (_, i) => (
        <line
          key={i}
          x1="60"
          y1="8"
          x2="60"
          y2={i % 3 === 0 ? 16 : 12}
          stroke="var(--ink-2)"
          transform={`rotate(${30 * i} 60 60)`}
        />
      ))}
      <path
        d={`M60 60 L60 16 A44 44 0 ${Math.trunc(degrees / 180)} 1 ${x} ${y} Z`}
        fill="var(--pawl)"
        fillOpacity="0.35"
        stroke="var(--pawl)"
      />
      <line x1="60" y1="60" x2="60" y2="16" stroke="var(--ink)" strokeWidth="2" />
      <line x1="60" y1="60" x2={x} y2={y} stroke="var(--ink)" strokeWidth="3" />
      <text x="60" y="84" textAnchor="middle" fontSize="20" fontWeight="700" fill="var(--ink)">
        {degrees}°
      </text>
    </svg>
  );
}
