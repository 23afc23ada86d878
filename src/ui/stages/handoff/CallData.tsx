"use client";
import { Box, chakra, Flex } from "@chakra-ui/react";
import { useId, useState } from "react";
import { documentsOf } from "@/core/directory";
import { type Element, type Model, nameOf } from "@/core/model";
import { mappingOf } from "@/core/services";
import { TextField } from "../../controls/fields";
import { text } from "../../messages";
import { useVersionStore } from "../../version/VersionContext";

const words = text.handoff.services;

/** What goes into a call and comes out of it, field by field: a document of the step where the names are the same, else what one says. */
export function CallData({ model, step }: { readonly model: Model; readonly step: Element }) {
  const [isOpen, setOpen] = useState(false);
  const list = useId();
  const { dispatch } = useVersionStore().getState();
  const fields = mappingOf(model, step);
  if (fields.length === 0) return null;
  const known = fields.filter(({ is }) => is !== undefined).length;
  const isMissing = fields.some(
    ({ direction, isRequired, is }) => direction === "in" && isRequired && is === undefined,
  );
  const name = nameOf(model, step.id) || step.id;
  return (
    <Box mt={1}>
      <chakra.button
        type="button"
        color={isMissing ? "attention" : "quiet"}
        fontSize="12px"
        minH="24px"
        cursor="pointer"
        aria-expanded={isOpen}
        aria-label={words.dataOf(name, known, fields.length)}
        onClick={() => setOpen(!isOpen)}
      >
        {words.data(known, fields.length)}
      </chakra.button>
      {isOpen && (
        <>
          {fields.map(({ direction, name: field, type, isRequired, is, isSaid }) => (
            <Flex key={`${direction} ${field}`} gap={2} align="center" mb={1}>
              <chakra.span w="28px" color="quiet" fontSize="12px">
                {words.directions[direction]}
              </chakra.span>
              <chakra.code w="150px" overflowWrap="anywhere">
                {field}
              </chakra.code>
              <Box w="170px" fontWeight={isSaid ? "600" : "400"}>
                <TextField
                  label={words.whatIs(field, name)}
                  value={is ?? ""}
                  list={list}
                  placeholder={isRequired ? words.required : ""}
                  onCommit={(typed) =>
                    dispatch({ type: "mapField", id: step.id, direction, field, is: typed.trim() || null })
                  }
                />
              </Box>
              <chakra.span color="quiet" fontSize="12px">
                {type}
              </chakra.span>
            </Flex>
          ))}
          <datalist id={list}>
            {documentsOf(model, step.id).map((document) => (
              <option key={document.association} value={document.name} />
            ))}
          </datalist>
        </>
      )}
    </Box>
  );
}
