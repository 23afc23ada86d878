"use client";
import { chakra } from "@chakra-ui/react";
import { type KeyboardEvent, useMemo, useRef, useState } from "react";
import { type DataUse, dataMatrix } from "@/core/data";
import { type Id, type Model, nameOf } from "@/core/model";
import { text, typeWord } from "../../../messages";
import { useVersionStore } from "../../../version/VersionContext";

const words = text.data;
const round: readonly DataUse[] = ["none", "reads", "creates", "changes"];
const letters: { readonly [key: string]: DataUse } = {
  r: "reads",
  c: "creates",
  m: "changes",
  delete: "none",
  backspace: "none",
};

/** Steps by data: which step creates, reads or changes what, said with a letter. */
export function DataMatrixGrid({ model, process }: { readonly model: Model; readonly process: Id }) {
  const { dispatch } = useVersionStore().getState();
  const matrix = useMemo(() => dataMatrix(model, process), [model, process]);
  const [at, setAt] = useState({ row: 0, column: 0 });
  const grid = useRef<HTMLTableElement>(null);
  if (matrix.data.length === 0 || matrix.steps.length === 0) return null;
  const set = (step: Id, data: Id, use: DataUse) => dispatch({ type: "setDataUse", step, data, use });
  const go = (row: number, column: number) => {
    const next = {
      row: Math.max(0, Math.min(matrix.steps.length - 1, row)),
      column: Math.max(0, Math.min(matrix.data.length - 1, column)),
    };
    setAt(next);
    grid.current?.querySelector<HTMLElement>(`[data-cell="${next.row} ${next.column}"]`)?.focus();
  };
  const onKey = (event: KeyboardEvent, step: Id, data: Id, use: DataUse) => {
    const moves: { readonly [key: string]: readonly [number, number] } = {
      ArrowUp: [-1, 0],
      ArrowDown: [1, 0],
      ArrowLeft: [0, -1],
      ArrowRight: [0, 1],
    };
    const move = moves[event.key];
    const letter = letters[event.key.toLowerCase()];
    if (event.ctrlKey || event.metaKey || event.altKey) return;
    if (move) go(at.row + move[0], at.column + move[1]);
    else if (letter) set(step, data, letter);
    else if (event.key === " " || event.key === "Enter")
      set(step, data, round[(round.indexOf(use) + 1) % round.length] as DataUse);
    else return;
    event.preventDefault();
    event.stopPropagation();
  };
  return (
    <chakra.section aria-label={words.matrix}>
      <chakra.h2 fontSize="14px" fontWeight="700" mb={1}>
        {words.matrix}
      </chakra.h2>
      <chakra.p color="quiet" fontSize="12px" mb={2}>
        {words.matrixHint}
      </chakra.p>
      <chakra.div overflowX="auto">
        <chakra.table
          ref={grid}
          role="grid"
          aria-label={words.matrix}
          borderCollapse="collapse"
          bg="paper"
          fontSize="13px"
          css={{
            "& th, & td": { border: "1px solid var(--chakra-colors-line)", padding: "3px 8px", textAlign: "left" },
          }}
        >
          <thead>
            <tr>
              <td />
              {matrix.data.map(({ id, name }) => (
                <chakra.th key={id} scope="col" fontWeight="600">
                  {name}
                </chakra.th>
              ))}
            </tr>
          </thead>
          <tbody>
            {matrix.steps.map((step, row) => {
              const name = nameOf(model, step.id) || typeWord(step.type);
              return (
                <tr key={step.id}>
                  <chakra.th scope="row" fontWeight="400">
                    {name}
                  </chakra.th>
                  {matrix.data.map((data, column) => {
                    const use = matrix.useOf(step.id, data.id);
                    return (
                      <chakra.td
                        key={data.id}
                        role="gridcell"
                        tabIndex={at.row === row && at.column === column ? 0 : -1}
                        data-cell={`${row} ${column}`}
                        aria-label={words.useOf(name, data.name, words.uses[use])}
                        textAlign="center !important"
                        fontWeight="700"
                        cursor="pointer"
                        minW="44px"
                        h="26px"
                        onFocus={() => setAt({ row, column })}
                        onClick={() => set(step.id, data.id, round[(round.indexOf(use) + 1) % round.length] as DataUse)}
                        onKeyDown={(event) => onKey(event, step.id, data.id, use)}
                      >
                        {words.useSigns[use]}
                      </chakra.td>
                    );
                  })}
                </tr>
              );
            })}
          </tbody>
        </chakra.table>
      </chakra.div>
    </chakra.section>
  );
}
