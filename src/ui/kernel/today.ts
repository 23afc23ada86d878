/** The day that times in words are counted from, as ISO 8601. */
export const today = (): string => new Date().toISOString().slice(0, 10);
