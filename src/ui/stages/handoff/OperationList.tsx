"use client";
import { chakra, Text } from "@chakra-ui/react";
import { Command as Palette } from "cmdk";
import { useMemo, useState } from "react";
import { type Element, type Model, nameOf } from "@/core/model";
import { type Offer, offeredTo } from "@/core/services";
import { closeThen, PaletteDialog } from "../../controls/PaletteDialog";
import { text } from "../../messages";

const words = text.handoff.services;
/** What one looks through; more are found by typing. */
const shown = 50;

/** The operations a step can be bound to, the likeliest first; what is typed narrows them. */
export function OperationList(props: {
  readonly model: Model;
  readonly step: Element;
  readonly offers: readonly Offer[];
  readonly isBound: boolean;
  readonly onChoose: (offer: Offer | undefined) => void;
  readonly onClose: () => void;
}) {
  const { model, step, offers, isBound, onChoose, onClose } = props;
  const [typed, setTyped] = useState("");
  const offered = useMemo(() => offeredTo(model, step, offers), [model, step, offers]);
  const wanted = typed.toLowerCase().split(/\s+/).filter(Boolean);
  const fitting = offered.filter(({ operation, interface: service, source }) => {
    const said = `${operation.name} ${operation.documentation} ${service} ${source}`.toLowerCase();
    return wanted.every((word) => said.includes(word));
  });
  const choose = (offer: Offer | undefined) => closeThen(onClose, () => onChoose(offer));
  return (
    <PaletteDialog
      title={words.choose(nameOf(model, step.id) || step.id)}
      isTitled
      placeholder={words.typeOperation}
      typed={typed}
      onType={setTyped}
      empty={offers.length === 0 ? words.noDescriptions : words.noneFits}
      width="560px"
      onClose={onClose}
    >
      {isBound && typed === "" && (
        <Palette.Item value="none" onSelect={() => choose(undefined)}>
          <Text color="quiet">{words.bindToNone}</Text>
        </Palette.Item>
      )}
      {fitting.slice(0, shown).map((offer, at) => (
        <Palette.Item
          key={`${offer.source} ${offer.interface} ${at}`}
          value={String(at)}
          onSelect={() => choose(offer)}
        >
          <Text flex="1" fontWeight="600" overflowWrap="anywhere">
            {offer.operation.name}
          </Text>
          <chakra.span color="quiet" fontSize="12px">
            {offer.interface}
          </chakra.span>
        </Palette.Item>
      ))}
    </PaletteDialog>
  );
}
