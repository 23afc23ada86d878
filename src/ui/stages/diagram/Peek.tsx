"use client";
import { Box, Button, chakra, Flex } from "@chakra-ui/react";
import { X } from "lucide-react";
import { useMemo } from "react";
import { pageOf, sceneOf } from "@/core/drawing";
import { type Id, type Model, nameOf } from "@/core/model";
import { SceneView } from "../../canvas/SceneView";
import { Keycap } from "../../controls/Keycap";
import { text, typeWord } from "../../messages";

/** The inside of a closed sub-process, shown for a look without leaving the page. */
export function Peek({
  model,
  element,
  side,
  onOpen,
  onClose,
}: {
  readonly model: Model;
  readonly element: Id;
  /** Where on the canvas it covers least of what it is about. */
  readonly side: "top" | "bottom";
  readonly onOpen: (element: Id) => void;
  readonly onClose: () => void;
}) {
  const page = pageOf(model, element);
  const scene = useMemo(() => (page ? sceneOf(model, page) : undefined), [model, page]);
  const name = nameOf(model, element) || typeWord(model.elements.get(element)?.type ?? "");
  return (
    <Box
      role="dialog"
      aria-label={name}
      data-testid="peek"
      position="absolute"
      insetX="80px"
      {...(side === "top" ? { top: "14px" } : { bottom: "52px" })}
      zIndex={3}
      p={3}
      bg="paper"
      borderWidth="1px"
      borderColor="line"
      borderRadius="6px"
      boxShadow="0 4px 16px rgb(0 0 0 / 14%)"
    >
      <Flex align="center" gap={2} mb={2}>
        <chakra.h2 fontWeight="700" flex="1" truncate>
          {name}
        </chakra.h2>
        <Button size="xs" variant="outline" borderColor="line" onClick={() => onOpen(element)}>
          {text.diagram.openPage} <Keycap>PgDn</Keycap>
        </Button>
        <Button size="xs" variant="ghost" aria-label={text.diagram.closePeek} onClick={onClose}>
          <X size={14} /> <Keycap>Esc</Keycap>
        </Button>
      </Flex>
      {scene && scene.figures.length > 0 ? (
        <SceneView scene={scene} height={220} label={name} />
      ) : (
        <chakra.p color="quiet">{text.diagram.peekEmpty}</chakra.p>
      )}
    </Box>
  );
}
