"use client";
import { Button, chakra, Flex } from "@chakra-ui/react";
import { useCallback, useRef, useState } from "react";
import { isFaultyOverlap, modelOf, namesOf, sheets, type TableSheet } from "@/core/decisions";
import { Choice } from "../controls/fields";
import { Segments } from "../controls/Segments";
import { text } from "../messages";
import { useDecisions } from "./decisionStore";
import { HeadCell } from "./HeadCell";
import { RuleRow } from "./RuleRow";
import { rulesKey } from "./rulesKey";
import { useTried } from "./tryStore";
import type { Findings } from "./useFindings";

const words = text.decisions;
const entries = (of: { readonly [key: string]: string }) => Object.entries(of) as [string, string][];

/** Where the keyboard is in the sheet, and whether a cell is being written. */
export interface At {
  readonly rule: number;
  readonly column: number;
  readonly editing: { readonly start: string | null } | null;
  /** The keyboard goes there, wherever it was: a key has ended what was written. */
  readonly takesKeyboard?: boolean;
}

/** The rules of a decision as a sheet: written with the keyboard, cells shown in words or in FEEL, gaps as rules that are missing. */
export function TableView({
  id,
  table,
  findings,
}: {
  readonly id: string;
  readonly table: TableSheet;
  readonly findings: Findings | undefined;
}) {
  const { document, edit } = useDecisions();
  const [at, setAt] = useState<At>({ rule: 0, column: 0, editing: null });
  const [look, setLook] = useState<"words" | "feel">("words");
  const [sought, setSought] = useState("");
  const model = document ? modelOf(document) : undefined;
  const known = useKept(document ? namesOf(document.root) : none);
  const tried = useTried(model ?? emptyModel, model?.decisions.get(id));
  const put = useCallback((label: string, sheet: TableSheet) => edit(label, { type: "table", id, sheet }), [edit, id]);
  const current = useRef(table);
  current.current = table;
  const columns = Array.from({ length: sheets.columnCount(table) }, (_, column) => column);
  const conflicts = new Set(
    findings?.proof?.overlaps
      .filter((one) => isFaultyOverlap(table.hitPolicy, one.conflict))
      .flatMap(({ rules }) => rules),
  );
  const folded = sought.trim().toLowerCase();
  const matching = (rule: TableSheet["rules"][number]) =>
    folded === "" ||
    [...rule.inputs, ...rule.outputs, ...rule.notes].some((cell) => cell.toLowerCase().includes(folded));
  const ghosts = findings?.missing?.rules.slice(0, 6) ?? [];
  const keyed = { sheet: table, put, at, setAt };
  return (
    <Flex direction="column" gap={2} minH="min-content">
      <Flex gap={3} align="center" wrap="wrap">
        <Choice
          label={words.hitPolicy}
          value={table.hitPolicy}
          options={entries(words.policies)}
          onChoose={(hitPolicy) =>
            put(words.editing.policy, {
              ...table,
              hitPolicy: hitPolicy as TableSheet["hitPolicy"],
              aggregator: undefined,
            })
          }
        />
        {table.hitPolicy === "COLLECT" && (
          <Choice
            label={words.aggregator}
            value={table.aggregator ?? ""}
            options={entries(words.aggregators)}
            onChoose={(how) =>
              put(words.editing.policy, {
                ...table,
                aggregator: how === "" ? undefined : (how as TableSheet["aggregator"]),
              })
            }
          />
        )}
        <Segments
          label={words.showAs}
          value={look}
          small
          options={[
            ["words", words.asWords],
            ["feel", words.asFeel],
          ]}
          onChoose={setLook}
        />
        <chakra.input
          aria-label={words.find}
          placeholder={words.find}
          value={sought}
          h="26px"
          w="150px"
          px={2}
          fontSize="13px"
          bg="paper"
          borderWidth="1px"
          borderColor="line"
          borderRadius="6px"
          onChange={(event) => setSought(event.target.value)}
        />
        {folded !== "" && (
          <chakra.span fontSize="12px" color="quiet" role="status">
            {words.found(table.rules.filter(matching).length)}
          </chakra.span>
        )}
        <chakra.span flex="1" />
        {(["input", "output", "note"] as const).map((kind) => (
          <Button
            key={kind}
            size="xs"
            variant="outline"
            onClick={() => put(words.editing.addColumn, sheets.withColumn(table, kind))}
          >
            + {{ input: words.addInputColumn, output: words.addOutputColumn, note: words.addNoteColumn }[kind]}
          </Button>
        ))}
        <Button
          size="xs"
          variant="outline"
          onClick={() => setAt({ rule: table.rules.length, column: 0, editing: { start: null } })}
        >
          + {words.addRule}
        </Button>
      </Flex>
      <chakra.div overflowX="auto">
        <chakra.table
          role="grid"
          aria-label={words.sheet(model?.decisions.get(id)?.name ?? model?.knowledge.get(id)?.name ?? "")}
          borderCollapse="collapse"
          bg="paper"
          fontSize="13px"
          minW="100%"
          css={{
            "& th, & td": { border: "1px solid var(--chakra-colors-line)", textAlign: "left", verticalAlign: "top" },
          }}
          onKeyDown={(event) => rulesKey(event, keyed)}
          onPaste={(event) => {
            if (at.editing) return;
            const lines = linesOf(event.clipboardData.getData("text/plain"));
            if (lines.length === 0) return;
            event.preventDefault();
            put(words.editing.paste, sheets.pastedInto(table, at.rule, at.column, lines, known));
          }}
          onCopy={(event) => {
            if (at.editing) return;
            event.preventDefault();
            event.clipboardData.setData(
              "text/plain",
              columns.map((column) => sheets.cellText(table, at.rule, column)).join("\t"),
            );
          }}
        >
          <thead>
            <tr>
              <chakra.th
                w="44px"
                px={1.5}
                py={1}
                color="quiet"
                fontWeight="400"
                title={words.policyHints[table.hitPolicy]}
              >
                {words.policies[table.hitPolicy]?.[0]}
              </chakra.th>
              {columns.map((column) => (
                <HeadCell key={column} sheet={table} column={column} known={known} put={put} />
              ))}
            </tr>
          </thead>
          <tbody>
            {[...table.rules, undefined].map((rule, row) => (
              <RuleRow
                key={row}
                row={row}
                sheet={table}
                current={current}
                known={known}
                look={look}
                at={at.rule === row ? at : null}
                isSought={rule === undefined || matching(rule)}
                isConflicting={conflicts.has(row + 1)}
                isHidden={findings?.proof?.hidden.includes(row + 1) ?? false}
                tried={tried?.looked.rules[row]}
                isTaken={tried?.decided.rules.includes(row + 1) ?? false}
                setAt={setAt}
                put={put}
              />
            ))}
            {ghosts.map((cells, place) => (
              <chakra.tr
                key={cells.join("\n")}
                color="pencil"
                bg="sheet"
                css={{ "& td": { borderStyle: "dashed", padding: "4px 8px" } }}
                data-testid="missing-rule"
              >
                <td>
                  <chakra.button
                    type="button"
                    aria-label={words.close(1)}
                    title={words.close(1)}
                    color="accent"
                    fontWeight="700"
                    w="24px"
                    h="24px"
                    cursor="pointer"
                    onClick={() =>
                      put(
                        words.editing.close,
                        sheets.withRule(table, table.rules.length, { ...sheets.emptyRule(table), inputs: cells }),
                      )
                    }
                  >
                    +
                  </chakra.button>
                </td>
                {cells.map((cell, column) => (
                  <td key={column}>{look === "words" ? sheets.shownCell(cell) : cell}</td>
                ))}
                <chakra.td colSpan={columns.length - cells.length}>
                  {place === 0 ? words.gaps(findings?.missing?.rules.length ?? 0) : ""}
                </chakra.td>
              </chakra.tr>
            ))}
          </tbody>
        </chakra.table>
      </chakra.div>
      <chakra.p fontSize="12px" color="quiet">
        {words.cellKeys}
      </chakra.p>
    </Flex>
  );
}

const none: readonly string[] = [];

/** The same list as long as it holds the same names, so that what is read by it need not be read again. */
function useKept(names: readonly string[]): readonly string[] {
  const kept = useRef(names);
  const isSame = kept.current.length === names.length && kept.current.every((name, at) => name === names[at]);
  if (!isSame) kept.current = names;
  return kept.current;
}

const emptyModel = { name: "", types: new Map(), inputs: new Map(), decisions: new Map(), knowledge: new Map() };

const linesOf = (pasted: string): string[][] =>
  pasted
    .replace(/\r\n?/g, "\n")
    .replace(/\n+$/, "")
    .split("\n")
    .filter((_, _at, all) => all.length > 1 || all[0] !== "")
    .slice(0, 2_000)
    .map((line) => line.split("\t"));
