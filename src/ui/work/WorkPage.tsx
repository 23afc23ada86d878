"use client";
import { Button, chakra, Flex } from "@chakra-ui/react";
import { useState } from "react";
import { live } from "@/contract";
import type { WorkItem } from "@/contract/live";
import { Segments } from "../controls/Segments";
import { EmptyState, ErrorPage, LoadingPage } from "../controls/states";
import { useAsked } from "../kernel/queries";
import { text } from "../messages";
import { TopRow } from "../shell/TopRow";
import { DoneToday } from "./DoneToday";
import { MyComments } from "./MyComments";
import { MyReviews } from "./MyReviews";
import { Several } from "./Several";
import { WorkForm } from "./WorkForm";
import { WorkLine } from "./WorkLine";

const words = text.work;
/** Pieces that are listed at first, and at most. */
const shownAtFirst = 100;
const shownAtMost = 500;
const keyOf = ({ run, number, wait }: WorkItem) => `${run} ${number} ${wait}`;

/** What a person has to do, without a diagram: a list, and the form of what is chosen. On a narrow screen one after the other. */
export function WorkPage() {
  const [whose, setWhose] = useState<"all" | "mine" | "open">("all");
  const [count, setCount] = useState(shownAtFirst);
  const { data, error, refetch } = useAsked(live.listWork, { whose, count }, { keepsLast: true });
  const [opened, setOpened] = useState<string>();
  const [chosen, setChosen] = useState<ReadonlySet<string>>(new Set());
  if (error && !data) return <ErrorPage message={error.message} retry={() => void refetch()} />;
  if (!data) return <LoadingPage label={text.shell.loading} />;
  const item = data.items.find((one) => keyOf(one) === opened);
  const several = data.items.filter((one) => chosen.has(keyOf(one)));
  const isShowing = item !== undefined || several.length > 0;
  const choose = (key: string, isChosen: boolean) => {
    const next = new Set(chosen);
    if (isChosen) next.add(key);
    else next.delete(key);
    setChosen(next);
  };
  return (
    <Flex direction="column" h="100%">
      <TopRow
        trail={
          <chakra.h1 color="ink" fontWeight="700">
            {words.title}
          </chakra.h1>
        }
      />
      <Flex as="main" id="content" flex="1" minH={0} direction={{ base: "column", md: "row" }}>
        <Flex
          direction="column"
          w={{ base: "100%", md: "400px" }}
          flex={{ base: several.length > 0 ? "0 1 45%" : "1", md: "none" }}
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
                  isOpen={keyOf(one) === opened && several.length === 0}
                  isChosen={chosen.has(keyOf(one))}
                  onOpen={() => {
                    setChosen(new Set());
                    setOpened(keyOf(one));
                  }}
                  onChoose={(isChosen) => choose(keyOf(one), isChosen)}
                />
              ))}
            </chakra.ul>
          )}
          {data.items.length < data.total && (
            <Button
              size="xs"
              variant="outline"
              alignSelf="flex-start"
              disabled={count >= shownAtMost}
              onClick={() => setCount(Math.min(shownAtMost, count + shownAtFirst))}
            >
              {words.more(data.total)}
            </Button>
          )}
          <MyReviews />
          <MyComments />
          <DoneToday done={data.done} />
        </Flex>
        <Flex
          direction="column"
          flex="1"
          minW={0}
          overflow="auto"
          p={{ base: 4, md: 8 }}
          display={{ base: isShowing ? "flex" : "none", md: "flex" }}
        >
          {several.length > 0 ? (
            <Several items={several} onLetGo={() => setChosen(new Set())} />
          ) : item ? (
            <WorkForm key={keyOf(item)} item={item} onBack={() => setOpened(undefined)} />
          ) : (
            <chakra.p color="quiet">{words.choose}</chakra.p>
          )}
        </Flex>
      </Flex>
    </Flex>
  );
}
