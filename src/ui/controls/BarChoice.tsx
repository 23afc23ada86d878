"use client";
import { chakra } from "@chakra-ui/react";

/** One of several, in a bar: as small as its words. */
export function BarChoice(props: {
  readonly label: string;
  readonly value: string;
  readonly options: readonly (readonly [string, string])[];
  readonly onChange: (value: string) => void;
  /** For names that people gave. */
  readonly isWide?: boolean;
}) {
  return (
    <chakra.select
      aria-label={props.label}
      title={props.label}
      value={props.value}
      onChange={(event) => props.onChange(event.target.value)}
      h="26px"
      px={1}
      maxW={props.isWide ? "320px" : "180px"}
      bg="paper"
      borderWidth="1px"
      borderColor="line"
      borderRadius="6px"
      fontSize="13px"
    >
      {props.options.map(([value, name]) => (
        <option key={value} value={value}>
          {name}
        </option>
      ))}
    </chakra.select>
  );
}
