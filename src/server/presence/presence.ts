import { presence as terms } from "@/contract";
import { tellHere, whoIsHere } from "../kernel/events";
import { query } from "../kernel/useCase";

export const sayWhereIAm = query(terms.sayWhereIAm, async ({ db, member }, place) => {
  await tellHere(db, { ...place, member: member.id, name: member.name });
  return { others: whoIsHere(place.version).filter(({ window }) => window !== place.window) };
});
