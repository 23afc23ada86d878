"use client";
import { Button, chakra, Flex } from "@chakra-ui/react";
import { itemOf, modelOf, nameIn, questionOf, typeOfItem } from "@/core/decisions";
import { Choice, TextField } from "../controls/fields";
import { PageLink } from "../controls/PageLink";
import { text } from "../messages";
import { useDecisions } from "./decisionStore";

const words = text.decisions;
const simpleTypes = () => Object.entries(words.types) as [string, string][];

/** What the chosen item is: name, question, type; and what it requires. */
export function ItemBar({ id, onGone }: { readonly id: string; readonly onGone: () => void }) {
  const { document, edit, uses } = useDecisions();
  const item = document && itemOf(document.root, id);
  if (!document || !item) return null;
  const model = modelOf(document);
  const local = item.name.replace(/^.*:/, "");
  const name = nameIn(item);
  const type = typeOfItem(item);
  const types = simpleTypes().some(([one]) => one === type)
    ? simpleTypes()
    : [...simpleTypes(), [type, type] as [string, string]];
  const decision = model.decisions.get(id);
  const usedBy = uses.filter((use) => use.how === `decides by ${name}`);
  const needs = decision
    ? [
        ...decision.inputs.map((one) => model.inputs.get(one)?.name ?? one),
        ...decision.decisions.map((one) => model.decisions.get(one)?.name ?? one),
        ...decision.knowledge.map((one) => model.knowledge.get(one)?.name ?? one),
      ]
    : [];
  return (
    <Flex px={6} py={2} gap={3} align="center" wrap="wrap" flexShrink={0} data-testid="item-bar">
      <chakra.span color="quiet" fontSize="12px">
        {words.kinds[local]}
      </chakra.span>
      <chakra.div w="220px">
        <TextField
          label={words.name}
          value={name}
          onCommit={(next) => edit(words.editing.name(next), { type: "rename", id, name: next })}
        />
      </chakra.div>
      {local === "decision" && (
        <chakra.div flex="1 1 240px" minW="160px">
          <TextField
            label={words.question}
            placeholder={words.questionHint}
            value={questionOf(item)}
            onCommit={(next) => edit(words.editing.question, { type: "question", id, text: next.trim() })}
          />
        </chakra.div>
      )}
      {local !== "businessKnowledgeModel" && (
        <Choice
          label={words.type}
          value={type}
          options={types}
          onChoose={(to) => edit(words.editing.type, { type: "retype", id, to })}
        />
      )}
      {decision && (
        <chakra.span fontSize="12px" color="quiet" maxW="280px" truncate title={needs.join(", ")}>
          {words.needs}: {needs.join(", ") || words.noNeeds}
        </chakra.span>
      )}
      {decision && usedBy.length > 0 && (
        <chakra.details fontSize="12px" position="relative">
          <chakra.summary cursor="pointer" color="accent">
            {words.steps(usedBy.length)}
          </chakra.summary>
          <chakra.ul
            aria-label={words.usedBySteps}
            position="absolute"
            right={0}
            zIndex={5}
            bg="paper"
            borderWidth="1px"
            borderColor="line"
            borderRadius="6px"
            p={2}
            w="280px"
            listStyleType="none"
          >
            {usedBy.map((use) => (
              <li key={`${use.version} ${use.element}`}>
                <PageLink
                  href={`/v/${encodeURIComponent(use.version)}/diagram?element=${encodeURIComponent(use.element)}`}
                  color="accent"
                >
                  {use.elementName} ({use.process}, {use.versionName})
                </PageLink>
              </li>
            ))}
          </chakra.ul>
        </chakra.details>
      )}
      <Button
        size="xs"
        variant="outline"
        onClick={() => {
          if (edit(words.editing.remove(name), { type: "remove", id })) onGone();
        }}
      >
        {words.remove}
      </Button>
    </Flex>
  );
}
