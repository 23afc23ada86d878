"use client";
import { Box, Button, chakra, Flex } from "@chakra-ui/react";
import { GripVertical, X } from "lucide-react";
import { useEffect, useRef, useState } from "react";
import type { Id, Model } from "@/core/model";
import { text } from "../../messages";
import { useDiagram } from "../../version/diagramStore";
import { type OutlineRow, outlineOf } from "../../version/outlineOf";

/** Milliseconds between two keys after which typing begins a new word: counted when they are pressed, however late they are heard. */
const typingPause = 700;

/** The outline: the diagram for people who would rather read or hear it. */
export function Outline({
  model,
  onChoose,
  onClose,
  onMoveLane,
}: {
  readonly model: Model;
  readonly onChoose: (id: Id) => void;
  readonly onClose: () => void;
  /** A lane was dragged to the place of another one. */
  readonly onMoveLane: (lane: Id, to: Id) => void;
}) {
  const [dragged, setDragged] = useState<Id | null>(null);
  const [over, setOver] = useState<Id | null>(null);
  const accepts = (row: OutlineRow) =>
    dragged !== null &&
    row.isLane &&
    row.id !== dragged &&
    model.elements.get(row.id)?.parent === model.elements.get(dragged)?.parent;
  const rows = outlineOf(model);
  const selection = useDiagram((state) => state.selection);
  const list = useRef<HTMLDivElement>(null);
  const typed = useRef({ text: "", at: Number.NEGATIVE_INFINITY });
  useEffect(() => {
    list.current?.querySelector<HTMLElement>("[role=treeitem]")?.focus();
  }, []);
  const onKeyDown = (event: React.KeyboardEvent) => {
    const items = [...(list.current?.querySelectorAll<HTMLElement>("[role=treeitem]") ?? [])];
    const at = items.indexOf(document.activeElement as HTMLElement);
    const next = { ArrowDown: at + 1, ArrowUp: at - 1, Home: 0, End: items.length - 1 }[event.key];
    if (next !== undefined) {
      event.preventDefault();
      items[Math.max(0, Math.min(items.length - 1, next))]?.focus();
    } else if (event.key.length === 1 && event.key !== " " && !event.ctrlKey && !event.metaKey && !event.altKey) {
      // As in every tree, what is typed leads to the next row that begins with it.
      event.preventDefault();
      const pressed = event.timeStamp;
      const last = typed.current;
      const before = pressed - last.at < typingPause ? last.text : "";
      typed.current = { text: before + event.key.toLowerCase(), at: pressed };
      const from = Math.max(0, at) + (typed.current.text.length === 1 ? 1 : 0);
      const order = [...items.slice(from), ...items.slice(0, from)];
      order.find((item) => item.textContent?.toLowerCase().startsWith(typed.current.text))?.focus();
    } else if (event.key === " " && event.timeStamp - typed.current.at < typingPause) {
      event.preventDefault();
      typed.current = { text: `${typed.current.text} `, at: event.timeStamp };
    } else if (event.key === "Escape") {
      event.preventDefault();
      onClose();
      document.querySelector<HTMLElement>("[data-canvas]")?.focus();
    } else if (event.key === "Enter" || event.key === " ") {
      event.preventDefault();
      const id = (document.activeElement as HTMLElement).dataset.element;
      if (id) {
        onChoose(id);
        document.querySelector<HTMLElement>("[data-canvas]")?.focus();
      }
    }
  };
  return (
    <Flex
      direction="column"
      position="absolute"
      right="14px"
      top="14px"
      bottom="52px"
      w="300px"
      bg="paper"
      borderWidth="1px"
      borderColor="line"
      borderRadius="6px"
      boxShadow="0 4px 16px rgb(0 0 0 / 10%)"
      zIndex={2}
    >
      <Flex justify="space-between" align="center" px={3} py={2} borderBottomWidth="1px" borderColor="line">
        <chakra.h2 fontSize="14px" fontWeight="700">
          {text.diagram.outline}
        </chakra.h2>
        <Button size="2xs" variant="ghost" aria-label={text.dialog.close} onClick={onClose}>
          <X size={14} />
        </Button>
      </Flex>
      {rows.length === 0 && (
        <chakra.p color="quiet" p={3}>
          {text.diagram.outlineEmpty}
        </chakra.p>
      )}
      {rows.length > 0 && (
        <Box ref={list} role="tree" aria-label={text.diagram.outline} overflow="auto" py={1} onKeyDown={onKeyDown}>
          {rows.map((row) => (
            <Box
              key={row.id}
              role="treeitem"
              aria-level={row.level}
              aria-selected={selection.includes(row.id)}
              data-element={row.id}
              tabIndex={-1}
              ps={`${row.level * 14}px`}
              pe={3}
              py="3px"
              cursor="pointer"
              truncate
              bg={selection.includes(row.id) ? "accentSoft" : undefined}
              _hover={{ bg: "accentSoft" }}
              borderTopWidth="2px"
              borderColor={over === row.id ? "accent" : "transparent"}
              onClick={() => onChoose(row.id)}
              draggable={row.isLane}
              onDragStart={(event) => {
                event.dataTransfer.setData("text/plain", row.label);
                event.dataTransfer.effectAllowed = "move";
                setDragged(row.id);
              }}
              onDragEnd={() => {
                setDragged(null);
                setOver(null);
              }}
              onDragOver={(event) => {
                if (!accepts(row)) return;
                event.preventDefault();
                setOver(row.id);
              }}
              onDragLeave={() => setOver(null)}
              onDrop={(event) => {
                event.preventDefault();
                if (dragged !== null && accepts(row)) onMoveLane(dragged, row.id);
                setDragged(null);
                setOver(null);
              }}
            >
              {row.isLane && <GripVertical size={11} aria-hidden="true" style={{ display: "inline", opacity: 0.5 }} />}
              {row.label || <chakra.span color="quiet">({row.type})</chakra.span>}
              {row.label && (
                <chakra.span color="quiet" fontSize="12px">
                  {" "}
                  {row.type}
                </chakra.span>
              )}
            </Box>
          ))}
        </Box>
      )}
    </Flex>
  );
}
