"use client";
import { Button, chakra, Flex } from "@chakra-ui/react";
import { nanoid } from "nanoid";
import { live } from "@/contract";
import type { Model } from "@/core/model";
import { complain } from "../../controls/notices";
import { EmptyState, LoadingPage } from "../../controls/states";
import { timeWords } from "../../controls/units";
import { ask } from "../../kernel/ask";
import { lookAgain, useAsked } from "../../kernel/queries";
import { text } from "../../messages";

const words = text.live;

/** What cannot go on, with the reason; tried again one by one, or all at once. */
export function Incidents(props: {
  readonly at: { readonly version: string; readonly run: string };
  readonly now: number;
  readonly model: Model;
  readonly onOpen: (number: number) => void;
}) {
  const { at, now, onOpen } = props;
  const { data } = useAsked(live.listWaits, { ...at, kinds: ["incident"] }, { keepsLast: true });
  if (!data) return <LoadingPage label={text.shell.loading} />;
  const { waits } = data;
  const retryAll = async () => {
    try {
      for (const { number, wait } of waits) await ask(live.retryIncident, { ...at, number, wait, act: nanoid() });
    } catch (error) {
      complain(error);
    } finally {
      await lookAgain([{ kind: "version", id: at.version }]);
    }
  };
  if (waits.length === 0) return <EmptyState>{words.incidents.empty}</EmptyState>;
  return (
    <Flex direction="column" p={4} gap={3} data-testid="incidents">
      <Button size="xs" variant="outline" alignSelf="start" onClick={() => void retryAll()}>
        {words.incidents.retryAll}
      </Button>
      <chakra.ul listStyleType="none">
        {waits.map(({ number, wait, label, reason, since, tried }) => (
          <chakra.li key={`${number} ${wait}`} py={1} borderTopWidth="1px" borderColor="line">
            <chakra.button type="button" color="accent" cursor="pointer" onClick={() => onOpen(number)}>
              {words.incidents.at(label, number)}
            </chakra.button>{" "}
            <chakra.span color="trouble">{reason}</chakra.span>{" "}
            <chakra.span color="quiet">
              {words.waits.since(timeWords(Math.max(0, now - since) / 1000))}
              {tried > 0 && `, ${words.waits.tried(tried)}`}
            </chakra.span>
          </chakra.li>
        ))}
      </chakra.ul>
    </Flex>
  );
}
