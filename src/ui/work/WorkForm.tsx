"use client";
import { Button, chakra, Flex } from "@chakra-ui/react";
import { nanoid } from "nanoid";
import { useState } from "react";
import { live, membership } from "@/contract";
import type { WorkItem } from "@/contract/live";
import { type FormData, formProblems } from "@/core/data";
import { HandTo } from "../controls/HandTo";
import { complain, tell } from "../controls/notices";
import { EmptyState, ErrorPage } from "../controls/states";
import { ask } from "../kernel/ask";
import { lookAgain, useAsked } from "../kernel/queries";
import { text } from "../messages";
import { FormView } from "../version/FormView";
import { DueBy } from "./DueBy";
import { filledIn, useWorkForm } from "./useWorkForm";

const words = text.work;

/** One piece of work: what is to be done, the form with what is known, and what becomes of it. */
export function WorkForm({ item, onBack }: { readonly item: WorkItem; readonly onBack: () => void }) {
  const { version, run, number, wait, element, label } = item;
  const on = { version, run, number, wait };
  const { opened, model, items, error, refetch } = useWorkForm(item);
  const { data: known } = useAsked(membership.listMembers, {});
  const [typed, setTyped] = useState<FormData>();
  const [note, setNote] = useState("");
  const [isTried, setTried] = useState(false);
  const [act] = useState(() => nanoid());
  if (error && !opened) return <ErrorPage message={error.message} retry={() => void refetch()} />;
  if (!opened || !model) return <EmptyState>{text.shell.loading}</EmptyState>;
  const data = typed ?? { ...opened.data, ...opened.draft };
  const values = filledIn(items, data);
  const guidance = (model.elements.get(element)?.documentation ?? []).map((one) => one.text).join("\n\n");
  const doing = async (what: Promise<unknown>, told?: string) => {
    try {
      await what;
      if (told) tell({ description: told });
    } catch (problem) {
      complain(problem);
    } finally {
      await lookAgain([{ kind: "version", id: version }, { kind: "workspace" }]);
    }
  };
  const complete = () => {
    setTried(true);
    if (formProblems(items, data).size > 0) return;
    void doing(ask(live.completeWork, { ...on, act, values, note }), words.completed(label));
  };
  const isMine = item.member !== null && item.member === known?.me;
  return (
    <Flex direction="column" gap={4} maxW="560px" w="100%" data-testid="work-form">
      <chakra.button type="button" color="accent" textAlign="start" hideFrom="md" cursor="pointer" onClick={onBack}>
        {words.back}
      </chakra.button>
      <div>
        <chakra.h2 fontSize="20px" fontWeight="700">
          {label}
        </chakra.h2>
        <chakra.p color="quiet">{words.case(item.process, number)}</chakra.p>
      </div>
      {guidance && (
        <chakra.details>
          <chakra.summary cursor="pointer">{words.guidance}</chakra.summary>
          <chakra.p whiteSpace="pre-line" mt={1}>
            {guidance}
          </chakra.p>
        </chakra.details>
      )}
      <Flex gap={2} wrap="wrap" align="center">
        {isMine ? (
          <Button
            size="xs"
            variant="outline"
            onClick={() => void doing(ask(live.assignWork, { ...on, act: nanoid(), to: null }))}
          >
            {words.giveBack}
          </Button>
        ) : (
          <Button
            size="xs"
            variant="outline"
            onClick={() => void doing(ask(live.assignWork, { ...on, act: nanoid(), to: known?.me ?? null }))}
          >
            {words.take}
          </Button>
        )}
        <HandTo
          members={known?.members ?? []}
          me={known?.me ?? ""}
          onHand={(to) => void doing(ask(live.assignWork, { ...on, act: nanoid(), to }))}
        />
      </Flex>
      <DueBy
        key={item.dueBy}
        item={item}
        onSet={(dueBy) => void doing(ask(live.setDue, { ...on, act: nanoid(), dueBy }), words.dueSet(label))}
      />
      {items.length > 0 ? (
        <FormView items={items} data={data} onChange={setTyped} showsAll={isTried} />
      ) : (
        <chakra.p color="quiet">{words.noForm}</chakra.p>
      )}
      <chakra.label display="flex" flexDirection="column" gap={1} fontSize="13px">
        {words.note}
        <chakra.input
          value={note}
          h="32px"
          px={2}
          bg="paper"
          borderWidth="1px"
          borderColor="line"
          borderRadius="6px"
          onChange={(event) => setNote(event.target.value)}
        />
      </chakra.label>
      {isTried && formProblems(items, data).size > 0 && (
        <chakra.p role="alert" color="trouble">
          {words.notFilledIn}
        </chakra.p>
      )}
      <Flex gap={3}>
        <Button bg="accent" color="onAccent" onClick={complete}>
          {words.complete}
        </Button>
        {items.length > 0 && (
          <Button
            variant="outline"
            onClick={() => void doing(ask(live.saveWork, { ...on, act: nanoid(), values }), words.kept)}
          >
            {words.keep}
          </Button>
        )}
      </Flex>
    </Flex>
  );
}
