"use client";
import { chakra } from "@chakra-ui/react";
import type { ZoomTransform } from "d3-zoom";
import { useEffect, useRef, useState } from "react";
import type { Figure } from "@/core/drawing";
import { type Element, type Id, isGateway, type Model, nameOf, outgoingOf } from "@/core/model";
import { text } from "../messages";
import { useDiagram } from "../version/diagramStore";
import { nameElement } from "../version/laneRoles";
import { useVersionStore } from "../version/VersionContext";

/** What is named next when one goes on with Tab: a question's answers, one after the other. */
function namedNext(model: Model, element: Element): Id | undefined {
  const split = element.type === "sequenceFlow" ? (element.sourceRef as Id) : element.id;
  if (!isGateway(model.elements.get(split)?.type)) return undefined;
  const answers = outgoingOf(model, split);
  return answers[answers.findIndex((flow) => flow.id === element.id) + 1]?.id;
}

/**
 * Names an element where it stands: Enter keeps, Escape leaves, Shift+Enter breaks the line, Tab goes on to a question's answers.
 * Alt with a letter keeps the name and adds what the strip shows under that letter.
 */
export function NameEditor({
  figure,
  element,
  transform,
  onAdd,
}: {
  readonly onAdd: (letter: string) => void;
  readonly figure: Figure;
  readonly element: Element | undefined;
  readonly transform: ZoomTransform;
}) {
  const store = useVersionStore();
  const input = useRef<HTMLTextAreaElement>(null);
  const [value, setValue] = useState(() => (element ? nameOf(store.getState().model, element.id) : ""));
  const left = useRef(false);
  useEffect(() => {
    input.current?.focus();
    input.current?.select();
  }, []);
  const leave = (keep: boolean) => {
    if (left.current) return;
    left.current = true;
    useDiagram.getState().set({ naming: null });
    if (keep && element && value.trim() !== (element.name ?? "").trim()) nameElement(store, element.id, value);
    document.querySelector<HTMLElement>("[data-canvas]")?.focus({ preventScroll: true });
  };
  const inside = !figure.line && figure.bounds.width > 60 && figure.type !== "lane" && figure.type !== "participant";
  const box = figure.label?.bounds ?? figure.bounds;
  const width = Math.max(120, inside ? figure.bounds.width * transform.k : 132);
  const middle = figure.line
    ? (figure.line[0] ?? box)
    : {
        x: box.x + (figure.type === "lane" || figure.type === "participant" ? 0 : box.width / 2),
        y: inside ? box.y : box.y,
      };
  const isBand = figure.type === "lane" || figure.type === "participant";
  return (
    <chakra.textarea
      ref={input}
      aria-label={text.tray.name}
      data-testid="name-editor"
      value={value}
      onChange={(event) => setValue(event.target.value)}
      onPointerDown={(event) => event.stopPropagation()}
      onBlur={() => leave(true)}
      onKeyDown={(event) => {
        event.stopPropagation();
        if (event.key === "Enter" && !event.shiftKey) {
          event.preventDefault();
          leave(true);
        } else if (event.key === "Escape") leave(false);
        else if (event.key === "Tab" && !event.shiftKey) {
          event.preventDefault();
          leave(true);
          const next = element && namedNext(store.getState().model, element);
          if (next) useDiagram.getState().set({ naming: next });
        } else if (event.altKey && /^(?:Key[A-Z]|Digit1)$/.test(event.code)) {
          event.preventDefault();
          leave(true);
          onAdd(event.code.slice(-1));
        }
      }}
      position="absolute"
      left={`${Math.max(4, middle.x * transform.k + transform.x - (isBand ? 0 : width / 2))}px`}
      top={`${Math.max(4, middle.y * transform.k + transform.y + (isBand ? (figure.bounds.height * transform.k) / 2 - 20 : 0))}px`}
      width={`${width}px`}
      height={`${inside ? Math.max(44, figure.bounds.height * transform.k) : 44}px`}
      bg="paper"
      color="ink"
      borderWidth="2px"
      borderColor="accent"
      borderRadius="6px"
      px={1.5}
      py={1}
      fontSize="13px"
      textAlign="center"
      resize="none"
      zIndex={3}
    />
  );
}
