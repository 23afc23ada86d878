"use client";
import { Button, chakra } from "@chakra-ui/react";
import type { ReactNode } from "react";
import { text } from "../../messages";

const frame = {
  h: "28px",
  bg: "paper",
  color: "ink",
  borderWidth: "1px",
  borderColor: "line",
  borderRadius: "6px",
} as const;

/** One of several, in a sentence that asks something of the forecast. */
export function AskSelect(props: {
  readonly label: string;
  readonly value: string;
  readonly onChange: (value: string) => void;
  readonly children: ReactNode;
}) {
  const { label, value, onChange, children } = props;
  return (
    <chakra.select
      {...frame}
      aria-label={label}
      value={value}
      maxW="230px"
      onChange={(event) => onChange(event.target.value)}
    >
      {children}
    </chakra.select>
  );
}

/** A number or a time in such a sentence. */
export function AskField(props: {
  readonly label: string;
  readonly value: string;
  readonly width?: string;
  readonly onChange: (value: string) => void;
}) {
  const { label, value, width = "84px", onChange } = props;
  return (
    <chakra.input
      {...frame}
      aria-label={label}
      value={value}
      w={width}
      px={2}
      onChange={(event) => onChange(event.target.value)}
    />
  );
}

/** While it runs: how far it is, and a way to stop it. */
export function UnderWay({ share, onStop }: { readonly share: number; readonly onStop: () => void }) {
  return (
    <>
      <span role="status">{text.forecast.staff.searching(Math.round(share * 100))}</span>
      <Button size="sm" h="28px" variant="outline" bg="paper" borderColor="line" onClick={onStop}>
        {text.forecast.stop}
      </Button>
    </>
  );
}
