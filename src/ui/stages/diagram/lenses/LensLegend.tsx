"use client";
import { chakra, Flex } from "@chakra-ui/react";
import { X } from "lucide-react";
import type { SeenLens } from "@/core/lens";
import { text } from "../../../messages";
import { useLensesOn } from "../../../version/lenses/store";
import { LensSample } from "./LensSample";

const words = text.lenses;

/** The lenses that are shown: what each looks like, how much it marks, and a way to hide it. */
export function LensLegend({ shown }: { readonly shown: readonly (SeenLens & { readonly id: string })[] }) {
  const { toggle } = useLensesOn.getState();
  if (shown.length === 0) return null;
  return (
    <chakra.ul
      listStyleType="none"
      aria-label={words.title}
      data-testid="lens-legend"
      position="absolute"
      right="14px"
      top="12px"
      maxW="320px"
      maxH="60%"
      overflow="auto"
      bg="paper"
      borderWidth="1px"
      borderColor="line"
      borderRadius="6px"
      py={1}
    >
      {shown.map(({ id, lens, marked }) => (
        <Flex as="li" key={id} align="center" gap={2} pe={1} fontSize="13px">
          <LensSample lens={lens} />
          <chakra.span flex="1" minW={0}>
            {lens.name}
            <chakra.span color="quiet" fontSize="12px" display="block">
              {words.marks(marked.length)}
            </chakra.span>
          </chakra.span>
          <chakra.button
            type="button"
            aria-label={words.hide(lens.name)}
            minW="28px"
            h="28px"
            display="grid"
            placeItems="center"
            color="quiet"
            cursor="pointer"
            onClick={() => toggle(id)}
          >
            <X size={13} />
          </chakra.button>
        </Flex>
      ))}
    </chakra.ul>
  );
}
