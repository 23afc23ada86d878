import { chakra } from "@chakra-ui/react";
import type { Phrase } from "@/core/compare";

/** A sentence with the names in it in bold. */
export function Words({ phrase }: { readonly phrase: Phrase }) {
  return (
    <>
      {phrase.map((part, at) =>
        typeof part === "string" ? part : <chakra.b key={`${at} ${part.name}`}>{part.name}</chakra.b>,
      )}
    </>
  );
}
