import { compare } from "@/contract";
import type { CounterpartRow } from "@/contract/compare";
import { ask } from "../kernel/ask";

export async function counterpartsOfElement(version: string, element: string): Promise<readonly CounterpartRow[]> {
  return (await ask(compare.listCounterparts, { version, element })).counterparts;
}

/** Where a counterpart is shown. */
export const placeOf = ({ version, element }: Pick<CounterpartRow, "version" | "element">): string =>
  `/v/${encodeURIComponent(version)}/diagram?element=${encodeURIComponent(element)}`;
