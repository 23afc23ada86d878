/** So many wrong passwords in a row are free; each further one doubles the wait. */
const freeTries = 3;

/** Seconds to wait after so many wrong ones. */
export const waitAfter = (failures: number, longest: number): number =>
  failures <= freeTries ? 0 : Math.min(longest, 2 ** (failures - freeTries));

/** Seconds until a moment; 0 where it is past, or there is none. */
export const secondsLeft = (until: string | null): number =>
  until === null ? 0 : Math.max(0, Math.ceil((Date.parse(until) - Date.now()) / 1_000));
