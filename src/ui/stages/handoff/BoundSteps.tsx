"use client";
import { chakra, Table } from "@chakra-ui/react";
import NextLink from "next/link";
import type { DescriptionRow } from "@/contract/handoff";
import { type Element, isA, type Model, nameOf, wordFor } from "@/core/model";
import { type Break, bindingOf, type Offered, offeredTo } from "@/core/services";
import { Choice } from "../../controls/fields";
import { EmptyState } from "../../controls/states";
import { text } from "../../messages";
import { useVersion, useVersionStore } from "../../version/VersionContext";

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
            descriptions={descriptions}
            breaks={breaks.filter(({ elements }) => elements.includes(step.id))}
          />
        ))}
      </Table.Body>
    </Table.Root>
  );
}

const keyOf = (one: { source: string; interface: string; operation: { name: string } }) =>
  JSON.stringify([one.source, one.interface, one.operation.name]);

function BoundStep(props: {
  readonly model: Model;
  readonly step: Element;
  readonly descriptions: readonly DescriptionRow[];
  readonly breaks: readonly Break[];
}) {
  const { model, step, descriptions, breaks } = props;
  const version = useVersion((state) => state.info.version.id);
  const { dispatch } = useVersionStore().getState();
  const bound = bindingOf(model, step);
  const offered = offeredTo(model, step, descriptions);
  const now = offered.find(
    (one) => one.interface === bound?.interface.name && one.operation.name === bound?.operation.name,
  );
  const bind = (one: Offered | undefined) => {
    if (!one) return dispatch({ type: "bindOperation", id: step.id, to: null });
    const { name, in: ins, out, errors, address } = one.operation;
    dispatch({
      type: "bindOperation",
      id: step.id,
      to: {
        source: one.source,
        format: one.format,
        version: one.version,
        interface: one.interface,
        operation: { name, in: [...ins], out: [...out], errors: [...errors], address },
      },
    });
  };
  const best = offered[0];
  const proposal = !bound && best && best.likeness >= alike ? best : undefined;
  const named = bound ? `${bound.operation.name} · ${bound.interface.name}` : "";
  return (
    <Table.Row bg="paper">
      <Table.Cell>
        <NextLink href={`/v/${encodeURIComponent(version)}/diagram?element=${encodeURIComponent(step.id)}`}>
          <chakra.span color="accent" _hover={{ textDecoration: "underline" }}>
            {nameOf(model, step.id) || step.id}
          </chakra.span>
        </NextLink>
        <chakra.span color="quiet" ms={2}>
          {wordFor(step.type)}
        </chakra.span>
      </Table.Cell>
      <Table.Cell>
        <Choice
          label={words.operationOf(nameOf(model, step.id) || step.id)}
          value={now ? keyOf(now) : bound ? "kept" : ""}
          options={[
            ["", words.none],
            ...(bound && !now ? [["kept", named] as const] : []),
            ...offered.map((one) => [keyOf(one), `${one.operation.name} · ${one.interface}`] as const),
          ]}
          onChoose={(key) => key !== "kept" && bind(offered.find((one) => keyOf(one) === key))}
        />
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
            aria-label={words.bindTo(nameOf(model, step.id) || step.id, proposal.operation.name)}
            onClick={() => bind(proposal)}
          >
            {proposal.operation.name}
          </chakra.button>
        )}
      </Table.Cell>
    </Table.Row>
  );
}
