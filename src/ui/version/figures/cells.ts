import { text } from "../../messages";
import type { CellName, SheetRow } from "./sheetRows";

const words = text.forecast.sheet;

/** What a cell of a row is called. */
export const cellLabels = (): { readonly [kind in SheetRow["kind"]]: { readonly [name in CellName]?: string } } => ({
  start: { interval: words.interval },
  step: { processing: words.time, wait: words.wait, fixedCost: words.cost, selection: words.takes },
  decision: {},
  share: { probability: words.share },
  event: { interval: words.comes, probability: words.share },
  people: { availability: words.hours, unitCost: words.rate, quantity: words.quantity, site: words.site },
  data: { drawn: words.drawn },
  system: { site: words.site },
  way: { delay: words.delay, capacity: words.capacity },
});

/** The cells of a kind of row that have a column, in their order. Whom a step takes stands where it is said who does it. */
export const cellsOf = (kind: SheetRow["kind"]): readonly (readonly [name: CellName, label: string])[] =>
  (Object.entries(cellLabels()[kind]) as [CellName, string][]).filter(([name]) => name !== "selection");
