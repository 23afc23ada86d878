"use client";
import { chakra, Flex } from "@chakra-ui/react";
import { ArrowDownAZ, ArrowLeft, ArrowRight, ChevronDown, ChevronUp, X } from "lucide-react";
import { useState } from "react";
import { cellProblem, expressionProblem, sheets, type TableSheet, typedTests, typedValue } from "@/core/decisions";
import { Choice, TextField } from "../controls/fields";
import { IconTool } from "../controls/IconTool";
import { text } from "../messages";

const words = text.decisions;

/** The head of a column: what is asked or given, of which type, and which values are allowed. */
export function HeadCell({
  sheet,
  column,
  known,
  put,
}: {
  readonly sheet: TableSheet;
  readonly column: number;
  readonly known: readonly string[];
  readonly put: (label: string, sheet: TableSheet) => boolean;
}) {
  const [isOpen, setOpen] = useState(false);
  const { kind, at } = sheets.placeOf(sheet, column);
  const input = kind === "input" ? sheet.inputs[at] : undefined;
  const output = kind === "output" ? sheet.outputs[at] : undefined;
  const note = kind === "note" ? sheet.notes[at] : undefined;
  const type = input?.type ?? output?.type ?? "";
  const head = (change: Parameters<typeof sheets.withHead>[2]) =>
    put(words.editing.head, sheets.withHead(sheet, column, change));
  const label =
    kind === "input" ? words.inputHead(at + 1) : kind === "output" ? words.outputHead(at + 1) : words.noteHead(at + 1);
  const name = input?.expression ?? output?.name ?? note?.name ?? "";
  const types = Object.entries(words.types) as [string, string][];
  const problem =
    (input && name !== "" ? expressionProblem(name, known) : undefined) ??
    cellProblem(input?.allowed ?? output?.allowed ?? "", known);
  const tools = [
    [words.sort, ArrowDownAZ, () => put(words.editing.sort, sheets.sortedBy(sheet, column))],
    [words.toLeft, ArrowLeft, () => put(words.editing.moveColumn, sheets.withMovedColumn(sheet, column, -1))],
    [words.toRight, ArrowRight, () => put(words.editing.moveColumn, sheets.withMovedColumn(sheet, column, 1))],
    [words.removeColumn, X, () => put(words.editing.removeColumn, sheets.withoutColumn(sheet, column))],
  ] as const;
  const isOnlyOutput = kind === "output" && sheet.outputs.length === 1;
  const about = [
    words.types[type] ?? type,
    sheets.shownCell(input?.allowed ?? output?.allowed ?? "").replace(/^–$/, ""),
  ];
  const said = output ? output.label || output.name : name;
  return (
    <chakra.th
      scope="col"
      px={1}
      py={1}
      minW="120px"
      fontWeight="400"
      bg={kind === "output" ? "sheet" : undefined}
      borderTop={kind === "output" ? "3px solid var(--chakra-colors-ink) !important" : undefined}
      title={problem?.text}
    >
      <Flex direction="column" gap={1}>
        <Flex gap={0.5} css={{ "& input": { fontWeight: 600 } }}>
          <TextField
            label={label}
            placeholder={label}
            value={said}
            onCommit={(next) =>
              input
                ? head({ expression: next.trim() })
                : output && sheet.outputs.length === 1
                  ? head({ label: next.trim() })
                  : head({ name: next.trim(), ...(output && { label: "" }) })
            }
          />
          <chakra.button
            type="button"
            aria-expanded={isOpen}
            aria-label={`${words.columnTools}: ${said || label}`}
            title={words.columnTools}
            w="24px"
            h="26px"
            flexShrink={0}
            display="inline-flex"
            alignItems="center"
            justifyContent="center"
            color="quiet"
            cursor="pointer"
            onClick={() => setOpen(!isOpen)}
          >
            {isOpen ? <ChevronUp size={14} /> : <ChevronDown size={14} />}
          </chakra.button>
        </Flex>
        {!isOpen && kind !== "note" && (
          <chakra.span fontSize="12px" color={problem ? "trouble" : "quiet"} px={1} maxW="220px" truncate>
            {problem ? `! ${problem.text}` : about.filter((one) => one !== "").join(": ")}
          </chakra.span>
        )}
        {isOpen && kind !== "note" && (
          <Flex gap={1}>
            <Choice
              label={`${words.type}: ${said || label}`}
              value={type}
              options={types.some(([one]) => one === type) ? types : [...types, [type, type] as [string, string]]}
              onChoose={(next) => head({ type: next })}
            />
            <TextField
              label={`${words.allowed}: ${said || label}`}
              placeholder={words.allowed}
              value={input?.allowed ?? output?.allowed ?? ""}
              onCommit={(next) => {
                const read = typedTests(next, type, known);
                const allowed = "text" in read ? (read.text === "-" ? "" : read.text) : next.trim();
                head({ allowed: next.trim() === "" ? "" : allowed });
              }}
            />
          </Flex>
        )}
        {isOpen && output && (
          <TextField
            label={`${words.usual}: ${said || label}`}
            placeholder={words.usual}
            value={output.usual}
            onCommit={(next) => {
              const read = typedValue(next, type, known);
              head({ usual: "text" in read ? read.text : next.trim() });
            }}
          />
        )}
        {isOpen && (
          <Flex>
            {tools.map(([tool, Icon, run]) => (
              <IconTool
                key={tool}
                name={tool}
                label={`${tool}: ${said || label}`}
                icon={Icon}
                disabled={tool === words.removeColumn && isOnlyOutput}
                onPress={run}
              />
            ))}
          </Flex>
        )}
      </Flex>
    </chakra.th>
  );
}
