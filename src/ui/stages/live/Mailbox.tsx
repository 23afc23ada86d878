"use client";
import { chakra, Flex } from "@chakra-ui/react";
import { live } from "@/contract";
import { EmptyState, LoadingPage } from "../../controls/states";
import { timeWords } from "../../controls/units";
import { useAsked } from "../../kernel/queries";
import { text } from "../../messages";

const words = text.live;

/** What outside parties would send: messages and signals that cases wait for. */
export function Mailbox(props: {
  readonly at: { readonly version: string; readonly run: string };
  readonly now: number;
  readonly onOpen: (number: number) => void;
}) {
  const { at, now, onOpen } = props;
  const { data } = useAsked(live.listWaits, { ...at, kinds: ["message", "signal"] }, { keepsLast: true });
  if (!data) return <LoadingPage label={text.shell.loading} />;
  const { waits } = data;
  if (waits.length === 0) return <EmptyState>{words.mailbox.empty}</EmptyState>;
  return (
    <Flex direction="column" p={4} gap={3} data-testid="mailbox">
      <chakra.p color="quiet">{words.mailbox.explain}</chakra.p>
      <chakra.ul listStyleType="none">
        {waits.map(({ number, wait, label, since }) => (
          <chakra.li key={`${number} ${wait}`} py={1} borderTopWidth="1px" borderColor="line">
            <chakra.button type="button" color="accent" cursor="pointer" onClick={() => onOpen(number)}>
              {words.incidents.at(label, number)}
            </chakra.button>{" "}
            <chakra.span color="quiet">{words.waits.since(timeWords(Math.max(0, now - since) / 1000))}</chakra.span>
          </chakra.li>
        ))}
      </chakra.ul>
    </Flex>
  );
}
