/** The wrench with its lengths; the crowfoot lengthens it and lowers the setting. Drawn to the lengths given. */
export function WrenchDrawing({
  gripMm,
  extensionMm,
  angleDeg = 0,
}: {
  gripMm: number;
  extensionMm: number | null;
  angleDeg?: number;
}) {
  const total = gripMm + (extensionMm ?? 0);
  const px = 318 / total;
  const drive = 30 + gripMm * px;
  const bolt = extensionMm === null ? drive : drive + Math.max(extensionMm * px, 34);
  const says =
    extensionMm === null
      ? `Wrench, grip to drive ${gripMm} mm.`
      : `Wrench, grip to drive ${gripMm} mm, crowfoot ${extensionMm} mm at ${angleDeg} degrees.`;
  const ink = { stroke: "var(--ink)", strokeWidth: 1.6 };
  return (
    <svg width="100%" viewBox="0 0 412 104" role="img" aria-label={says}>
      <g fill="none" stroke="var(--measure)" strokeWidth="1.2">
        <path d={`M62 22 V50 M${drive} 22 V44 M62 26 H${drive}`} />
        {extensionMm !== null && <path d={`M${bolt} 22 V44 M${drive} 26 H${bolt}`} />}
      </g>
      <text x={(62 + drive) / 2} y="17" textAnchor="middle" fontSize="15" fill="var(--measure)">
        grip to drive {gripMm} mm
      </text>
      {extensionMm !== null && (
        <text x={Math.min(bolt + 60, 408)} y="17" textAnchor="end" fontSize="15" fill="var(--measure)">
          crowfoot {extensionMm} mm
        </text>
      )}
      <rect x="14" y="54" width="92" height="22" rx="7" fill="var(--iron)" {...ink} />
      <path d="M28 58 l6 14 M42 58 l6 14 M56 58 l6 14 M70 58 l6 14 M84 58 l6 14" {...ink} />
      <rect x="106" y="59" width={Math.max(drive - 106 - 14, 10)} height="12" fill="var(--plate)" {...ink} />
      <circle cx={drive} cy="65" r="19" fill="var(--iron)" {...ink} />
      <rect x={drive - 8} y="57" width="16" height="16" fill="var(--plate)" {...ink} />
      {extensionMm !== null && (
        <g transform={`rotate(${-angleDeg} ${drive} 65)`}>
          <path
            d={`M${drive + 14} 50 H${bolt - 10} L${bolt + 14} 46 V57 L${bolt + 2} 57 V73 L${bolt + 14} 73 V84 L${bolt - 10} 80 H${drive + 14} Z`}
            fill="var(--iron)"
            {...ink}
          />
          <path d={`M${bolt - 10} 65 l5 -9 h10 l5 9 l-5 9 h-10 Z`} fill="var(--pawl)" {...ink} />
        </g>
      )}
      <text x="60" y="97" textAnchor="middle" fontSize="14" fill="var(--ink-2)">
        hand here
      </text>
      {extensionMm !== null && (
        <text x={Math.min(drive + 10, 340)} y="101" textAnchor="middle" fontSize="14" fill="var(--ink-2)">
          crowfoot {angleDeg === 0 ? "in line" : `at ${angleDeg}°`}
        </text>
      )}
    </svg>
  );
}
