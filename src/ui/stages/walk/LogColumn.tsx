"use client";
import { Box, Button, chakra, Flex } from "@chakra-ui/react";
import { Download } from "lucide-react";
import { useEffect, useRef, useState } from "react";
import { type Id, nameOf } from "@/core/model";
import { writeTable } from "@/core/table";
import { modelsOf, type WalkStep } from "@/core/tokens";
import { giveFile } from "../../kernel/ask";
import { text, typeWord } from "../../messages";
import type { Standing } from "./useStanding";

interface Line {
  readonly step: number;
  readonly element: Id;
  readonly name: string;
  /** The process it happened in, which may be one that was called. */
  readonly process: string;
  readonly event: WalkStep["event"];
  readonly times: number;
  readonly key: number;
  /** What a decision came to, and by which rules; why it came to nothing. */
  readonly decided: string;
  readonly isDecided: boolean;
}

/** What happened, step by step; filtered by words, and taken away as a file. */
export function LogColumn({ standing }: { readonly standing: Standing }) {
  const [typed, setTyped] = useState("");
  const end = useRef<HTMLDivElement>(null);
  const lines = linesOf(standing);
  const shown = lines.filter((line) =>
    `${line.name} ${text.walk.events[line.event]}`.toLowerCase().includes(typed.toLowerCase()),
  );
  const count = lines.length;
  useEffect(() => {
    if (count > 0) end.current?.scrollIntoView({ block: "nearest" });
  }, [count]);
  return (
    <Flex direction="column" h="100%" minH={0}>
      <Flex gap={2} mb={1.5}>
        <chakra.input
          aria-label={text.walk.filterLog}
          placeholder={text.walk.filterLog}
          value={typed}
          onChange={(event) => setTyped(event.target.value)}
          onKeyDown={(event) => event.stopPropagation()}
          flex="1"
          minW={0}
          h="26px"
          px={2}
          bg="paper"
          borderWidth="1px"
          borderColor="line"
          borderRadius="6px"
          _placeholder={{ color: "quiet" }}
        />
        <Button
          size="xs"
          variant="outline"
          bg="paper"
          borderColor="line"
          disabled={lines.length === 0}
          onClick={() => saveLog(lines)}
        >
          <Download size={13} /> {text.walk.saveLog}
        </Button>
      </Flex>
      <Box flex="1" minH={0} overflow="auto" data-testid="walk-log">
        {lines.length === 0 && <chakra.p color="quiet">{text.walk.noLog}</chakra.p>}
        <chakra.table w="100%" fontSize="13px" css={{ "& td": { paddingBlock: "1px", verticalAlign: "top" } }}>
          <tbody>
            {shown.map((line) => (
              <tr key={line.key}>
                <chakra.td color="quiet" textAlign="end" pe={2} w="30px">
                  {line.step}
                </chakra.td>
                <td>
                  {line.name}
                  {line.decided && (
                    <chakra.span color={line.isDecided ? "quiet" : "trouble"}> → {line.decided}</chakra.span>
                  )}
                </td>
                <chakra.td color="quiet" ps={2} whiteSpace="nowrap">
                  {text.walk.events[line.event]}
                </chakra.td>
                <chakra.td color="quiet" ps={2} textAlign="end" whiteSpace="nowrap">
                  {line.event === "left" ? "" : text.walk.time(line.times)}
                </chakra.td>
              </tr>
            ))}
          </tbody>
        </chakra.table>
        <div ref={end} />
      </Box>
    </Flex>
  );
}

/** What happened, by name; also in a called process that is over by now. */
function linesOf({ now, world, taken }: Standing): Line[] {
  const models = modelsOf(world);
  const times = new Map<Id, number>();
  return now.log.map((line, key) => {
    if (line.event !== "left") times.set(line.element, (times.get(line.element) ?? 0) + 1);
    const has = models.filter((one) => one.elements.has(line.element));
    const model = has.find((one) => one.elements.has(line.process)) ?? has[0] ?? world.model;
    const name = nameOf(model, line.element) || typeWord(model.elements.get(line.element)?.type ?? "") || line.element;
    const process = nameOf(model, line.process) || line.process;
    const decision = taken.find(({ step, element }) => step === line.step && element === line.element)?.decided;
    const isDecided = decision?.problems.length === 0;
    const decided = !decision ? "" : isDecided ? text.walk.decided(decision) : decision.problems.join(" ");
    return { ...line, name, process, times: times.get(line.element) ?? 1, key, decided, isDecided };
  });
}

function saveLog(lines: readonly Line[]): void {
  const rows = lines.map(({ step, process, element, name, event, times, decided }) => [
    String(step),
    process,
    element,
    name,
    event,
    String(times),
    decided,
  ]);
  const csv = writeTable([["step", "process", "element", "name", "event", "times", "decided"], ...rows]);
  giveFile(new Blob([csv], { type: "text/csv" }), "walk.csv");
}
