import { randomBytes } from "node:crypto";
import { database } from "@/data/database";
import { signInUsers } from "@/data/schema";
import { secretOf } from "./secrets";

/** Whether somebody can sign in at all; on the very first start nobody can. */
export async function hasOwner(): Promise<boolean> {
  const { db } = await database();
  return (await db.select({ id: signInUsers.id }).from(signInUsers).limit(1)).length > 0;
}

export const ownerCodeKey = "owner-code";
/** Shown where the server is started, so that not whoever comes first owns the workspace, but who has access to the machine. */
export const ownerCode = (): Promise<string> => secretOf(ownerCodeKey, () => randomBytes(9).toString("base64url"));

/** Says the code when the server starts, while nobody owns the workspace. */
export async function sayOwnerCode(): Promise<void> {
  if (await hasOwner()) return;
  console.error(
    `Nobody owns this workspace yet. Open it in a browser and say who does; the code is ${await ownerCode()}`,
  );
}
