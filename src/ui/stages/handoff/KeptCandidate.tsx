"use client";
import { Box, Button, chakra, Flex } from "@chakra-ui/react";
import { X } from "lucide-react";
import { useState } from "react";
import { type Decision, decisions, type Id, type Model, nameOf } from "@/core/model";
import {
  byRules,
  type Dependency,
  type KeptCandidate as Kept,
  type KeptOperation,
  type NamingRules,
} from "@/core/services";
import { AskDialog } from "../../controls/AskDialog";
import { Choice, TextField } from "../../controls/fields";
import { PageLink } from "../../controls/PageLink";
import { NewLine } from "../../controls/trayParts";
import { text } from "../../messages";
import { useVersion, useVersionStore } from "../../version/VersionContext";
import { giveSkeleton } from "./giveSkeleton";

const words = text.handoff.services;

/** A candidate that is kept: its operations, where each comes from, what it needs, and what was decided of it. */
export function KeptCandidate(props: {
  readonly model: Model;
  readonly candidate: Kept;
  readonly rules: NamingRules;
  readonly dependencies: readonly Dependency[];
}) {
  const { model, candidate, rules, dependencies } = props;
  const { dispatch } = useVersionStore().getState();
  const { id, name, from, operations, left } = candidate;
  const rename = (of: Id) => (typed: string) =>
    typed.trim() !== "" && dispatch({ type: "nameCandidates", names: [{ id: of, name: typed.trim() }] });
  return (
    <Box
      as="section"
      aria-label={name}
      data-testid="kept-candidate"
      bg="paper"
      borderWidth="1px"
      borderColor="line"
      borderRadius="6px"
      px={3}
      py={2.5}
      mb={3}
    >
      <Flex gap={3} align="center" mb={2} wrap="wrap">
        <Box w="220px" fontWeight="700">
          <TextField label={words.nameOf(name)} value={name} onCommit={rename(id)} />
        </Box>
        {candidate.isSourceGone ? (
          <chakra.span color="attention">{words.sourceGone}</chakra.span>
        ) : (
          <Source id={from}>{words.whole(nameOf(model, from) || from)}</Source>
        )}
        <Box flex="1" />
        <DecisionChoice candidate={candidate} />
        <Button
          size="xs"
          variant="outline"
          aria-label={words.exportNamed(name)}
          disabled={operations.length === 0}
          onClick={() => giveSkeleton(model, candidate, rules)}
        >
          {words.export}
        </Button>
        <Button
          size="xs"
          variant="ghost"
          aria-label={words.dropNamed(name)}
          onClick={() => dispatch({ type: "dropCandidate", id })}
        >
          {words.drop}
        </Button>
      </Flex>
      {candidate.decision && (
        <chakra.p color="quiet" mb={2}>
          {words.decided(candidate.decision.reason, candidate.decision.member, candidate.decision.date)}
        </chakra.p>
      )}
      <Flex as="ul" direction="column" gap={1} listStyleType="none">
        {operations.map((operation) => (
          <Operation
            key={operation.id}
            model={model}
            operation={operation}
            rules={rules}
            onName={rename(operation.id)}
            onLeaveOut={() => dispatch({ type: "dropCandidateOperation", id: operation.id })}
          />
        ))}
      </Flex>
      {left.length > 0 && (
        <Flex gap={2} mt={2} align="center" wrap="wrap" color="quiet">
          <span>{words.leftOut}</span>
          {left.map((one) => (
            <Button
              key={one.from}
              size="xs"
              variant="outline"
              aria-label={words.takeIn(one.name)}
              onClick={() => dispatch({ type: "addCandidateOperation", candidate: id, of: one.from, name: one.name })}
            >
              + {one.name}
            </Button>
          ))}
        </Flex>
      )}
      <AddOperation
        onAdd={(typed) => dispatch({ type: "addCandidateOperation", candidate: id, of: null, name: typed })}
      />
      {dependencies.length > 0 && (
        <Flex gap={2} mt={2} wrap="wrap" data-testid="candidate-needs">
          <chakra.span color="quiet">{words.needs}:</chakra.span>
          {dependencies.map(({ to, kind, steps }) => (
            <span key={`${to} ${kind}`}>
              {words.needWords[kind]} <chakra.b fontWeight="600">{model.elements.get(to)?.name ?? to}</chakra.b>
              {steps.length > 1 && <chakra.span color="quiet"> ×{steps.length}</chakra.span>}
            </span>
          ))}
        </Flex>
      )}
    </Box>
  );
}

function Source({ id, children }: { readonly id: Id; readonly children: string }) {
  const version = useVersion((state) => state.info.version.id);
  return (
    <PageLink href={`/v/${encodeURIComponent(version)}/diagram?element=${encodeURIComponent(id)}`}>
      <chakra.span color="accent" _hover={{ textDecoration: "underline" }}>
        {children}
      </chakra.span>
    </PageLink>
  );
}

function Operation(props: {
  readonly model: Model;
  readonly operation: KeptOperation;
  readonly rules: NamingRules;
  readonly onName: (typed: string) => void;
  readonly onLeaveOut: () => void;
}) {
  const { model, operation, rules, onName, onLeaveOut } = props;
  const { name, from, isSourceGone } = operation;
  const ruled = byRules(name, rules);
  return (
    <Flex as="li" gap={3} align="center">
      <Box w="220px">
        <TextField label={words.nameOf(name)} value={name} onCommit={onName} />
      </Box>
      <Box w="240px" truncate>
        {from === undefined ? (
          <chakra.span color="quiet">{words.byHand}</chakra.span>
        ) : isSourceGone ? (
          <chakra.span color="attention">{words.sourceGone}</chakra.span>
        ) : (
          <Source id={from}>{nameOf(model, from) || from}</Source>
        )}
      </Box>
      <Box flex="1" minW={0}>
        {ruled.name !== name && <chakra.code>{ruled.name}</chakra.code>}
        {!ruled.beginsWithVerb && (
          <chakra.span color="attention" ms={2}>
            {words.noVerb}
          </chakra.span>
        )}
      </Box>
      <chakra.button
        type="button"
        aria-label={words.leaveOut(name)}
        boxSize="24px"
        display="grid"
        placeItems="center"
        color="quiet"
        cursor="pointer"
        onClick={onLeaveOut}
      >
        <X size={14} aria-hidden="true" />
      </chakra.button>
    </Flex>
  );
}

function AddOperation({ onAdd }: { readonly onAdd: (typed: string) => void }) {
  const [typed, setTyped] = useState("");
  const add = () => {
    if (typed.trim() === "") return;
    onAdd(typed.trim());
    setTyped("");
  };
  return (
    <Box mt={2} w="220px">
      <NewLine label={words.addOperation} value={typed} onType={setTyped} onEnter={add} />
    </Box>
  );
}

/** Build, buy, reuse or leave: with the reason, who decided it, and when. */
function DecisionChoice({ candidate: { id, name, decision } }: { readonly candidate: Kept }) {
  const { dispatch } = useVersionStore().getState();
  const member = useVersion((state) => state.info.member);
  const [asked, setAsked] = useState<Decision["what"] | null>(null);
  const options = [
    ["none", words.decisions.none],
    ...decisions.map((one) => [one, words.decisions[one]] as const),
  ] as const;
  return (
    <>
      <chakra.span color="quiet">{words.decision}</chakra.span>
      <Choice
        label={words.decisionOf(name)}
        value={decision?.what ?? "none"}
        options={options}
        onChoose={(what) =>
          what === "none" ? dispatch({ type: "decideCandidate", id, decision: null }) : setAsked(what)
        }
      />
      {asked && (
        <AskDialog
          title={words.whyTitle(words.decisions[asked], name)}
          label={words.why}
          long
          action={words.whyAction}
          onClose={() => setAsked(null)}
          onAnswer={(reason) => {
            const date = new Date().toISOString().slice(0, 10);
            dispatch({ type: "decideCandidate", id, decision: { what: asked, reason, member, date } });
          }}
        />
      )}
    </>
  );
}
