"use client";
import { chakra } from "@chakra-ui/react";
import { useTyped } from "../controls/useTyped";
import { text } from "../messages";

/** A number from zero, or nothing; what is no number is marked and not kept. */
export function NumberField({
  label,
  value,
  most,
  onCommit,
}: {
  readonly label: string;
  readonly value: number | null;
  readonly most: number;
  readonly onCommit: (value: number | null) => void;
}) {
  const shown = value === null ? "" : String(value);
  const { typed, type, settle } = useTyped(shown);
  const number = typed.trim() === "" ? null : Number(typed.trim().replace(",", "."));
  const isGood = number === null || (Number.isFinite(number) && number >= 0 && number <= most);
  const commit = () => {
    if (!isGood) return;
    settle();
    if (number !== value) onCommit(number);
  };
  return (
    <>
      <chakra.input
        aria-label={label}
        aria-invalid={!isGood}
        inputMode="decimal"
        value={typed}
        w="100%"
        h="26px"
        px={2}
        fontSize="13px"
        bg="paper"
        borderWidth="1px"
        borderColor={isGood ? "line" : "trouble"}
        borderRadius="6px"
        onChange={(event) => type(event.target.value)}
        onBlur={commit}
        onKeyDown={(event) => {
          if (event.key === "Enter") commit();
          if (event.key === "Escape") settle(shown);
        }}
      />
      {!isGood && (
        <chakra.span role="alert" color="trouble" fontSize="12px">
          {text.directory.noNumber(most)}
        </chakra.span>
      )}
    </>
  );
}
