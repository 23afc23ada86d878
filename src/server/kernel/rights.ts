import type { Contract, Right, Thing } from "@/contract";
import { type AreaSeat, rightsOfSeat, type Seat } from "@/contract/seats";
import { say, term } from "@/core/messages";
import { areasAround } from "./areasAround";
import { UseCaseError } from "./useCaseError";

/** A person with access. Every use case takes who acts. */
export interface Member {
  readonly id: string;
  readonly name: string;
  /** Came by a link, without an account: known by no more than the name they give. */
  readonly isGuest?: true;
  /** What this member may, on everything there is. */
  readonly rights: readonly Right[];
  /** What more, in single areas and all they hold. */
  readonly inAreas?: readonly { readonly area: string; readonly rights: readonly Right[] }[];
}

/** A member as it is kept, with the rights its seats come with. */
export const seated = (row: {
  readonly id: string;
  readonly name: string;
  readonly seat: Seat;
  readonly areas: readonly AreaSeat[];
}): Member => ({
  id: row.id,
  name: row.name,
  rights: rightsOfSeat[row.seat],
  inAreas: row.areas.map(({ area, seat }) => ({ area, rights: rightsOfSeat[seat] })),
});

/** The one member of a workspace that nobody signs in to: may everything. */
export const localMember: Member = { id: "member-local", name: "Mara Aldous", rights: rightsOfSeat.owner };

const whatOf: { readonly [right in Right]: string } = {
  read: "see",
  edit: "change",
  arrange: "make, move or delete",
  judge: "judge",
  comment: "comment on",
  "hand off": "hand off",
  operate: "run",
  work: "work on",
  own: "administer",
};

/** Whether a member has a right on everything there is. */
export const mayEverywhere = (member: Member, right: Right): boolean => member.rights.includes(right);

/** What a member may in the innermost of these areas. */
export const rightsWithin = (member: Member, around: readonly string[]): readonly Right[] => [
  ...new Set([
    ...member.rights,
    ...(member.inAreas ?? []).filter(({ area }) => around.includes(area)).flatMap(({ rights }) => rights),
  ]),
];

/** Whether a member has a right on a thing. The one place that decides; every use case passes it (useCase.ts). */
export async function may(member: Member, right: Right, thing: Thing): Promise<boolean> {
  if (mayEverywhere(member, right)) return true;
  // What is looked up is not looked up for nothing.
  if (!("id" in thing) || !member.inAreas?.some(({ rights }) => rights.includes(right))) return false;
  return rightsWithin(member, await areasAround(thing)).includes(right);
}

/** Refuses a member who lacks what a use case needs on one of the things it is about. */
export async function needsRight<Given>(member: Member, contract: Contract<never, Given>, input: Given): Promise<void> {
  const things = contract.on(input);
  if (things.length === 0) throw new Error(`The use case ${contract.name} asks for its right on nothing.`);
  for (const thing of things)
    if (!(await may(member, contract.right, thing)))
      throw new UseCaseError(
        "not-allowed",
        say`${member.name} may not ${term(whatOf[contract.right])} this ${term(thing.kind)}. Ask somebody who owns the workspace.`,
        403,
      );
}
