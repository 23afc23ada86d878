"use client";
import { Box, chakra, Flex } from "@chakra-ui/react";
import { type DragEvent, type ReactNode, useState } from "react";
import { complain } from "../../controls/notices";
import { text } from "../../messages";
import { readModelFile } from "./readModelFile";
import type { SideRef } from "./sides";

type Hand = "from" | "to";

/**
 * Takes files that are dropped on the stage: one goes to the side it is dropped on, two are held against each other, the first as the
 * old side. While one is dragged over, it is seen what would become of it.
 */
export function FileDrop(props: {
  readonly onFiles: (hand: Hand, ref: SideRef) => void;
  readonly children: ReactNode;
}) {
  const { onFiles, children } = props;
  const [over, setOver] = useState<{ readonly hand: Hand; readonly count: number } | null>(null);
  const handAt = (event: DragEvent): Hand => (event.clientX < window.innerWidth / 2 ? "from" : "to");
  const drop = (event: DragEvent) => {
    const [first, second] = event.dataTransfer.files;
    setOver(null);
    if (!first) return;
    event.preventDefault();
    const given: [Hand, File][] = second
      ? [
          ["from", first],
          ["to", second],
        ]
      : [[handAt(event), first]];
    // Either both are taken or none, so that no half of a comparison is shown.
    Promise.all(given.map(async ([hand, file]) => [hand, await readModelFile(file)] as const))
      .then((read) => {
        for (const [hand, ref] of read) onFiles(hand, ref);
      })
      .catch(complain);
  };
  return (
    <Flex
      direction="column"
      flex="1"
      minH={0}
      position="relative"
      onDragOver={(event) => {
        if (!event.dataTransfer.types.includes("Files")) return;
        event.preventDefault();
        const [hand, count] = [handAt(event), event.dataTransfer.items.length];
        if (over?.hand !== hand || over.count !== count) setOver({ hand, count });
      }}
      onDragLeave={(event) => {
        if (!event.currentTarget.contains(event.relatedTarget as Node | null)) setOver(null);
      }}
      onDrop={drop}
    >
      {children}
      {over && (
        <Box
          position="absolute"
          top={0}
          bottom={0}
          left={over.count > 1 || over.hand === "from" ? 0 : "50%"}
          right={over.count > 1 || over.hand === "to" ? 0 : "50%"}
          pointerEvents="none"
          borderWidth="2px"
          borderStyle="dashed"
          borderColor="accent"
          bg="accentSoft"
          opacity={0.92}
          display="flex"
          alignItems="center"
          justifyContent="center"
          zIndex="overlay"
        >
          <chakra.span fontWeight="700" role="status">
            {over.count > 1 ? text.compare.dropTwo : text.compare.dropOn[over.hand]}
          </chakra.span>
        </Box>
      )}
    </Flex>
  );
}
