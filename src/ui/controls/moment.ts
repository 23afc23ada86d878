/** A moment as people write it: "25 Nov 2026, 14:40". */
export const momentWords = (at: string): string =>
  new Date(at).toLocaleString("en-GB", { dateStyle: "medium", timeStyle: "short" });
