"use client";
import { chakra, Flex } from "@chakra-ui/react";
import { useState } from "react";
import { live } from "@/contract";
import type { WorkItem } from "@/contract/live";
import { Segments } from "../controls/Segments";
import { EmptyState, ErrorPage, LoadingPage } from "../controls/states";
import { timeWords } from "../controls/units";
import { useAsked } from "../kernel/queries";
import { text } from "../messages";
import { TopRow } from "../shell/TopRow";
import { WorkForm } from "./WorkForm";

const words = text.work;
const keyOf = ({ run, number, wait }: WorkItem) => `${run} ${number} ${wait}`;

/** What a person has to do, without a diagram: a list, and the form of what is chosen. On a narrow screen one after the other. */
export function WorkPage() {
  const [whose, setWhose] = useState<"all" | "mine" | "open">("all");
  const { data, error, refetch } = useAsked(live.listWork, { whose }, { keepsLast: true });
  const [chosen, setChosen] = useState<string>();
  if (error && !data) return <ErrorPage message={error.message} retry={() => void refetch()} />;
  if (!data) return <LoadingPage label={text.shell.loading} />;
  const item = data.items.find((one) => keyOf(one) === chosen);
  return (
    <Flex direction="column" h="100%">
      <TopRow
        trail={
          <chakra.h1 color="ink" fontWeight="700">
            {words.title}
          </chakra.h1>
        }
      />
      <Flex as="main" id="content" flex="1" minH={0}>
        <Flex
          direction="column"
          w={{ base: "100%", md: "400px" }}
          flexShrink={0}
          overflow="auto"
          borderRightWidth={{ md: "1px" }}
          borderColor="line"
          p={4}
          gap={3}
          display={{ base: item ? "none" : "flex", md: "flex" }}
        >
          <Segments
            label={words.whose}
            value={whose}
            options={[
              ["all", words.all],
              ["mine", words.mine],
              ["open", words.open],
            ]}
            onChoose={setWhose}
          />
          {data.items.length === 0 ? (
            <EmptyState>{words.empty}</EmptyState>
          ) : (
            <chakra.ul listStyleType="none" data-testid="worklist">
              {data.items.map((one) => (
                <WorkLine
                  key={keyOf(one)}
                  item={one}
                  isChosen={keyOf(one) === chosen}
                  onChoose={() => setChosen(keyOf(one))}
                />
              ))}
            </chakra.ul>
          )}
          <chakra.p color="quiet" fontSize="12px" data-testid="done-today">
            {words.done(data.doneToday)}
          </chakra.p>
        </Flex>
        <Flex
          direction="column"
          flex="1"
          minW={0}
          overflow="auto"
          p={{ base: 4, md: 8 }}
          display={{ base: item ? "flex" : "none", md: "flex" }}
        >
          {item ? (
            <WorkForm key={keyOf(item)} item={item} onBack={() => setChosen(undefined)} />
          ) : (
            <chakra.p color="quiet">{words.choose}</chakra.p>
          )}
        </Flex>
      </Flex>
    </Flex>
  );
}

function WorkLine(props: { readonly item: WorkItem; readonly isChosen: boolean; readonly onChoose: () => void }) {
  const { item, isChosen, onChoose } = props;
  const { label, process, number, since, now, roleName, memberName } = item;
  const about = [
    words.case(process, number),
    words.waits(timeWords(Math.max(0, now - since) / 1000)),
    memberName ? words.with(memberName) : roleName && words.role(roleName),
  ];
  return (
    <chakra.li borderTopWidth="1px" borderColor="line">
      <chakra.button
        type="button"
        aria-current={isChosen || undefined}
        display="block"
        w="100%"
        textAlign="start"
        py={2}
        px={2}
        borderRadius="6px"
        cursor="pointer"
        bg={isChosen ? "accentSoft" : undefined}
        _hover={{ bg: "accentSoft" }}
        onClick={onChoose}
      >
        <chakra.span display="block" fontWeight="600">
          {label}
        </chakra.span>
        <chakra.span display="block" color="quiet" fontSize="12px">
          {about.filter(Boolean).join(" · ")}
        </chakra.span>
      </chakra.button>
    </chakra.li>
  );
}
