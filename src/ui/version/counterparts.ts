import type { CounterpartRow } from "@/contract/compare";

/** Where a counterpart is shown. */
export const placeOf = ({ version, element }: Pick<CounterpartRow, "version" | "element">): string =>
  `/v/${encodeURIComponent(version)}/diagram?element=${encodeURIComponent(element)}`;
