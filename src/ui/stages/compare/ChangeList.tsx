"use client";
import { Box, Button, chakra, Flex } from "@chakra-ui/react";
import { Download } from "lucide-react";
import { useEffect, useMemo, useRef } from "react";
import type { ReasonRow } from "@/contract/compare";
import {
  type ChangeGroup,
  type ChangeState,
  changesAsCsv,
  changesAsMarkdown,
  movedShapes,
  type Reason,
  type Report,
} from "@/core/compare";
import { nameOf } from "@/core/model";
import { Keycap } from "../../controls/Keycap";
import { Segments } from "../../controls/Segments";
import { EmptyState } from "../../controls/states";
import { giveFile } from "../../kernel/ask";
import { text, typeWord } from "../../messages";
import { useCompare } from "./compareStore";
import { FormerReasons } from "./FormerReasons";
import type { Compared, GiveReason } from "./useComparison";
import { Words } from "./Words";

interface ChangeListProps {
  readonly compared: Compared;
  /** The changes that pass the filter. */
  readonly groups: readonly ChangeGroup[];
  readonly reasons: ReadonlyMap<string, ReasonRow>;
  /** Undefined where changes have no reasons. */
  readonly give: GiveReason | undefined;
  readonly onStep: (forward: boolean) => void;
  readonly onTake: () => void;
  /** Takes over what is agreed; undefined where nothing is, or it cannot be. */
  readonly onTakeAgreed: (() => void) | undefined;
  /** The title of the side it is taken over into. */
  readonly takeInto: string;
  readonly detail: React.ReactNode;
}

/** The differences in plain words, each with the reason it is made for. */
export function ChangeList(props: ChangeListProps) {
  const { compared, groups, reasons, give, onStep, onTake, onTakeAgreed, takeInto, detail } = props;
  const { chosen, filter, opened, set } = useCompare();
  const states = compared.groups.flatMap((group) => reasons.get(group.key)?.reason.state ?? []);
  const count = (state: ChangeState) => states.filter((one) => one === state).length;
  const report: Report = {
    from: compared.from.title,
    to: compared.to.title,
    groups,
    reasonOf: (group) => reasons.get(group.key)?.reason as Reason | undefined,
  };
  return (
    <>
      <Flex px={5} h="36px" align="center" gap={4} borderTopWidth="1px" borderColor="line" bg="sheet" flexShrink={0}>
        <chakra.h2 fontWeight="700" data-testid="change-count">
          {text.compare.changes(compared.groups.length)}
        </chakra.h2>
        <chakra.span color="quiet" truncate>
          {text.compare.standing({ agreed: count("agreed"), proposed: count("proposed"), rejected: count("rejected") })}
          {text.compare.unchanged(compared.unchanged)}
        </chakra.span>
        <Box flex="1" />
        <chakra.input
          type="search"
          aria-label={text.compare.filter}
          placeholder={text.compare.filter}
          value={filter}
          onChange={(event) => set({ filter: event.target.value })}
          h="26px"
          w="150px"
          px={2}
          bg="paper"
          borderWidth="1px"
          borderColor="line"
          borderRadius="6px"
          fontSize="13px"
          _placeholder={{ color: "quiet" }}
        />
        <SmallButton onClick={() => giveFile(new Blob([changesAsCsv(report)], { type: "text/csv" }), "changes.csv")}>
          <Download size={13} /> {text.compare.csv}
        </SmallButton>
        <SmallButton
          onClick={() => giveFile(new Blob([changesAsMarkdown(report)], { type: "text/markdown" }), "changes.md")}
        >
          <Download size={13} /> {text.compare.markdown}
        </SmallButton>
        <SmallButton onClick={() => onStep(true)}>
          {text.compare.next} <Keycap>J</Keycap>
        </SmallButton>
        <SmallButton onClick={() => onStep(false)}>
          {text.compare.before} <Keycap>K</Keycap>
        </SmallButton>
        <SmallButton onClick={onTake}>
          {text.compare.takeHere(takeInto)} <Keycap>T</Keycap>
        </SmallButton>
        {onTakeAgreed && <SmallButton onClick={onTakeAgreed}>{text.compare.takeAgreed(count("agreed"))}</SmallButton>}
      </Flex>
      <Box
        as="ul"
        maxH={opened ? "320px" : "190px"}
        minH="96px"
        flexShrink={0}
        overflow="auto"
        listStyleType="none"
        bg="paper"
        borderTopWidth="1px"
        borderColor="line"
        data-testid="changes"
      >
        {compared.groups.length === 0 && <EmptyState>{text.compare.none}</EmptyState>}
        {compared.groups.length > 0 && groups.length === 0 && <EmptyState>{text.compare.noneFiltered}</EmptyState>}
        {groups.map((group) => (
          <ChangeRow
            key={group.key}
            group={group}
            kept={reasons.get(group.key)}
            current={group.key === chosen}
            mayReason={give !== undefined}
            detail={group.key === chosen ? detail : null}
          />
        ))}
        {filter === "" && <MovedShapes compared={compared} />}
        {filter === "" && <FormerReasons compared={compared} reasons={reasons} give={give} />}
      </Box>
    </>
  );
}

/** Where shapes lie is no change of the process; who wants to know opens this. */
function MovedShapes({ compared: { from, to, pairs } }: { readonly compared: Compared }) {
  const set = useCompare((state) => state.set);
  const moved = useMemo(() => movedShapes(from.model, to.model, pairs), [from.model, to.model, pairs]);
  if (moved.length === 0) return null;
  return (
    <Box as="li" px={5} py={1} fontSize="13px">
      <details>
        <chakra.summary color="quiet" cursor="pointer">
          {text.compare.movedShapes(moved.length)}
        </chakra.summary>
        <Flex gap={3} wrap="wrap" py={1}>
          {moved.map((id) => (
            <chakra.button
              key={id}
              type="button"
              color="accent"
              cursor="pointer"
              minH="24px"
              onClick={() => set({ picked: { side: "to", id } })}
            >
              {nameOf(to.model, id) || typeWord(to.model.elements.get(id)?.type ?? "")}
            </chakra.button>
          ))}
        </Flex>
      </details>
    </Box>
  );
}

export function SmallButton({
  onClick,
  children,
}: {
  readonly onClick: () => void;
  readonly children: React.ReactNode;
}) {
  return (
    <Button
      size="xs"
      variant="ghost"
      fontWeight="400"
      fontSize="12px"
      px={1.5}
      gap={1.5}
      flexShrink={0}
      onClick={onClick}
    >
      {children}
    </Button>
  );
}

function ChangeRow({
  group,
  kept,
  current,
  mayReason,
  detail,
}: {
  readonly group: ChangeGroup;
  readonly kept: ReasonRow | undefined;
  readonly current: boolean;
  readonly mayReason: boolean;
  readonly detail: React.ReactNode;
}) {
  const { choose, set, opened } = useCompare();
  const row = useRef<HTMLLIElement>(null);
  useEffect(() => {
    if (current) row.current?.scrollIntoView({ block: "nearest" });
  }, [current]);
  const reason = kept?.reason;
  return (
    <Box
      as="li"
      ref={row}
      borderBottomWidth="1px"
      borderColor="line"
      bg={current ? "accentSoft" : undefined}
      data-change={group.kind}
      data-key={group.key}
    >
      <Flex align="center" gap={3} px={5} minH="30px" py={0.5}>
        <KindTag kind={group.kind} />
        <chakra.button
          type="button"
          textAlign="start"
          flex="1.6"
          minW={0}
          minH="24px"
          cursor="pointer"
          aria-current={current}
          aria-expanded={current && opened}
          onClick={() => (current ? set({ opened: !opened }) : choose(group.key))}
        >
          <Words said={group.said} />
        </chakra.button>
        <chakra.span flex="1" minW={0} color="quiet" fontSize="13px" truncate title={reason?.note}>
          {reason &&
            [reason.pains.map((pain) => text.compare.pains[pain]).join(", "), reason.effect].filter(Boolean).join(": ")}
          {!reason && mayReason && (
            <chakra.button
              type="button"
              color="accent"
              cursor="pointer"
              minH="24px"
              aria-label={`${text.compare.sayWhy}: ${group.words}`}
              onClick={() => {
                choose(group.key);
                set({ opened: true });
                requestAnimationFrame(() =>
                  document.querySelector<HTMLElement>("[data-testid=change-detail] fieldset input")?.focus(),
                );
              }}
            >
              {text.compare.sayWhy}
            </chakra.button>
          )}
        </chakra.span>
        <chakra.span w="72px" fontSize="13px" color={reason?.state === "rejected" ? "pencil" : "ink"}>
          {reason && text.compare.states[reason.state]}
        </chakra.span>
        <ShownSwitch group={group} />
      </Flex>
      {current && opened && detail}
    </Box>
  );
}

/** In the one picture each change is shown as it was, as both, or as it is to be. */
function ShownSwitch({ group }: { readonly group: ChangeGroup }) {
  const { view, shown, shownOf, show } = useCompare();
  if (view !== "one") return null;
  return (
    <Segments
      small
      label={text.compare.shownOf(group.words)}
      value={shownOf.get(group.key) ?? shown}
      options={(["from", "both", "to"] as const).map((one) => [one, text.compare.shown[one]])}
      onChoose={(one) => show(one, group.key)}
    />
  );
}

function KindTag({ kind }: { readonly kind: ChangeGroup["kind"] }) {
  const gone = kind === "gone";
  return (
    <chakra.span w="84px" flexShrink={0}>
      <chakra.span
        px={2}
        py="1px"
        borderWidth="1px"
        borderStyle={gone ? "dashed" : "solid"}
        borderColor={gone ? "pencil" : "accent"}
        color={gone ? "pencil" : "accent"}
        borderRadius="4px"
        fontSize="12px"
        fontWeight="600"
        bg="paper"
        whiteSpace="nowrap"
      >
        {text.compare.kinds[kind]}
      </chakra.span>
    </chakra.span>
  );
}
