"use client";
import { chakra, Dialog, Portal, Text } from "@chakra-ui/react";
import { Command as Palette } from "cmdk";
import { useState } from "react";
import { connectionBetween, type Element, type Id, type Model, nameOf, wordFor } from "@/core/model";
import { text } from "../messages";
import "../shell/findAnything.css";

interface LeadToProps {
  readonly model: Model;
  readonly diagram: Id;
  readonly from: Element;
  readonly onChoose: (target: Id) => void;
  readonly onClose: () => void;
}

/** Where a flow, message, note or paper can lead from an element, by name: connecting without a pointer. */
export function LeadTo({ model, diagram, from, onChoose, onClose }: LeadToProps) {
  const [typed, setTyped] = useState("");
  const wanted = typed.trim().toLowerCase();
  const title = text.diagram.leadTo(nameOf(model, from.id) || wordFor(from.type));
  const [targets] = useState(() => targetsOf(model, diagram, from));
  const matching = targets.filter(({ name, words }) => `${name} ${words}`.toLowerCase().includes(wanted));
  return (
    <Dialog.Root
      open
      onOpenChange={({ open }) => !open && onClose()}
      placement="top"
      initialFocusEl={() => document.getElementById("lead-to")}
      finalFocusEl={() => document.querySelector<HTMLElement>("[data-canvas]")}
    >
      <Portal>
        <Dialog.Backdrop bg="rgb(30 36 48 / 35%)" />
        <Dialog.Positioner>
          <Dialog.Content bg="paper" color="ink" borderRadius="6px" maxW="480px" mt="64px" overflow="hidden">
            <Dialog.Title px={4} pt={3} fontSize="14px">
              {title}
            </Dialog.Title>
            <Palette shouldFilter={false} label={title} className="find">
              <Palette.Input
                id="lead-to"
                value={typed}
                onValueChange={setTyped}
                placeholder={text.diagram.filter}
                aria-label={text.diagram.filter}
              />
              <Palette.List aria-label={title}>
                <Palette.Empty>{text.diagram.leadNowhere}</Palette.Empty>
                {matching.slice(0, 60).map(({ id, name, words }) => (
                  <Palette.Item
                    key={id}
                    value={id}
                    onSelect={() => {
                      onClose();
                      onChoose(id);
                    }}
                  >
                    <Text flex="1" fontWeight="600">
                      {name}
                    </Text>
                    <chakra.span color="quiet" fontSize="12px">
                      {words}
                    </chakra.span>
                  </Palette.Item>
                ))}
              </Palette.List>
            </Palette>
          </Dialog.Content>
        </Dialog.Positioner>
      </Portal>
    </Dialog.Root>
  );
}

/** Everything on the page that the standard lets the element be connected to, with what the connection would be. */
function targetsOf(model: Model, diagram: Id, from: Element): { id: Id; name: string; words: string }[] {
  const found: { id: Id; name: string; words: string }[] = [];
  for (const shape of model.shapes) {
    const element = shape.diagram === diagram ? model.elements.get(shape.element) : undefined;
    if (!element || element.type === "lane" || element.id === from.id) continue;
    const answer = connectionBetween(model, from.id, element.id);
    if (!answer.ok) continue;
    const type = wordFor(element.type);
    found.push({
      id: element.id,
      name: nameOf(model, element.id) || type,
      words: `${type}, by ${wordFor(answer.value)}`,
    });
  }
  return found.sort((a, b) => a.name.localeCompare(b.name));
}
