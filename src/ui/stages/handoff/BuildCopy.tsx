"use client";
import { Box, Button, chakra, Flex } from "@chakra-ui/react";
import { ArrowDown, ArrowUp, ArrowUpDown, Check, Circle, CircleX, FileQuestion } from "lucide-react";
import { type ReactNode, useState } from "react";
import type { BuildCopyRow } from "@/contract/handoff";
import type { BuildState, SyncChange } from "@/core/handoff";
import type { Decision } from "@/core/merge";
import { DialogFrame } from "../../controls/DialogFrame";
import { momentWords } from "../../controls/moment";
import { PageLink } from "../../controls/PageLink";
import { text } from "../../messages";
import { ConflictChoice } from "../../version/ConflictChoice";
import { useVersion } from "../../version/VersionContext";

const words = text.handoff.builds;

export type BuildDecisions = { [conflict: string]: Decision };

export interface BuildActs {
  readonly send: () => void;
  readonly takeOver: (take: "all" | string[], decisions: BuildDecisions) => void;
  readonly askDeveloper: () => void;
  readonly untie: () => void;
  readonly look: () => void;
}

const signs: { readonly [state in BuildState]: readonly [typeof Check, string] } = {
  "in step": [Check, "good"],
  "model changed": [ArrowUp, "attention"],
  "build copy changed": [ArrowDown, "attention"],
  "both changed": [ArrowUpDown, "trouble"],
  "not sent yet": [Circle, "quiet"],
  gone: [FileQuestion, "trouble"],
  "cannot be read": [CircleX, "trouble"],
};

/** One developers' file: its state in a sign and words, what either side would get, and what was done so far. */
export function BuildCopy(props: {
  readonly row: BuildCopyRow;
  readonly isDemo: boolean;
  readonly isBusy: boolean;
  /** Whether no error is open, so that it may be sent. */
  readonly mayLeave: boolean;
  readonly acts: BuildActs;
}) {
  const { row, isDemo, isBusy, mayLeave, acts } = props;
  const version = useVersion((state) => state.info.version.id);
  const [decisions, setDecisions] = useState<BuildDecisions>({});
  const [isOpen, setOpen] = useState(false);
  const [isUntying, setUntying] = useState(false);
  const [Sign, color] = signs[row.state];
  const open = row.conflicts.filter(({ key }) => decisions[key] === undefined).length;
  const maySend = row.state === "model changed" || row.state === "not sent yet" || row.state === "gone";
  const mayTake = row.state === "build copy changed" || row.state === "both changed";
  return (
    <Box
      as="section"
      aria-label={row.path}
      bg="paper"
      borderWidth="1px"
      borderColor="line"
      borderRadius="6px"
      px={4}
      py={3}
      data-testid="build-copy"
    >
      <Flex gap={4} align="flex-start">
        <Box flex="1" minW={0}>
          <Flex align="center" gap={2} color={color}>
            <Sign size={16} aria-hidden />
            <chakra.span fontWeight="700" data-testid="build-state">
              {words.states[row.state]}
            </chakra.span>
          </Flex>
          <chakra.p overflowWrap="anywhere">
            {row.path}
            <chakra.span color="quiet"> {words.where(isDemo ? null : row.place, row.branch)}</chakra.span>
          </chakra.p>
          <chakra.p color="quiet" fontSize="13px">
            {row.last
              ? words.last(momentWords(row.last.at), row.last.member, row.last.mark.slice(0, 10), row.last.revision)
              : words.never}
          </chakra.p>
          {row.problem && (
            <chakra.p color="trouble" role="alert">
              {row.problem}
            </chakra.p>
          )}
        </Box>
        <Flex gap={2} wrap="wrap" justify="flex-end">
          {maySend && (
            <Button size="sm" bg="accent" color="onAccent" disabled={!mayLeave} loading={isBusy} onClick={acts.send}>
              {words.send}
            </Button>
          )}
          {mayTake && (
            <Button
              size="sm"
              bg="accent"
              color="onAccent"
              disabled={open > 0}
              loading={isBusy}
              onClick={() => acts.takeOver("all", decisions)}
            >
              {words.takeAll}
            </Button>
          )}
          <Button size="sm" variant="outline" disabled={isBusy} onClick={acts.look}>
            {words.look}
          </Button>
          {isDemo && row.state !== "not sent yet" && (
            <Button size="sm" variant="outline" disabled={isBusy} onClick={acts.askDeveloper}>
              {words.askDeveloper}
            </Button>
          )}
          <Button size="sm" variant="ghost" disabled={isBusy} onClick={() => setUntying(true)}>
            {words.untie}
          </Button>
        </Flex>
      </Flex>
      {isUntying && (
        <DialogFrame
          title={words.untie}
          width="460px"
          isAlert
          onClose={() => setUntying(false)}
          footer={
            <>
              <Button variant="ghost" onClick={() => setUntying(false)}>
                {text.dialog.cancel}
              </Button>
              <Button
                bg="accent"
                color="onAccent"
                onClick={() => {
                  setUntying(false);
                  acts.untie();
                }}
              >
                {words.untie}
              </Button>
            </>
          }
        >
          <chakra.p>{words.untieAsk(row.path)}</chakra.p>
        </DialogFrame>
      )}
      {row.conflicts.length > 0 && (
        <Part title={words.conflicts}>
          {row.conflicts.map((conflict) => (
            <li key={conflict.key}>
              <ConflictChoice
                conflict={conflict}
                sides={words.sides}
                decision={decisions[conflict.key]}
                onDecide={(side) => setDecisions({ ...decisions, [conflict.key]: side })}
              />
            </li>
          ))}
        </Part>
      )}
      {mayTake && (
        <Part title={words.brings}>
          <chakra.li listStyleType="none">
            <PageLink
              href={`/v/${encodeURIComponent(version)}/compare?from=${encodeURIComponent(version)}&to=${encodeURIComponent(`${version}~${row.id}`)}`}
            >
              <chakra.span color="accent" _hover={{ textDecoration: "underline" }}>
                {words.sideBySide}
              </chakra.span>
            </PageLink>
          </chakra.li>
          {row.brings.length === 0 && <chakra.li color="quiet">{words.onlyUnseen}</chakra.li>}
          {row.brings.map((change) => (
            <ChangeLine key={change.key} change={change}>
              <Button
                size="xs"
                variant="outline"
                disabled={isBusy}
                aria-label={words.takeOne(change.words)}
                onClick={() => acts.takeOver([change.key], decisions)}
              >
                {words.take}
              </Button>
            </ChangeLine>
          ))}
        </Part>
      )}
      {(row.state === "model changed" || row.state === "both changed") && (
        <Part title={words.sends}>
          {row.sends.length === 0 && <chakra.li color="quiet">{words.onlyUnseen}</chakra.li>}
          {row.sends.map((change) => (
            <ChangeLine key={change.key} change={change} />
          ))}
        </Part>
      )}
      {row.isRewritten && <chakra.p color="attention">{words.rewritten}</chakra.p>}
      <chakra.button
        type="button"
        color="accent"
        fontSize="13px"
        mt={2}
        minH="24px"
        cursor="pointer"
        aria-expanded={isOpen}
        onClick={() => setOpen(!isOpen)}
      >
        {words.steps(row.steps.length)}
      </chakra.button>
      {isOpen && (
        <chakra.ol fontSize="13px" listStyleType="none" mt={1}>
          {[...row.steps].reverse().map((step) => (
            <chakra.li key={`${step.at} ${step.what}`} py="2px">
              {words.step(momentWords(step.at), step.member, step.what, step.mark?.slice(0, 10) ?? "")}
              {step.changes.length > 0 && <chakra.span color="quiet"> {step.changes.join("; ")}</chakra.span>}
            </chakra.li>
          ))}
        </chakra.ol>
      )}
    </Box>
  );
}

function Part({ title, children }: { readonly title: string; readonly children: ReactNode }) {
  return (
    <Box mt={3} borderTopWidth="1px" borderColor="line" pt={2}>
      <chakra.h3 fontWeight="700" fontSize="13px" mb={1}>
        {title}
      </chakra.h3>
      <chakra.ul listStyleType="none" maxH="260px" overflow="auto">
        {children}
      </chakra.ul>
    </Box>
  );
}

function ChangeLine({ change, children }: { readonly change: SyncChange; readonly children?: ReactNode }) {
  return (
    <chakra.li display="flex" alignItems="center" gap={3} minH="28px">
      <chakra.span flex="1" overflowWrap="anywhere">
        {change.words}
      </chakra.span>
      {children}
    </chakra.li>
  );
}
