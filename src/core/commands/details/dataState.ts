import { z } from "zod";
import { say } from "../../messages";
import { called, childrenOf, derivedId } from "../../model";
import { type Change, refuse } from "../kernel/change";

const id = z.string().min(1).max(200);

export const setDataStateSchema = z.object({ type: z.literal("setDataState"), id, state: z.string().max(200) });
export const setMultiplicitySchema = z.object({ type: z.literal("setMultiplicity"), id, isMultiple: z.boolean() });

/** The state data is in at one place of the flow ("checked"); empty takes it off. */
export function setDataState(change: Change, { id: element, state }: z.infer<typeof setDataStateSchema>): void {
  const type = change.element(element).type;
  if (!["dataObjectReference", "dataStoreReference", "dataInput", "dataOutput"].includes(type))
    refuse("no-state", say`${called(change.model, change.element(element))} is no data, and has no state.`, [element]);
  const [known] = childrenOf(change.model, element, "dataState");
  const name = state.trim();
  if (name === "") {
    if (known) change.remove("elements", known.id);
  } else if (known) change.set("elements", known.id, "name", name);
  else change.insert("dataState", derivedId(change.isTaken, element, "state"), element, { name });
}

/** Whether a pool stands for several of a kind: all households, not one. */
export function setMultiplicity(
  change: Change,
  { id: element, isMultiple }: z.infer<typeof setMultiplicitySchema>,
): void {
  if (change.element(element).type !== "participant")
    refuse("not-a-pool", say`${called(change.model, change.element(element))} is no pool.`, [element]);
  const [known] = childrenOf(change.model, element, "participantMultiplicity");
  if (!isMultiple && known) change.remove("elements", known.id);
  if (isMultiple && !known)
    change.insert("participantMultiplicity", derivedId(change.isTaken, element, "multiplicity"), element, {
      minimum: 2,
      maximum: 2,
    });
}
