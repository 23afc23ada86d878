/** The day that times in words are counted from, as ISO 8601. */
export const today = (): string => new Date().toISOString().slice(0, 10);

/** How many days from today a day is (ISO 8601); before it below zero. */
export const daysFromToday = (day: string): number =>
  Math.round((Date.parse(`${day}T00:00:00Z`) - Date.parse(`${today()}T00:00:00Z`)) / 86_400_000);
