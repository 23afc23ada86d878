import { type Right, rights } from "./contract";

/**
 * What a member is to the workspace, or to one area and all it holds. Each comes with rights; who is to do more in one area has another
 * seat there, beside the one of the whole workspace.
 */
export const seats = ["owner", "analyst", "reviewer", "developer", "operator", "reader"] as const;
export type Seat = (typeof seats)[number];

/** The one table of who may what. */
export const rightsOfSeat: { readonly [seat in Seat]: readonly Right[] } = {
  owner: rights,
  analyst: ["read", "edit", "arrange", "judge", "comment", "hand off", "operate", "work"],
  reviewer: ["read", "judge", "comment", "work"],
  developer: ["read", "comment", "hand off", "work"],
  operator: ["read", "comment", "operate", "work"],
  reader: ["read"],
};

/** A seat in one area. To own is to answer for the workspace as a whole, so that nobody owns one area. */
export interface AreaSeat {
  readonly area: string;
  readonly seat: Exclude<Seat, "owner">;
}
export const areaSeats = seats.filter((seat): seat is AreaSeat["seat"] => seat !== "owner");
