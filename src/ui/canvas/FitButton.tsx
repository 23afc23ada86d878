"use client";
import { Button } from "@chakra-ui/react";
import { useEffect, useRef } from "react";
import { Keycap } from "../controls/Keycap";
import { text } from "../messages";

/** The key 0 shows all of a page that is looked at. */
export function useFitKey(onFit: () => void, isOn = true): void {
  const latest = useRef(onFit);
  latest.current = onFit;
  useEffect(() => {
    if (!isOn) return;
    const onKey = (event: KeyboardEvent) => {
      if (
        event.key !== "0" ||
        event.ctrlKey ||
        (event.target as HTMLElement).closest("input, textarea, select, [role=dialog]")
      )
        return;
      latest.current();
    };
    window.addEventListener("keydown", onKey);
    return () => window.removeEventListener("keydown", onKey);
  }, [isOn]);
}

/** Shows all of a page that is looked at, in its corner; the click is for the page alone and chooses nothing on it. */
export function FitButton({ onFit, hasKey }: { readonly onFit: () => void; readonly hasKey: boolean }) {
  return (
    <Button
      position="absolute"
      right="14px"
      bottom="10px"
      size="xs"
      variant="outline"
      bg="paper"
      borderColor="line"
      onClick={(event) => {
        event.stopPropagation();
        onFit();
      }}
    >
      {text.diagram.fit} {hasKey && <Keycap>0</Keycap>}
    </Button>
  );
}
