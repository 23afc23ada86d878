"use client";
import { Button, chakra, Flex } from "@chakra-ui/react";
import { useEffect, useRef } from "react";
import { text, worded } from "../../messages";
import type { TriedRepair } from "./useRepair";

/** Above the drawing while it shows a repair: what it is, what the check would then say, and whether to make it. */
export function RepairBar(props: {
  readonly tried: TriedRepair;
  /** Of several repairs, another one is to be shown. */
  readonly onPick: (which: number) => void;
  readonly onApply: () => void;
  readonly onClose: () => void;
}) {
  const { tried, onPick, onApply, onClose } = props;
  const { finding, repair, model, found, gone, added, isInVain } = tried;
  const repairs = finding.repairs ?? [];
  const bar = useRef<HTMLDivElement>(null);
  // Whoever works with the keyboard goes on here: first the ways to choose from, else the repair itself.
  useEffect(() => {
    const first = bar.current?.querySelector<HTMLElement>("[aria-pressed=true]");
    (first ?? bar.current?.querySelector<HTMLElement>("[data-apply]"))?.focus();
  }, []);
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => event.key === "Escape" && onClose();
    window.addEventListener("keydown", onKey);
    return () => window.removeEventListener("keydown", onKey);
  }, [onClose]);
  return (
    <Flex
      as="section"
      ref={bar}
      aria-label={text.check.asItWouldBe}
      px={6}
      py={1.5}
      gap={3}
      align="center"
      bg="accentSoft"
      borderBottomWidth="1px"
      borderColor="accent"
      flexShrink={0}
    >
      <chakra.span fontWeight="700" flexShrink={0}>
        {text.check.asItWouldBe}
      </chakra.span>
      {repairs.length === 1 ? (
        <span>{worded(repair.label)}</span>
      ) : (
        <Flex role="group" aria-label={text.check.whichRepair} gap={1.5} wrap="wrap" maxW="50%">
          {repairs.map((one, at) => (
            <Button
              key={one.label.text}
              size="xs"
              h="auto"
              minH="26px"
              variant="outline"
              bg={one === repair ? "paper" : undefined}
              borderColor={one === repair ? "accent" : "line"}
              fontWeight={one === repair ? 700 : 400}
              aria-pressed={one === repair}
              onClick={() => onPick(at)}
            >
              {worded(one.label)}
            </Button>
          ))}
        </Flex>
      )}
      <chakra.span flex="1" minW={0} role="status">
        <span data-testid="repair-effect">
          {!model
            ? text.check.cannotRepair
            : found === null
              ? text.check.looking
              : isInVain
                ? text.check.helpsNot
                : text.check.helps(gone, added.length)}
        </span>
        {added.length > 0 && <chakra.span color="trouble"> {added[0]?.message}</chakra.span>}
      </chakra.span>
      <Button size="xs" variant="ghost" onClick={onClose}>
        {text.check.leave}
      </Button>
      <Button size="xs" bg="accent" color="onAccent" disabled={!model} onClick={onApply} data-apply="">
        {text.check.apply}
      </Button>
    </Flex>
  );
}
