"use client";
import { Button, chakra, Flex } from "@chakra-ui/react";
import { useEffect } from "react";
import { text, worded } from "../../messages";
import type { TriedRepair } from "./useRepair";

/** Above the drawing while it shows a repair: what it is, what the check would then say, and whether to make it. */
export function RepairBar(props: {
  readonly tried: TriedRepair;
  readonly onApply: () => void;
  readonly onClose: () => void;
}) {
  const { tried, onApply, onClose } = props;
  const { finding, model, found, gone, added, isInVain } = tried;
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => event.key === "Escape" && onClose();
    window.addEventListener("keydown", onKey);
    return () => window.removeEventListener("keydown", onKey);
  }, [onClose]);
  return (
    <Flex
      as="section"
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
      <chakra.span>{finding.repair && worded(finding.repair.label)}</chakra.span>
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
      <Button size="xs" bg="accent" color="onAccent" disabled={!model} onClick={onApply}>
        {text.check.apply}
      </Button>
    </Flex>
  );
}
