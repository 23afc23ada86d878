"use client";
import { chakra } from "@chakra-ui/react";
import { useTyped } from "./useTyped";

interface TextFieldProps {
  readonly label: string;
  readonly value: string;
  readonly onCommit: (value: string) => void;
  readonly lines?: number;
  readonly placeholder?: string;
  /** The id of a list of what may be typed. */
  readonly list?: string;
  /** Told of every letter, for what goes along with the typing. */
  readonly onType?: (value: string) => void;
}

/** A field that is kept when one leaves it or presses Enter; Escape takes the typing back. */
export function TextField({ label, value, onCommit, lines, placeholder, list, onType }: TextFieldProps) {
  const { typed, type, settle } = useTyped(value);
  const setTyped = (next: string) => {
    type(next);
    onType?.(next);
  };
  const takeBack = () => {
    settle(value);
    onType?.(value);
  };
  const commit = () => {
    settle();
    if (typed !== value) onCommit(typed);
  };
  const shared = {
    "aria-label": label,
    value: typed,
    placeholder,
    onBlur: commit,
    w: "100%",
    bg: "paper",
    borderWidth: "1px",
    borderColor: "line",
    borderRadius: "6px",
    px: 2,
    fontSize: "13px",
    _placeholder: { color: "quiet" },
  } as const;
  if (lines) {
    return (
      <chakra.textarea
        {...shared}
        rows={lines}
        py={1}
        resize="vertical"
        onChange={(event) => setTyped(event.target.value)}
        onKeyDown={(event) => {
          event.stopPropagation();
          if (event.key === "Escape") takeBack();
        }}
      />
    );
  }
  return (
    <chakra.input
      {...shared}
      list={list}
      h="26px"
      onChange={(event) => setTyped(event.target.value)}
      onKeyDown={(event) => {
        event.stopPropagation();
        if (event.key === "Enter") commit();
        if (event.key === "Escape") takeBack();
      }}
    />
  );
}

interface ChoiceProps<Value extends string> {
  readonly label: string;
  readonly value: Value;
  readonly options: readonly (readonly [value: Value, words: string])[];
  readonly onChoose: (value: Value) => void;
}

export function Choice<Value extends string>({ label, value, options, onChoose }: ChoiceProps<Value>) {
  return (
    <chakra.select
      aria-label={label}
      value={value}
      onChange={(event) => onChoose(event.target.value as Value)}
      h="26px"
      maxW="100%"
      px={1}
      bg="paper"
      color="ink"
      borderWidth="1px"
      borderColor="line"
      borderRadius="6px"
      fontSize="13px"
    >
      {options.map(([option, words]) => (
        <option key={option} value={option}>
          {words}
        </option>
      ))}
    </chakra.select>
  );
}
