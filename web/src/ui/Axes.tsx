/** The two axes of a plot, one stroke. */
export const Axes = (p: { left: number; top: number; right: number; floor: number }) => (
  <path d={`M${p.left} ${p.top} V${p.floor} H${p.right}`} stroke="var(--ink)" strokeWidth="1.5" fill="none" />
);
