import type { Schemas } from "../../app/api";

export const WAY: Record<Schemas["PracticeWay"], string> = { guided: "Guided", alone: "Alone" };

/** How something is judged, as a word and how it stands out. */
export const MARK: Record<Schemas["DebriefMark"], { says: string; tone: string }> = {
  done: { says: "", tone: "" },
  right: { says: "Right", tone: "text-inside" },
  "right-by-luck": { says: "Right by luck", tone: "text-close" },
  "honest-error": { says: "Honest error", tone: "text-close" },
  wrong: { says: "Wrong", tone: "text-outside" },
  harm: { says: "Harm", tone: "text-outside" },
  refused: { says: "Would have done harm", tone: "text-outside" },
  missed: { says: "Missed", tone: "text-outside" },
  helped: { says: "Asked", tone: "text-ink-2" },
};

export const HARMED: Record<Schemas["HarmTo"], string> = {
  person: "Somebody is hurt",
  car: "The car is hurt",
  part: "A part is spoiled",
  time: "It costs time",
};
