"use client";
import { Box, chakra, Flex } from "@chakra-ui/react";
import { useMemo, useState } from "react";
import { readCondition } from "@/core/feel";
import { dataInReach, type Id, type Model } from "@/core/model";
import { NewLine } from "../../controls/trayParts";
import { text } from "../../messages";
import { useWalk } from "./walkStore";

/** What the case is about: values that conditions are decided by. Those that conditions ask for stand here from the start. */
export function DataColumn({ model, process }: { readonly model: Model; readonly process: Id }) {
  const { data, set } = useWalk();
  const [added, setAdded] = useState("");
  const asked = useMemo(() => namesAsked(model), [model]);
  const names = [...new Set([...asked, ...Object.keys(data)])];
  const change = (name: string, value: string) => set({ data: { ...data, [name]: value } });
  return (
    <Box key={process}>
      {names.length === 0 && (
        <chakra.p color="quiet" mb={2}>
          {text.walk.noData}
        </chakra.p>
      )}
      {names.map((name) => (
        <Flex as="label" key={name} gap={2} mb={1.5} align="center">
          <chakra.span flex="1" minW={0} truncate title={name}>
            {name}
          </chakra.span>
          <chakra.input
            value={data[name] ?? ""}
            w="96px"
            h="26px"
            px={2}
            bg="paper"
            borderWidth="1px"
            borderColor="line"
            borderRadius="6px"
            placeholder={text.walk.value}
            _placeholder={{ color: "quiet" }}
            onKeyDown={(event) => event.stopPropagation()}
            onChange={(event) => change(name, event.target.value)}
          />
        </Flex>
      ))}
      <NewLine
        label={text.walk.addData}
        value={added}
        onType={setAdded}
        onEnter={() => {
          if (added.trim()) change(added.trim(), "");
          setAdded("");
        }}
      />
    </Box>
  );
}

function namesAsked(model: Model): string[] {
  const names = new Set<string>();
  for (const element of model.elements) {
    const condition = element.conditionExpression as { readonly text: string } | undefined;
    if (!condition) continue;
    const read = readCondition(condition.text, dataInReach(model, element.id));
    if (read.kind === "executable") for (const name of read.asks) names.add(name);
  }
  return [...names].sort((a, b) => a.localeCompare(b));
}
