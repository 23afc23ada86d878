import type { Contract, Right, Thing } from "@/contract";
import { UseCaseError } from "./useCaseError";

/** A person with access. Every use case takes who acts. */
export interface Member {
  readonly id: string;
  readonly name: string;
  /** What this member may; on everything there is. */
  readonly rights: readonly Right[];
}

/** The one member of a workspace that nobody signs in to: may everything. */
export const localMember: Member = {
  id: "member-local",
  name: "Mara Aldous",
  rights: ["read", "edit", "arrange", "judge", "comment", "hand off", "operate", "work", "own"],
};

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

/** Whether a member has a right on a thing. The one place that decides; every use case passes it (useCase.ts). */
export function may(member: Member, right: Right, _thing: Thing): boolean {
  return member.rights.includes(right);
}

/** Refuses a member who lacks what a use case needs on one of the things it is about. */
export function needsRight<Given>(member: Member, contract: Contract<never, Given>, input: Given): void {
  const things = contract.on(input);
  if (things.length === 0) throw new Error(`The use case ${contract.name} asks for its right on nothing.`);
  for (const thing of things)
    if (!may(member, contract.right, thing))
      throw new UseCaseError(
        "not-allowed",
        `${member.name} may not ${whatOf[contract.right]} this ${thing.kind}. Ask somebody who owns the workspace.`,
        403,
      );
}
