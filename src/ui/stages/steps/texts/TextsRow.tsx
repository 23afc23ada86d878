"use client";
import { chakra } from "@chakra-ui/react";
import { type KeyboardEvent, memo } from "react";
import { describing, type TextRow } from "@/core/capture";
import { useTyped } from "../../../controls/useTyped";
import { text } from "../../../messages";
import { useVersionStore } from "../../../version/VersionContext";

const words = text.texts;

/** One thing with its own words, and the fields for those of the language. */
export const TextsRow = memo(function TextsRow({
  row,
  language,
}: {
  readonly row: TextRow;
  readonly language: string;
}) {
  const { dispatch } = useVersionStore().getState();
  const { element, kind, own, told, isRich } = row;
  const called = own.name || kind;
  return (
    <chakra.tr verticalAlign="top" data-testid="text-row">
      <chakra.td color="quiet" whiteSpace="nowrap">
        {kind}
      </chakra.td>
      <td>{own.name}</td>
      <td>
        {own.name !== "" && (
          <Cell
            column="name"
            label={words.nameOf(called, language)}
            value={told.name}
            lines={1}
            onCommit={(name) => dispatch({ type: "nameIn", id: element, language, name })}
          />
        )}
      </td>
      <chakra.td whiteSpace="pre-line" color="quiet" maxW="260px">
        {own.description}
      </chakra.td>
      <td>
        {own.description === "" ? null : isRich ? (
          <chakra.span color="quiet">{told.description || words.rich}</chakra.span>
        ) : (
          <Cell
            column="description"
            label={words.descriptionOf(called, language)}
            value={told.description}
            lines={Math.min(4, own.description.split("\n").length + 1)}
            onCommit={(said) => dispatch(describing(element, language, said))}
          />
        )}
      </td>
    </chakra.tr>
  );
});

/** A field that is kept when one leaves it; Enter goes on to the same column of the next row, Escape takes the typing back. */
function Cell(props: {
  readonly column: "name" | "description";
  readonly label: string;
  readonly value: string;
  readonly lines: number;
  readonly onCommit: (value: string) => void;
}) {
  const { column, label, value, lines, onCommit } = props;
  const { typed, type, settle } = useTyped(value);
  const commit = () => {
    settle();
    if (typed.trim() !== value) onCommit(typed.trim());
  };
  const onKeyDown = (event: KeyboardEvent<HTMLTextAreaElement>) => {
    event.stopPropagation();
    if (event.key === "Escape") settle(value);
    if (event.key !== "Enter" || event.shiftKey) return;
    event.preventDefault();
    const cells = [...document.querySelectorAll<HTMLTextAreaElement>(`[data-text-cell="${column}"]`)];
    const next = cells[cells.indexOf(event.currentTarget) + (event.ctrlKey ? -1 : 1)];
    if (next) next.focus();
    else event.currentTarget.blur();
  };
  return (
    <chakra.textarea
      aria-label={label}
      data-text-cell={column}
      rows={lines}
      value={typed}
      resize="vertical"
      w="100%"
      minW="180px"
      px={1.5}
      py={0.5}
      bg={typed.trim() === "" ? "sheet" : "paper"}
      borderWidth="1px"
      borderColor="line"
      borderRadius="4px"
      fontSize="13px"
      onChange={(event) => type(event.target.value)}
      onBlur={commit}
      onKeyDown={onKeyDown}
    />
  );
}
