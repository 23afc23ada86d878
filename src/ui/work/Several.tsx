"use client";
import { Button, chakra, Flex } from "@chakra-ui/react";
import { nanoid } from "nanoid";
import { useRef, useState } from "react";
import { live, membership } from "@/contract";
import type { WorkItem } from "@/contract/live";
import { type FormData, formProblems } from "@/core/data";
import { HandTo } from "../controls/HandTo";
import { tell } from "../controls/notices";
import { EmptyState, ErrorPage } from "../controls/states";
import { ask } from "../kernel/ask";
import { lookAgain, useAsked } from "../kernel/queries";
import { wordsOf } from "../kernel/wordsOf";
import { text } from "../messages";
import { FormView } from "../version/FormView";
import { filledIn, useWorkForm } from "./useWorkForm";

const words = text.work;
const placeOf = ({ version, run, number, wait }: WorkItem) => ({ version, run, number, wait });

/**
 * Does something to several pieces of work, one after the other. Each is an act of its own: what cannot be done with one does not keep
 * the others from it, and is told at the end.
 */
function useEach(items: readonly WorkItem[]) {
  const [done, setDone] = useState<number>();
  // Asked once more after an answer was lost, each is done once.
  const acts = useRef(new Map<string, string>());
  const each = async (name: string, what: (item: WorkItem, act: string) => Promise<unknown>) => {
    const failed: string[] = [];
    for (const [at, item] of items.entries()) {
      setDone(at);
      const key = `${name} ${item.run} ${item.number} ${item.wait}`;
      const act = acts.current.get(key) ?? nanoid();
      acts.current.set(key, act);
      await what(item, act).catch((error) => failed.push(wordsOf(error)));
    }
    setDone(undefined);
    await lookAgain([{ kind: "workspace" }]);
    if (failed.length > 0) tell({ type: "error", description: words.severalNot(failed.length, failed[0] ?? "") });
    return items.length - failed.length;
  };
  return { done, each };
}

/** What can be done to several pieces of work at once: taken on, given back, handed over; and done, where they are the same step. */
export function Several({ items, onLetGo }: { readonly items: readonly WorkItem[]; readonly onLetGo: () => void }) {
  const { data: known } = useAsked(membership.listMembers, {});
  const { done, each } = useEach(items);
  const assign = (to: string | null) =>
    void each(`to ${to}`, (item, act) => ask(live.assignWork, { ...placeOf(item), act, to }));
  const [first] = items;
  const isOneStep = items.every(({ run, element }) => run === first?.run && element === first?.element);
  return (
    <Flex direction="column" gap={4} maxW="560px" w="100%" data-testid="several">
      <Flex gap={2} wrap="wrap" align="center">
        <chakra.span fontWeight="700" role="status">
          {done === undefined ? words.several(items.length) : words.severalUnder(done, items.length)}
        </chakra.span>
        <Button size="xs" variant="outline" disabled={done !== undefined} onClick={() => assign(known?.me ?? null)}>
          {words.take}
        </Button>
        <Button size="xs" variant="outline" disabled={done !== undefined} onClick={() => assign(null)}>
          {words.giveBack}
        </Button>
        <HandTo members={known?.members ?? []} me={known?.me ?? ""} onHand={assign} />
        <Button size="xs" variant="outline" onClick={onLetGo}>
          {words.letGo}
        </Button>
      </Flex>
      {first && isOneStep ? (
        <OneStep key={`${first.run} ${first.element}`} items={items} />
      ) : (
        <chakra.p color="quiet">{words.sameStep}</chakra.p>
      )}
    </Flex>
  );
}

/** Several pieces of the same step are done at once, by one form. */
function OneStep({ items: pieces }: { readonly items: readonly WorkItem[] }) {
  const [first] = pieces as readonly [WorkItem, ...WorkItem[]];
  const { opened, model, items, error, refetch } = useWorkForm(first);
  const { done, each } = useEach(pieces);
  const [data, setData] = useState<FormData>({});
  const [isTried, setTried] = useState(false);
  if (error && !opened) return <ErrorPage message={error.message} retry={() => void refetch()} />;
  if (!opened || !model) return <EmptyState>{text.shell.loading}</EmptyState>;
  // What is only shown differs from case to case: it is not shown for all.
  const asked = items.filter(({ item, field }) => field && !item.isReadOnly);
  const complete = async () => {
    setTried(true);
    if (formProblems(asked, data).size > 0) return;
    const values = filledIn(asked, data);
    const count = await each("done", (item, act) =>
      ask(live.completeWork, { ...placeOf(item), act, values, note: "" }),
    );
    if (count > 0) tell({ description: words.severalDone(count) });
  };
  return (
    <Flex direction="column" gap={4}>
      <div>
        <chakra.h2 fontSize="20px" fontWeight="700">
          {words.severalTitle(first.label, pieces.length)}
        </chakra.h2>
        <chakra.p color="quiet">{asked.length > 0 ? words.severalExplain : words.noForm}</chakra.p>
      </div>
      {asked.length > 0 && <FormView items={asked} data={data} onChange={setData} showsAll={isTried} />}
      {isTried && formProblems(asked, data).size > 0 && (
        <chakra.p role="alert" color="trouble">
          {words.notFilledIn}
        </chakra.p>
      )}
      <Button
        alignSelf="flex-start"
        bg="accent"
        color="onAccent"
        disabled={done !== undefined}
        onClick={() => void complete()}
      >
        {done === undefined ? words.doSeveral(pieces.length) : words.severalUnder(done, pieces.length)}
      </Button>
    </Flex>
  );
}
