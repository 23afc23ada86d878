"use client";
import { chakra } from "@chakra-ui/react";
import { Separator } from "react-resizable-panels";
import { text } from "../messages";

const Bar = chakra(Separator);

/** The tray's upper edge: dragged, or moved with the arrow keys, it makes the tray higher or lower. */
export function TrayHandle() {
  return (
    <Bar
      aria-label={text.diagram.trayHeight}
      h="5px"
      bg="sheet"
      borderTopWidth="1px"
      borderColor="line"
      cursor="ns-resize"
      _hover={{ bg: "accentSoft" }}
      _focusVisible={{ bg: "accent", outline: "none" }}
    />
  );
}
