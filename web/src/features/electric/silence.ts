/** The car's state comes four times a second at rest, and more often while a motor runs. What stays away longer than this has been lost. */
const MOVING_MS = 1000;
const RESTING_MS = 5000;

/** True where nothing was heard for so long that nobody knows any more: a line that swallows bytes is as bad as one that is cut. */
export const isSilent = (heardAt: number, now: number, mayRun: boolean) =>
  now - heardAt > (mayRun ? MOVING_MS : RESTING_MS);
