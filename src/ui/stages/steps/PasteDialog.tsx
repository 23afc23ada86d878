"use client";
import { Box, Button, chakra, Dialog, Flex, Portal } from "@chakra-ui/react";
import { useState } from "react";
import { type ColumnMap, type ColumnMeaning, columnMeanings, listOf, recogniseHeadings } from "@/core/capture";
import type { TableRows } from "@/core/table";
import { closedOnPurpose } from "../../controls/dialogs";
import { text } from "../../messages";

interface PasteDialogProps {
  readonly rows: TableRows;
  readonly onInsert: (rows: TableRows, map: ColumnMap) => void;
  readonly onClose: () => void;
}

const offered = columnMeanings.filter((meaning) => !["number", "level", "kind"].includes(meaning));

/** Asks what the columns of pasted rows mean, showing the first of them. */
export function PasteDialog({ rows, onInsert, onClose }: PasteDialogProps) {
  const [recognised] = useState(() => recogniseHeadings(rows));
  const [hasHeadings, setHasHeadings] = useState(recognised.hasHeadings);
  const [map, setMap] = useState<ColumnMap>(
    recognised.map.step === undefined ? { ...recognised.map, step: 0 } : recognised.map,
  );
  const body = hasHeadings ? rows.slice(1) : rows;
  const width = Math.max(...rows.map((row) => row.length));
  const steps = listOf(body, map).length;
  const meaningOf = (column: number) => offered.find((meaning) => map[meaning] === column) ?? "";
  const choose = (column: number, meaning: ColumnMeaning | "") => {
    const kept = Object.entries(map).filter(([other, at]) => at !== column && other !== meaning);
    setMap(Object.fromEntries(meaning === "" ? kept : [...kept, [meaning, column]]));
  };
  return (
    <Dialog.Root {...closedOnPurpose} open onOpenChange={({ open }) => !open && onClose()} size="xl">
      <Portal>
        <Dialog.Backdrop />
        <Dialog.Positioner>
          <Dialog.Content bg="paper" color="ink" maxW="1040px">
            <Dialog.Header>
              <Dialog.Title>{text.steps.pasteTitle}</Dialog.Title>
            </Dialog.Header>
            <Dialog.Body>
              <chakra.p mb={3}>{text.steps.pasteExplain}</chakra.p>
              <Box overflowX="auto" borderWidth="1px" borderColor="line" borderRadius="6px">
                <chakra.table w="100%" fontSize="13px">
                  <thead>
                    <tr>
                      {Array.from({ length: width }, (_, column) => (
                        <chakra.th key={column} p={2} textAlign="left" borderBottomWidth="1px" borderColor="ink">
                          <chakra.select
                            aria-label={`${text.steps.column(column + 1)} ${hasHeadings ? (rows[0]?.[column] ?? "") : ""}`}
                            value={meaningOf(column)}
                            h="28px"
                            borderWidth="1px"
                            borderColor="line"
                            borderRadius="6px"
                            bg="paper"
                            px={1}
                            onChange={(event) => choose(column, event.target.value as ColumnMeaning | "")}
                          >
                            <option value="">{text.steps.pasteLeftOut}</option>
                            {offered.map((meaning) => (
                              <option key={meaning} value={meaning}>
                                {text.steps.meanings[meaning]}
                              </option>
                            ))}
                          </chakra.select>
                        </chakra.th>
                      ))}
                    </tr>
                  </thead>
                  <tbody>
                    {rows.slice(0, 7).map((row, at) => (
                      <tr key={at}>
                        {Array.from({ length: width }, (_, column) => (
                          <chakra.td
                            key={column}
                            p={2}
                            maxW="220px"
                            truncate
                            borderBottomWidth="1px"
                            borderColor="line"
                            fontWeight={hasHeadings && at === 0 ? "600" : "400"}
                            color={meaningOf(column) ? "ink" : "quiet"}
                          >
                            {row[column] ?? ""}
                          </chakra.td>
                        ))}
                      </tr>
                    ))}
                  </tbody>
                </chakra.table>
              </Box>
              <chakra.label display="flex" gap={2} mt={3} alignItems="center">
                <input
                  type="checkbox"
                  checked={hasHeadings}
                  onChange={(event) => setHasHeadings(event.target.checked)}
                />
                {text.steps.pasteHeadings}
              </chakra.label>
            </Dialog.Body>
            <Dialog.Footer>
              <Flex gap={2}>
                <Button variant="outline" borderColor="line" onClick={onClose}>
                  {text.dialog.cancel}
                </Button>
                <Button bg="accent" color="onAccent" disabled={steps === 0} onClick={() => onInsert(body, map)}>
                  {text.steps.pasteInsert(steps)}
                </Button>
              </Flex>
            </Dialog.Footer>
          </Dialog.Content>
        </Dialog.Positioner>
      </Portal>
    </Dialog.Root>
  );
}
