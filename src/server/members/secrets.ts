import { eq } from "drizzle-orm";
import { database } from "@/data/database";
import { secrets } from "@/data/schema";
import { lock } from "../kernel/act";
import { ownAct } from "../kernel/useCase";

/** What only the server knows, made when it is first needed: the same for every process of the application, and after a restart. */
export async function secretOf(key: string, make: () => string): Promise<string> {
  const known = await read(key);
  if (known !== undefined) return known;
  await ownAct("secret", [], async ({ db }) => {
    await lock(db, "home");
    await db.insert(secrets).values({ key, value: make() }).onConflictDoNothing();
  });
  return (await read(key)) as string;
}

const read = async (key: string): Promise<string | undefined> => {
  const { db } = await database();
  return (await db.select().from(secrets).where(eq(secrets.key, key)))[0]?.value;
};
