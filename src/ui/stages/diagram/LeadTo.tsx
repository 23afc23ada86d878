"use client";
import { chakra, Text } from "@chakra-ui/react";
import { Command as Palette } from "cmdk";
import { useState } from "react";
import { connectionBetween, type Element, type Id, incomingOf, laneOf, type Model, nameOf } from "@/core/model";
import { PaletteDialog } from "../../controls/PaletteDialog";
import { text, typeWord } from "../../messages";
import { useTypedAhead } from "./useTypedAhead";

interface LeadToProps {
  readonly model: Model;
  readonly diagram: Id;
  readonly from: Element;
  readonly onChoose: (target: Id) => void;
  readonly onClose: () => void;
}

/** Where a flow, message, note or paper can lead from an element, by name: connecting without a pointer. */
export function LeadTo({ model, diagram, from, onChoose, onClose }: LeadToProps) {
  const [typed, setTyped] = useTypedAhead();
  const wanted = typed.trim().toLowerCase();
  const title = text.diagram.leadTo(nameOf(model, from.id) || typeWord(from.type));
  const [targets] = useState(() => targetsOf(model, diagram, from));
  const matching = targets
    .map((target) => ({ target, rank: rankOf(target, wanted) }))
    .filter(({ rank }) => rank < 4)
    .sort((a, b) => a.rank - b.rank)
    .map(({ target }) => target);
  return (
    <PaletteDialog
      title={title}
      isTitled
      placeholder={text.diagram.filter}
      typed={typed}
      onType={setTyped}
      empty={text.diagram.leadNowhere}
      width="480px"
      onClose={onClose}
    >
      {matching.slice(0, 60).map(({ id, name, words }) => (
        <Palette.Item key={id} value={id} onSelect={() => onChoose(id)}>
          <Text flex="1" fontWeight="600">
            {name}
          </Text>
          <chakra.span color="quiet" fontSize="12px">
            {words}
          </chakra.span>
        </Palette.Item>
      ))}
    </PaletteDialog>
  );
}

/** First what is called so from its beginning, then where a word of its name begins so, then what stands at such a place. */
function rankOf({ name, words }: { readonly name: string; readonly words: string }, wanted: string): number {
  const called = name.toLowerCase();
  if (called.startsWith(wanted)) return 0;
  if (` ${called}`.includes(` ${wanted}`)) return 1;
  if (called.includes(wanted)) return 2;
  return words.toLowerCase().includes(wanted) ? 3 : 4;
}

/** What tells two of one name apart: whose lane they stand in, and what comes before them. */
function placeWords(model: Model, element: Element, kind: string): string {
  const lane = laneOf(model, element.id);
  const [flow] = incomingOf(model, element.id);
  const before = flow && nameOf(model, String(flow.sourceRef));
  return [
    kind,
    ...(lane && nameOf(model, lane.id) ? [text.diagram.inLane(nameOf(model, lane.id))] : []),
    ...(before ? [text.diagram.behind(before)] : []),
  ].join(", ");
}

/** Everything on the page that the standard lets the element be connected to, with what the connection would be. */
function targetsOf(model: Model, diagram: Id, from: Element): { id: Id; name: string; words: string }[] {
  const found: { id: Id; name: string; words: string }[] = [];
  for (const shape of model.shapes) {
    const element = shape.diagram === diagram ? model.elements.get(shape.element) : undefined;
    if (!element || element.type === "lane" || element.id === from.id) continue;
    const answer = connectionBetween(model, from.id, element.id);
    if (!answer.ok) continue;
    const type = typeWord(element.type);
    found.push({
      id: element.id,
      name: nameOf(model, element.id) || type,
      words: placeWords(model, element, text.diagram.leadBy(type, typeWord(answer.value))),
    });
  }
  return found.sort((a, b) => a.name.localeCompare(b.name));
}
