import { chakra } from "@chakra-ui/react";
import type { Said } from "@/core/messages";
import { wordedParts } from "../../messages";

/** A sentence with the names in it in bold. */
export function Words({ said }: { readonly said: Said }) {
  return (
    <>
      {wordedParts(said).map((part, at) =>
        typeof part === "string" ? part : <chakra.b key={`${at} ${part.name}`}>{part.name}</chakra.b>,
      )}
    </>
  );
}
