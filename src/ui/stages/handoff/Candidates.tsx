"use client";
import { Box, Button, chakra, Flex } from "@chakra-ui/react";
import { useMemo, useState } from "react";
import { type Id, isActivity, type Model, nameOf } from "@/core/model";
import {
  byRules,
  type CaseStyle,
  candidatesOf,
  caseStyles,
  dependenciesOf,
  keptCandidates,
  type NamingRules,
} from "@/core/services";
import { Choice } from "../../controls/fields";
import { EmptyState } from "../../controls/states";
import { text } from "../../messages";
import { useVersionStore } from "../../version/VersionContext";
import { giveSkeleton } from "./giveSkeleton";
import { KeptCandidate } from "./KeptCandidate";

const words = text.handoff.services;
/** How a person would write verbs and words to replace: by commas; a word and what stands for it by an equals sign. */
const listed = (said: string) =>
  said
    .split(",")
    .map((one) => one.trim())
    .filter((one) => one !== "");

/** Services that could be built: those derived from lanes, and those that are kept and worked on, called as IT calls them. */
export function Candidates({ model }: { readonly model: Model }) {
  const [style, setStyle] = useState<CaseStyle>("camelCase");
  const [verbs, setVerbs] = useState("");
  const [replace, setReplace] = useState("");
  const { dispatch } = useVersionStore().getState();
  const rules: NamingRules = {
    style,
    verbs: listed(verbs),
    replace: listed(replace).flatMap((pair) => {
      const [from = "", to = ""] = pair.split("=").map((word) => word.trim());
      return from === "" ? [] : [[from, to] as const];
    }),
  };
  const kept = useMemo(() => keptCandidates(model), [model]);
  const dependencies = useMemo(() => dependenciesOf(model), [model]);
  const derived = useMemo(
    () => candidatesOf(model).filter(({ from }) => !kept.some((one) => one.from === from)),
    [model, kept],
  );
  const renamed = kept
    .flatMap(({ operations }) => operations)
    .flatMap(({ id, name }) => {
      const ruled = byRules(name, rules).name;
      return ruled !== "" && ruled !== name ? [{ id, name: ruled }] : [];
    });
  const field = (label: string, value: string, set: (value: string) => void, hint: string) => (
    <chakra.input
      aria-label={label}
      placeholder={hint}
      value={value}
      onChange={(event) => set(event.target.value)}
      h="26px"
      w="260px"
      px={2}
      bg="paper"
      borderWidth="1px"
      borderColor="line"
      borderRadius="6px"
      fontSize="13px"
    />
  );
  if (kept.length + derived.length === 0) return <EmptyState>{words.noCandidates}</EmptyState>;
  return (
    <Box data-testid="candidates">
      <Flex gap={3} mb={3} align="center" wrap="wrap">
        <Choice
          label={words.style}
          value={style}
          options={caseStyles.map((one) => [one, one] as const)}
          onChoose={setStyle}
        />
        {field(words.verbs, verbs, setVerbs, words.verbsHint)}
        {field(words.replace, replace, setReplace, words.replaceHint)}
        {kept.length > 0 && (
          <Button
            size="xs"
            variant="outline"
            disabled={renamed.length === 0}
            onClick={() => dispatch({ type: "nameCandidates", names: renamed })}
          >
            {renamed.length === 0 ? words.byRuleNone : words.byRule(renamed.length)}
          </Button>
        )}
      </Flex>
      {kept.length === 0 && (
        <chakra.p color="quiet" maxW="72ch" mb={3}>
          {words.noneKept}
        </chakra.p>
      )}
      {kept.map((candidate) => (
        <KeptCandidate
          key={candidate.id}
          model={model}
          candidate={candidate}
          rules={rules}
          dependencies={dependencies.filter(({ from }) => from === candidate.id)}
        />
      ))}
      <Flex as="ul" direction="column" gap={1} listStyleType="none" aria-label={words.derived}>
        {derived.map(({ name, from, operations }) => (
          <Flex as="li" key={from} gap={3} align="center">
            <chakra.span fontWeight="600">{name}</chakra.span>
            <chakra.span color="quiet">{words.activities(operations.length)}</chakra.span>
            <Button
              size="xs"
              variant="outline"
              aria-label={words.keepNamed(name)}
              onClick={() => dispatch({ type: "keepCandidate", of: from })}
            >
              {words.keep}
            </Button>
            <Button
              size="xs"
              variant="ghost"
              aria-label={words.exportNamed(name)}
              onClick={() => giveSkeleton(model, { name, from, operations }, rules)}
            >
              {words.export}
            </Button>
          </Flex>
        ))}
      </Flex>
      <OtherSource model={model} taken={[...kept, ...derived].map(({ from }) => from)} />
    </Box>
  );
}

/** A candidate can come from less than a lane, or from more. */
function OtherSource({ model, taken }: { readonly model: Model; readonly taken: readonly Id[] }) {
  const { dispatch } = useVersionStore().getState();
  const sources = [...model.elements].filter(
    ({ id, type }) => (isActivity(type) || type === "process") && !taken.includes(id) && nameOf(model, id) !== "",
  );
  if (sources.length === 0) return null;
  return (
    <Box mt={3}>
      <Choice
        label={words.keepFrom}
        value=""
        options={[["", words.keepOther], ...sources.map(({ id }) => [id, nameOf(model, id)] as const)]}
        onChoose={(of) => of !== "" && dispatch({ type: "keepCandidate", of })}
      />
    </Box>
  );
}
