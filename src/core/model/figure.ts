import type { Id } from "./element";

/**
 * One figure of a scenario: what one element is said to take of one kind. A record each, so that two people who estimate two steps,
 * or two figures of one step, never meet. In files they stand in the standard's place for simulation data (see `core/scenario`).
 */
export interface Figure {
  /** See `figureId`. */
  readonly id: Id;
  readonly element: Id;
  readonly field: FigureField;
  /** Times in ISO 8601, money in the scenario's currency. */
  readonly value: string | number;
}
export type FigureField = "processingTime" | "fixedCost";

/** Element and field make a figure what it is. */
export const figureId = (element: Id, field: FigureField): Id => `${element} ${field}`;
