"use client";
import { Button, chakra, Flex } from "@chakra-ui/react";
import { useMemo } from "react";
import { brief } from "@/contract";
import { documentsIn, type ToldDocument } from "@/core/brief";
import { kindByName, newField, recordSchema } from "@/core/data";
import { dataOfProcess, type Id, wordsOf } from "@/core/model";
import { useAsked } from "../../../kernel/queries";
import { text } from "../../../messages";
import { newId } from "../../../version/actions";
import { useVersion, useVersionStore } from "../../../version/VersionContext";

const words = text.data;

/** Documents that the description speaks of and that are no data yet: one press makes a record of one, tied to its words. */
export function FromBrief({ process }: { readonly process: Id }) {
  const model = useVersion((state) => state.model);
  const record = useVersion((state) => state.info.process.id);
  const { dispatch } = useVersionStore().getState();
  const { data } = useAsked(brief.openBrief, { process: record });
  const content = data?.brief?.content;
  const told = useMemo(() => (content ? documentsIn(content.document) : []), [content]);
  const known = useMemo(() => {
    const data = dataOfProcess(model, process);
    const elements = data.flatMap(({ id, references, schema }) =>
      schema === undefined ? [] : [id, ...references].flatMap((one) => model.elements.get(one) ?? []),
    );
    return { marks: new Set(elements.flatMap(wordsOf)), data };
  }, [model, process]);
  const open = told.filter(
    ({ name, marks }) =>
      !marks.some((mark) => known.marks.has(mark)) &&
      !known.data.some((one) => one.schema !== undefined && one.name.toLowerCase() === name.toLowerCase()),
  );
  if (open.length === 0) return null;
  const make = ({ name, marks, parts, sentence }: ToldDocument) => {
    const drawn = known.data.find((one) => one.name.toLowerCase() === name.toLowerCase());
    const id = drawn?.id ?? newId("data");
    const schema = JSON.stringify({
      ...recordSchema(parts.map((part) => ({ ...newField(part, kindByName(part)), isRequired: false }))),
      description: sentence,
    });
    dispatch(
      { type: "defineData", process, id, name: drawn?.name ?? name, schema },
      { type: "linkWords", id, marks: [...marks] },
    );
  };
  return (
    <Flex gap={2} align="center" wrap="wrap" role="group" aria-label={words.fromBrief}>
      <chakra.span fontSize="12px" color="quiet">
        {words.fromBrief}
      </chakra.span>
      {open.map((one) => (
        <Button
          key={one.name}
          size="xs"
          variant="outline"
          title={one.sentence}
          aria-label={words.makeOf(one.name, one.parts.length)}
          onClick={() => make(one)}
        >
          {one.name}
          {one.parts.length > 0 && <chakra.span color="quiet">{words.partsOf(one.parts.length)}</chakra.span>}
        </Button>
      ))}
    </Flex>
  );
}
