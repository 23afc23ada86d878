import { ask } from "../api";

/** The same element in another version of the process. */
export interface Counterpart {
  readonly version: string;
  readonly versionName: string;
  readonly element: string;
  readonly name: string;
  readonly type: string;
}

export async function counterpartsOfElement(version: string, element: string): Promise<readonly Counterpart[]> {
  return (await ask<{ counterparts: Counterpart[] }>("listCounterparts", { version, element })).counterparts;
}

/** Where a counterpart is shown. */
export const placeOf = ({ version, element }: Pick<Counterpart, "version" | "element">): string =>
  `/v/${encodeURIComponent(version)}/diagram?element=${encodeURIComponent(element)}`;
