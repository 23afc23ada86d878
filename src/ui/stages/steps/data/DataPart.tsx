"use client";
import { Button, chakra, Flex } from "@chakra-ui/react";
import { useState } from "react";
import { fieldOf, newField, rowsOf, schemaOf } from "@/core/data";
import { dataOfProcess, nameOf, processesOf } from "@/core/model";
import { NewLine } from "../../../controls/trayParts";
import { text } from "../../../messages";
import { newId } from "../../../version/actions";
import { useVersion, useVersionStore } from "../../../version/VersionContext";
import { Parts } from "../Parts";
import { useSheetStore } from "../sheetStore";
import { DataMatrixGrid } from "./DataMatrixGrid";
import { DataRowView } from "./DataRowView";
import { ExampleDialog } from "./ExampleDialog";
import { FromBrief } from "./FromBrief";

const words = text.data;

/** The data of a process as an indented sheet, and below it which step reads and writes what. */
export function DataPart() {
  const model = useVersion((state) => state.model);
  const store = useVersionStore();
  const { dispatch } = store.getState();
  const chosen = useSheetStore((state) => state.process);
  const [typed, setTyped] = useState("");
  const [isAsking, setAsking] = useState(false);
  const processes = processesOf(model);
  const process = processes.find(({ id }) => id === chosen) ?? processes[0];
  if (!process) return <chakra.p p={6}>{words.empty}</chakra.p>;
  const data = dataOfProcess(model, process.id).map((one) => ({
    ...one,
    field:
      one.schema === undefined
        ? { ...newField(one.name), isSaid: false }
        : { ...fieldOf(one.name, JSON.parse(one.schema)), isSaid: true },
  }));
  const add = () => {
    const name = typed.trim();
    if (name === "") return;
    dispatch({
      type: "defineData",
      process: process.id,
      id: newId("data"),
      name,
      schema: JSON.stringify(schemaOf(newField(name))),
    });
    setTyped("");
  };
  return (
    <Flex direction="column" flex="1" minH={0} overflow="auto" px={6} py={3} gap={3}>
      <Flex gap={3} align="center" wrap="wrap">
        <chakra.h1 fontSize="16px" fontWeight="700">
          {words.title(nameOf(model, process.id) || text.stages.steps)}
        </chakra.h1>
        {processes.length > 1 && (
          <chakra.select
            aria-label={words.process}
            value={process.id}
            h="26px"
            bg="paper"
            borderWidth="1px"
            borderColor="line"
            borderRadius="6px"
            onChange={(event) => useSheetStore.getState().set({ process: event.target.value })}
          >
            {processes.map(({ id }) => (
              <option key={id} value={id}>
                {nameOf(model, id) || id}
              </option>
            ))}
          </chakra.select>
        )}
        <chakra.span flex="1" />
        <Button size="xs" variant="outline" onClick={() => setAsking(true)}>
          {words.fromExample}
        </Button>
        <Parts part="data" />
      </Flex>
      <chakra.p color="quiet" maxW="90ch">
        {data.length === 0 ? words.empty : words.explain}
      </chakra.p>
      {data.length > 0 && (
        <chakra.table
          borderCollapse="collapse"
          bg="paper"
          fontSize="13px"
          css={{
            "& th, & td": { border: "1px solid var(--chakra-colors-line)", textAlign: "left", padding: "2px 4px" },
          }}
          data-testid="data-sheet"
        >
          <thead>
            <chakra.tr color="quiet" fontSize="12px">
              {[
                words.name,
                words.kind,
                words.several,
                words.required,
                words.limits,
                words.usual,
                words.description,
              ].map((head) => (
                <chakra.th key={head} fontWeight="400">
                  {head}
                </chakra.th>
              ))}
              <td />
            </chakra.tr>
          </thead>
          <tbody>
            {data.flatMap((datum) =>
              rowsOf(datum.field).map((row) => (
                <DataRowView key={`${datum.id} ${row.path.join("\n")}`} process={process.id} datum={datum} row={row} />
              )),
            )}
          </tbody>
        </chakra.table>
      )}
      <Flex gap={3} align="center" wrap="wrap">
        <chakra.div w="280px">
          <NewLine label={words.add} value={typed} onType={setTyped} onEnter={add} />
        </chakra.div>
        <chakra.span fontSize="12px" color="quiet">
          {words.keys}
        </chakra.span>
      </Flex>
      <FromBrief process={process.id} />
      <DataMatrixGrid model={model} process={process.id} />
      {isAsking && <ExampleDialog process={process.id} onClose={() => setAsking(false)} />}
    </Flex>
  );
}
