"use client";
import { Button } from "@chakra-ui/react";
import { useEffect, useRef } from "react";
import { FootTools } from "../controls/Foot";
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

/** Shows all of a page that is looked at. */
export function FitButton({ onFit, hasKey }: { readonly onFit: () => void; readonly hasKey: boolean }) {
  return (
    <FootTools>
      <Button
        size="xs"
        variant="outline"
        bg="paper"
        borderColor="line"
        onClick={(event) => {
          // What is in the foot still belongs to the page, which takes a click for a choice.
          event.stopPropagation();
          onFit();
        }}
      >
        {text.diagram.fit} {hasKey && <Keycap>0</Keycap>}
      </Button>
    </FootTools>
  );
}
