"use client";
import { chakra, Table } from "@chakra-ui/react";
import { useMemo, useState } from "react";
import type { DescriptionRow } from "@/contract/handoff";
import { type Element, isA, type Model, nameOf } from "@/core/model";
import { type Break, bindingOf, boundAs, type Offer, offeredTo, offersOf } from "@/core/services";
import { PageLink } from "../../controls/PageLink";
import { EmptyState } from "../../controls/states";
import { text, typeWord } from "../../messages";
import { useVersion, useVersionStore } from "../../version/VersionContext";
import { CallData } from "./CallData";
import { OperationList } from "./OperationList";

const words = text.handoff.services;
/** A name alike by half is worth a proposal. */
const alike = 0.5;

/** The steps that a system does, each with the operation it is bound to, and what a newer description broke. */
export function BoundSteps(props: {
  readonly model: Model;
  readonly descriptions: readonly DescriptionRow[];
  readonly breaks: readonly Break[];
}) {
  const { model, descriptions, breaks } = props;
  const offers = useMemo(() => offersOf(descriptions), [descriptions]);
  const steps = [...model.elements].filter((element) => isA(element, "serviceTask", "sendTask", "receiveTask"));
  if (steps.length === 0) return <EmptyState>{words.noSteps}</EmptyState>;
  return (
    <Table.Root size="sm" bg="paper" borderWidth="1px" borderColor="line" data-testid="bound-steps">
      <Table.Header>
        <Table.Row bg="sheet">
          {[words.step, words.operation, words.proposal].map((head) => (
            <Table.ColumnHeader key={head} color="quiet">
              {head}
            </Table.ColumnHeader>
          ))}
        </Table.Row>
      </Table.Header>
      <Table.Body>
        {steps.map((step) => (
          <BoundStep
            key={step.id}
            model={model}
            step={step}
            offers={offers}
            breaks={breaks.filter(({ elements }) => elements.includes(step.id))}
          />
        ))}
      </Table.Body>
    </Table.Root>
  );
}

function BoundStep(props: {
  readonly model: Model;
  readonly step: Element;
  readonly offers: readonly Offer[];
  readonly breaks: readonly Break[];
}) {
  const { model, step, offers, breaks } = props;
  const [isOpen, setOpen] = useState(false);
  const version = useVersion((state) => state.info.version.id);
  const { dispatch } = useVersionStore().getState();
  const bound = bindingOf(model, step);
  const name = nameOf(model, step.id) || step.id;
  const best = useMemo(
    () => (offers.length > 0 ? offeredTo(model, step, offers)[0] : undefined),
    [model, step, offers],
  );
  const bind = (one: Offer | undefined) => {
    if (!one) return dispatch({ type: "bindOperation", id: step.id, to: null });
    dispatch({ type: "bindOperation", id: step.id, to: boundAs(one.source, one, one.interface, one.operation) });
  };
  const proposal = !bound && best && best.likeness >= alike ? best : undefined;
  return (
    <Table.Row bg="paper">
      <Table.Cell>
        <PageLink href={`/v/${encodeURIComponent(version)}/diagram?element=${encodeURIComponent(step.id)}`}>
          <chakra.span color="accent" _hover={{ textDecoration: "underline" }}>
            {name}
          </chakra.span>
        </PageLink>
        <chakra.span color="quiet" ms={2}>
          {typeWord(step.type)}
        </chakra.span>
      </Table.Cell>
      <Table.Cell>
        <chakra.button
          type="button"
          minH="26px"
          px={2}
          maxW="100%"
          textAlign="start"
          bg="paper"
          borderWidth="1px"
          borderColor="line"
          borderRadius="6px"
          cursor="pointer"
          overflowWrap="anywhere"
          aria-haspopup="dialog"
          aria-label={words.operationOf(name, bound?.operation.name ?? words.none)}
          onClick={() => setOpen(true)}
        >
          {bound ? words.operationWords(bound.operation.name ?? "", bound.interface.name ?? "") : words.chooseOne}
        </chakra.button>
        {isOpen && (
          <OperationList
            model={model}
            step={step}
            offers={offers}
            isBound={bound !== undefined}
            onChoose={bind}
            onClose={() => setOpen(false)}
          />
        )}
        <CallData model={model} step={step} />
        {breaks.map((one) => (
          <chakra.div key={`${one.kind} ${one.field}`} color="trouble">
            {words.breaks[one.kind](one.operation, one.field, one.from, one.to)}
          </chakra.div>
        ))}
      </Table.Cell>
      <Table.Cell>
        {proposal && (
          <chakra.button
            type="button"
            color="accent"
            cursor="pointer"
            minH="24px"
            aria-label={words.bindTo(name, proposal.operation.name)}
            onClick={() => bind(proposal)}
          >
            {proposal.operation.name}
          </chakra.button>
        )}
      </Table.Cell>
    </Table.Row>
  );
}
