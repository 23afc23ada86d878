"use client";
import { chakra } from "@chakra-ui/react";
import { useId, useRef, useState } from "react";
import { sheets } from "@/core/decisions";
import type { At } from "./TableView";

interface RuleCellProps {
  readonly row: number;
  readonly column: number;
  readonly kind: "input" | "output" | "note";
  readonly head: string;
  readonly words: string;
  readonly look: "words" | "feel";
  /** Allowed values of the column, offered while one writes. */
  readonly options: string;
  readonly problem: string | undefined;
  readonly isHere: boolean;
  readonly isFirst: boolean;
  readonly editing: At["editing"];
  /** What it makes of the value that is tried. */
  readonly takes: boolean | null | undefined;
  readonly setAt: (at: At) => void;
  readonly onWrite: (typed: string, then: "down" | "right" | "left" | "back" | "stay") => void;
}

/** One cell of a rule: shown in words or in FEEL, written in either. */
export function RuleCell(props: RuleCellProps) {
  const { row, column, kind, head, words, look, problem, isHere, isFirst, editing, takes, setAt } = props;
  const shown = words === "" ? "" : look === "words" && !problem ? sheets.shownCell(words, kind) : words;
  return (
    <chakra.td
      role="gridcell"
      tabIndex={isHere || isFirst ? 0 : -1}
      data-rule={row}
      data-column={column}
      aria-invalid={problem ? true : undefined}
      aria-label={`${head}: ${shown || "…"}${problem ? `. ${problem}` : ""}`}
      title={problem ?? (shown === words ? undefined : words)}
      p={editing ? 0 : "5px 8px"}
      minW="88px"
      maxW="320px"
      cursor="cell"
      bg={kind === "output" ? "sheet" : undefined}
      color={takes === false ? "pencil" : undefined}
      textDecoration={takes === false ? "underline dotted" : undefined}
      fontStyle={kind === "note" ? "italic" : undefined}
      borderBottom={problem ? "2px solid var(--chakra-colors-trouble) !important" : undefined}
      onClick={(event) => {
        if (!editing) {
          setAt({ rule: row, column, editing: null });
          event.currentTarget.focus();
        }
      }}
      onDoubleClick={() => setAt({ rule: row, column, editing: { start: null } })}
      onFocus={(event) => {
        if (!editing && event.target === event.currentTarget && !isHere) setAt({ rule: row, column, editing: null });
      }}
    >
      {editing ? <Writing {...props} start={editing.start} /> : shown}
      {problem && !editing && (
        <chakra.span color="trouble" fontWeight="700" aria-hidden="true">
          {" !"}
        </chakra.span>
      )}
    </chakra.td>
  );
}

function Writing({
  words,
  look,
  kind,
  head,
  options,
  start,
  onWrite,
}: RuleCellProps & { readonly start: string | null }) {
  const list = useId();
  const before = look === "words" ? (words === "-" ? "" : sheets.shownCell(words, kind)) : words;
  const [typed, setTyped] = useState(start ?? before);
  // What is taken off the page loses the keyboard, too: that is no second ending.
  const isDone = useRef(false);
  const write = (then: Parameters<RuleCellProps["onWrite"]>[1]) => {
    if (isDone.current) return;
    isDone.current = true;
    onWrite(typed === before ? words : typed, then);
  };
  return (
    <>
      <chakra.input
        aria-label={head}
        autoFocus
        list={options === "" ? undefined : list}
        value={typed}
        w="100%"
        minW="120px"
        h="28px"
        px={2}
        bg="paper"
        outline="2px solid var(--chakra-colors-accent)"
        onChange={(event) => setTyped(event.target.value)}
        onBlur={() => write("stay")}
        onKeyDown={(event) => {
          event.stopPropagation();
          if (event.key === "Enter") {
            event.preventDefault();
            write("down");
          } else if (event.key === "Tab") {
            event.preventDefault();
            write(event.shiftKey ? "left" : "right");
          } else if (event.key === "Escape") {
            isDone.current = true;
            onWrite(words, "back");
          }
        }}
      />
      {options !== "" && (
        <datalist id={list}>
          {options.split(",").map((one) => (
            <option key={one} value={one.trim().replace(/^"(.*)"$/, "$1")} />
          ))}
        </datalist>
      )}
    </>
  );
}
