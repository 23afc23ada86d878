/** How a developers' file stands to the model it is tied to: what asks for somebody first, first. */
export const buildStates = [
  "cannot be read",
  "gone",
  "both changed",
  "build copy changed",
  "model changed",
  "not sent yet",
  "in step",
] as const;
export type BuildState = (typeof buildStates)[number];

/** Of several states the one that asks for somebody first; undefined of none. */
export const firstState = (states: readonly BuildState[]): BuildState | undefined =>
  buildStates.find((state) => states.includes(state));
