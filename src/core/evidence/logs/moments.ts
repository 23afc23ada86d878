/** How times of a table are written: told from all of them together, since 03/04 alone could be either. */
export type MomentForm = "iso" | "dayFirst" | "monthFirst";

const isoForm =
  /^(\d{4})-(\d{1,2})-(\d{1,2})(?:[T ]+(\d{1,2}):(\d{2})(?::(\d{2})(?:[.,](\d+))?)?)?\s*(Z|[+-]\d{2}:?\d{2})?$/i;
const dayForm = /^(\d{1,2})[./-](\d{1,2})[./-](\d{4})(?:[T ,]+(\d{1,2}):(\d{2})(?::(\d{2})(?:[.,](\d+))?)?)?$/;

/** The form that a column of times is written in; undefined where some of the first are no times. */
export function formOfMoments(cells: readonly string[]): MomentForm | undefined {
  const looked = cells.filter((cell) => cell.trim() !== "");
  if (looked.length === 0) return undefined;
  if (looked.every((cell) => isoForm.test(cell.trim()))) return "iso";
  const parts = looked.map((cell) => dayForm.exec(cell.trim()));
  if (parts.some((one) => one === null)) return undefined;
  // What is above 12 is a day; where nothing is, days come first, as they do in most of the world.
  const isDay = (at: number) => parts.some((one) => Number(one?.[at]) > 12);
  return isDay(2) && !isDay(1) ? "monthFirst" : "dayFirst";
}

/** Milliseconds since 1970; without a zone of its own on the clock of UTC. Undefined for what is no time of that form. */
export function momentFrom(cell: string, form: MomentForm): number | undefined {
  const text = cell.trim();
  const found = form === "iso" ? isoForm.exec(text) : dayForm.exec(text);
  if (!found) return undefined;
  const number = (at: number) => Number(found[at] ?? 0);
  const [year, month, day] =
    form === "iso"
      ? [number(1), number(2), number(3)]
      : form === "dayFirst"
        ? [number(3), number(2), number(1)]
        : [number(3), number(1), number(2)];
  const part = Number(`0.${found[7] ?? 0}`) * 1000;
  const [hour, minute, second] = [number(4), number(5), number(6)];
  const at = Date.UTC(year, month - 1, day, hour, minute, second) + Math.round(part);
  const back = new Date(Date.UTC(year, month - 1, day));
  if (back.getUTCMonth() !== month - 1 || back.getUTCDate() !== day) return undefined;
  if (hour > 24 || minute > 59 || second > 60) return undefined;
  const zone = form === "iso" ? /([+-])(\d{2}):?(\d{2})$/.exec(found[8] ?? "") : null;
  if (!zone) return at;
  const away = (Number(zone[2]) * 60 + Number(zone[3])) * 60_000;
  return zone[1] === "+" ? at - away : at + away;
}
