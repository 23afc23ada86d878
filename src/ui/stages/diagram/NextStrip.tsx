"use client";
import { Button, chakra, Flex } from "@chakra-ui/react";
import { PanelBottomClose, PanelBottomOpen } from "lucide-react";
import { memo, useRef } from "react";
import type { Kind } from "@/core/commands";
import { KindGlyph } from "../../canvas/KindGlyph";
import { Keycap } from "../../controls/Keycap";
import { text } from "../../messages";
import { useDiagram } from "../../version/diagramStore";
import type { Gesture } from "./gestureList";
import { keyOfKind } from "./kindKeys";

interface NextStripProps {
  /** How many elements are chosen, and whether that is a flow. */
  readonly chosen: number;
  readonly onFlow: boolean;
  readonly kinds: readonly Kind[];
  /** What can be done with the choice; shown where several are chosen, since then nothing can be added. */
  readonly gestures: readonly Gesture[];
  readonly onAdd: (kind: Kind) => void;
  readonly onTidy: () => void;
}

const stripButton = {
  variant: "outline",
  h: "28px",
  gap: 1,
  minW: 0,
  bg: "paper",
  color: "ink",
  borderColor: "line",
  fontWeight: "400",
  fontSize: "12.5px",
  flexShrink: 0,
  _hover: { borderColor: "accent" },
} as const;

/** What is wanted most shows its name; the rest its picture and key, so that all fit on one line. */
const usualKinds = new Set(["1", "T", "D", "P", "W", "E", "S", "U", "X", "L"]);

/** The one place where elements come from: what may follow here, each with its key. Dragged out, a kind is placed by hand. */
export const NextStrip = memo(function NextStrip({ chosen, onFlow, kinds, gestures, onAdd, onTidy }: NextStripProps) {
  const which = chosen > 0 ? "trayOpen" : "aboutOpen";
  const isOpen = useDiagram((state) => state[which]);
  const { set } = useDiagram.getState();
  const dragged = useRef<{ x: number; y: number } | null>(null);
  // Its name stands in the tray, and would leave no room for what may follow.
  const title = onFlow
    ? text.diagram.on
    : chosen === 1
      ? text.diagram.after
      : chosen > 1
        ? text.diagram.several(chosen)
        : text.diagram.nothing;
  return (
    <Flex
      h="46px"
      px={3}
      gap={1}
      align="center"
      bg="paper"
      borderTopWidth="1px"
      borderColor="line"
      flexShrink={0}
      role="toolbar"
      aria-label={text.diagram.nothing}
    >
      <chakra.span color="quiet" me={1} flexShrink={0}>
        {title}
      </chakra.span>
      <Flex flex="1" minW={0} gap={1} overflowX="auto" css={{ scrollbarWidth: "none" }}>
        {gestures.map(({ id, title, keys, run }) => {
          const words: { readonly [gesture: string]: string } = text.gestureWords;
          return (
            words[id] && (
              <Button key={id} {...stripButton} px={1.5} title={title} aria-label={title} onClick={run}>
                {words[id]} <Keycap>{keys ?? ""}</Keycap>
              </Button>
            )
          );
        })}
        {kinds.map((kind) => {
          const { key, label } = keyOfKind(kind);
          const usual = usualKinds.has(key) || kinds.length <= 8;
          return (
            <Button
              key={`${kind.type}${kind.trigger ?? ""}${kind.closed ?? ""}`}
              {...stripButton}
              px={1}
              title={label}
              aria-label={usual ? `${label} ${key}` : label}
              onClick={() => onAdd(kind)}
              onPointerDown={(event) => {
                dragged.current = { x: event.clientX, y: event.clientY };
                // Until the drag has begun, moves are the button's even beside it; then they are the canvas'.
                event.currentTarget.setPointerCapture(event.pointerId);
              }}
              onPointerMove={(event) => {
                const from = dragged.current;
                if (!from || event.buttons !== 1 || Math.hypot(event.clientX - from.x, event.clientY - from.y) < 10)
                  return;
                dragged.current = null;
                event.currentTarget.releasePointerCapture(event.pointerId);
                set({ carrying: kind });
              }}
              onPointerUp={() => {
                dragged.current = null;
              }}
            >
              <KindGlyph kind={kind} />
              {usual && (
                // In a narrow window the pictures and keys alone stay on one line.
                <chakra.span display={{ base: "none", xl: "inline" }}>{label}</chakra.span>
              )}
              <Keycap>{key}</Keycap>
            </Button>
          );
        })}
      </Flex>
      {chosen < 2 && (
        <Button
          variant="ghost"
          h="28px"
          px={2}
          color="quiet"
          fontWeight="400"
          flexShrink={0}
          onClick={() => set({ asking: "more" })}
        >
          {text.diagram.more} <Keycap>Z</Keycap>
        </Button>
      )}
      <Button variant="ghost" h="28px" px={2} color="quiet" fontWeight="400" flexShrink={0} onClick={onTidy}>
        {text.diagram.tidy} <Keycap>Y</Keycap>
      </Button>
      <Button
        size="xs"
        variant="ghost"
        px={1.5}
        aria-expanded={isOpen}
        aria-label={chosen > 0 ? (isOpen ? text.diagram.closeTray : text.diagram.openTray) : text.diagram.about}
        title={chosen > 0 ? (isOpen ? text.diagram.closeTray : text.diagram.openTray) : text.diagram.about}
        onClick={() => set({ [which]: !isOpen })}
      >
        {isOpen ? <PanelBottomClose size={15} /> : <PanelBottomOpen size={15} />}
      </Button>
    </Flex>
  );
});
