"use client";
import { Button } from "@chakra-ui/react";
import { Keycap } from "../controls/Keycap";
import { text } from "../messages";

/** Shows all of a page that is looked at, in its corner; the click is for the page alone and chooses nothing on it. */
export function FitButton({ onFit }: { readonly onFit: () => void }) {
  return (
    <Button
      position="absolute"
      right="14px"
      bottom="10px"
      size="xs"
      variant="outline"
      bg="paper"
      borderColor="line"
      onClick={(event) => {
        event.stopPropagation();
        onFit();
      }}
    >
      {text.diagram.fit} <Keycap>0</Keycap>
    </Button>
  );
}
