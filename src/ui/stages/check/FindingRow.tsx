"use client";
import { Box, Button, chakra, Flex } from "@chakra-ui/react";
import { type Finding, keyOf, type Repair, type Waiver } from "@/core/check";
import { text, worded } from "../../messages";
import { CommentOn } from "../../version/comments/CommentOn";
import { aboutOf } from "../../version/comments/store";
import { SeveritySign } from "./SeveritySign";

interface FindingRowProps {
  readonly finding: Finding;
  readonly names: string;
  readonly waiver: Waiver | undefined;
  /** Whether it is the one that is shown on the drawing. */
  readonly isChosen: boolean;
  readonly onChoose: () => void;
  readonly onShow: () => void;
  readonly onRun: () => void;
  readonly onPreview: () => void;
  readonly onRepair: (repair: Repair) => void;
  readonly onAccept: () => void;
  readonly onWithdraw: () => void;
}

const colours = { error: "trouble", warning: "attention", advice: "quiet" } as const;

/** One finding: what, where, why, and what can be done about it. */
export function FindingRow({ finding, names, waiver, isChosen, ...on }: FindingRowProps) {
  const repairs = finding.repairs ?? [];
  // One is made at once; of several a person chooses, and sees each before it is made.
  const only = repairs.length === 1 ? repairs[0] : undefined;
  const more = only ? [] : repairs;
  return (
    <Flex
      as="li"
      gap={3}
      py={2.5}
      borderBottomWidth="1px"
      borderColor="line"
      align="flex-start"
      opacity={waiver ? 0.85 : 1}
      px={2}
      mx={-2}
      bg={isChosen ? "accentSoft" : undefined}
      data-rule={finding.rule}
      data-chosen={isChosen ? "" : undefined}
    >
      <Flex w="92px" gap={2} align="center" flexShrink={0} color={colours[finding.severity]}>
        <SeveritySign severity={finding.severity} />
        {text.check.one[finding.severity]}
      </Flex>
      <Box w="190px" flexShrink={0}>
        <chakra.button
          type="button"
          onClick={on.onShow}
          color="accent"
          textAlign="start"
          cursor="pointer"
          minH="24px"
          _hover={{ textDecoration: "underline" }}
          aria-label={`${text.check.show}: ${names}`}
        >
          {names || text.check.show}
        </chakra.button>
      </Box>
      <Box flex="1" maxW="78ch">
        <chakra.button
          type="button"
          textAlign="start"
          cursor="pointer"
          aria-pressed={isChosen}
          title={text.check.lookAt}
          onClick={on.onChoose}
          // With the keyboard one looks at what one comes to.
          onFocus={on.onChoose}
        >
          {worded(finding.said)}
        </chakra.button>
        {waiver && (
          <chakra.p color="quiet" mt={1}>
            {text.check.accepted}: {waiver.reason} ({waiver.member}, {waiver.at.slice(0, 10)})
          </chakra.p>
        )}
      </Box>
      <Flex gap={2} flexShrink={0} w={{ base: "230px", xl: "360px" }} justify="flex-end" wrap="wrap">
        {finding.witness && <Act onClick={on.onRun}>{text.check.showRun}</Act>}
        {only && <Act onClick={on.onPreview}>{text.check.preview}</Act>}
        {only && (
          <Act onClick={() => on.onRepair(only)} isMain>
            {worded(only.label)}
          </Act>
        )}
        {more.length > 0 && (
          <Act onClick={on.onPreview} isMain>
            {text.check.chooseRepair(more.length)}
          </Act>
        )}
        <CommentOn about={aboutOf("finding", keyOf(finding), worded(finding.said))} />
        {waiver ? (
          <Button size="xs" variant="ghost" onClick={on.onWithdraw}>
            {text.check.withdraw}
          </Button>
        ) : (
          <Button size="xs" variant="ghost" color="quiet" onClick={on.onAccept}>
            {text.check.accept}
          </Button>
        )}
      </Flex>
    </Flex>
  );
}

function Act(props: { readonly children: string; readonly onClick: () => void; readonly isMain?: boolean }) {
  return (
    <Button
      size="xs"
      variant="outline"
      borderColor={props.isMain ? "accent" : "line"}
      color={props.isMain ? "accent" : "ink"}
      bg="paper"
      h="auto"
      minH="26px"
      py={1}
      whiteSpace="normal"
      textAlign="start"
      onClick={props.onClick}
    >
      {props.children}
    </Button>
  );
}
