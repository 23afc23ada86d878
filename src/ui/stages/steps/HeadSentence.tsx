"use client";
import { chakra, Flex } from "@chakra-ui/react";
import { memo, type ReactNode, type RefObject } from "react";
import type { SheetHead } from "@/core/capture";
import { useTyped } from "../../controls/useTyped";
import { text } from "../../messages";
import { useVersionStore } from "../../version/VersionContext";
import { useSheetStore } from "./sheetStore";
import type { Sheet } from "./useSheet";

/** A part of the sentence that is written in place; as wide as what stands in it. */
function Blank(props: {
  readonly label: string;
  readonly value: string;
  readonly placeholder: string;
  readonly strong?: boolean;
  readonly onCommit: (value: string) => void;
}) {
  const { typed, type, settle } = useTyped(props.value);
  const commit = () => {
    settle();
    if (typed.trim() !== props.value) props.onCommit(typed.trim());
  };
  return (
    <chakra.input
      aria-label={props.label}
      title={typed}
      value={typed}
      placeholder={props.placeholder}
      htmlSize={Math.min(44, Math.max(8, (typed || props.placeholder).length))}
      h="28px"
      px={2}
      bg="paper"
      borderWidth="1px"
      borderColor="line"
      borderRadius="6px"
      minW={0}
      flexShrink={1}
      fontWeight={props.strong ? "700" : "400"}
      textOverflow="ellipsis"
      _placeholder={{ color: "quiet" }}
      onChange={(event) => type(event.target.value)}
      onBlur={commit}
      onKeyDown={(event) => {
        if (event.key === "Enter") event.currentTarget.blur();
        if (event.key === "Escape") settle(props.value);
      }}
    />
  );
}

/** What several rows say together, or none yet: read here, written there. */
function Summed(props: {
  readonly events: readonly string[];
  readonly what: "beginnings" | "ends";
  readonly words: string;
}) {
  const { events, what, words } = props;
  const [first] = events;
  const looks = { color: "quiet", fontStyle: "italic", title: text.steps.several(events.length, what) };
  if (!first)
    return (
      <chakra.span {...looks} truncate minW="60px">
        {words}
      </chakra.span>
    );
  return (
    <chakra.button
      type="button"
      {...looks}
      truncate
      minW="60px"
      cursor="pointer"
      onClick={() => useSheetStore.getState().go(first, "step")}
    >
      {words}
    </chakra.button>
  );
}

/** What begins the process, or ends it: written here where it is one event, else told. */
function EndOfSentence(props: {
  readonly label: string;
  readonly hint: string;
  readonly events: readonly string[];
  readonly what: "beginnings" | "ends";
  readonly words: string;
  readonly onCommit: (value: string) => void;
}) {
  const { label, hint, events, what, words, onCommit } = props;
  if (events.length === 1) return <Blank label={label} value={words} placeholder={hint} onCommit={onCommit} />;
  return <Summed events={events} what={what} words={words || hint} />;
}

/** The process head as one sentence: when what happens, who runs what until what is reached. */
export const HeadSentence = memo(function HeadSentence(props: {
  readonly head: SheetHead;
  readonly processes: Sheet["processes"];
  /** The sheet as it is when something is done. */
  readonly current: RefObject<Sheet>;
  readonly end: ReactNode;
}) {
  const { head, processes, current, end } = props;
  const { dispatch } = useVersionStore().getState();
  const { set, go } = useSheetStore.getState();
  const rename = (id: string | undefined) => (name: string) => id && dispatch({ type: "rename", id, name });
  const nameOrganisation = (name: string) => {
    if (head.pool) dispatch({ type: "rename", id: head.pool, name });
    else
      current.current.run((draft) => {
        const id = draft.newId("participant");
        const at = { x: 400, y: 200 };
        draft.do({ type: "place", diagram: current.current.diagram, id, kind: { type: "participant" }, at, name });
        return undefined;
      });
  };
  return (
    <Flex h="42px" px={4} gap={2} align="center" bg="sheet" borderBottomWidth="1px" borderColor="line" flexShrink={0}>
      <chakra.span flexShrink={0}>{text.steps.when}</chakra.span>
      <EndOfSentence
        label={text.steps.trigger}
        hint={text.steps.triggerHint}
        events={head.starts}
        what="beginnings"
        words={head.trigger}
        onCommit={rename(head.starts[0])}
      />
      <span>,</span>
      <Blank
        label={text.steps.organisation}
        value={head.organisation}
        placeholder={text.steps.organisationHint}
        onCommit={nameOrganisation}
      />
      <chakra.span flexShrink={0}>{text.steps.runs}</chakra.span>
      {processes.length > 1 ? (
        <chakra.select
          aria-label={text.steps.process}
          value={head.process}
          h="28px"
          px={2}
          bg="paper"
          borderWidth="1px"
          borderColor="line"
          borderRadius="6px"
          fontWeight="700"
          onChange={(event) => {
            set({ process: event.target.value });
            go(null);
          }}
        >
          {processes.map((process) => (
            <option key={process.id} value={process.id}>
              {process.name ?? process.id}
            </option>
          ))}
        </chakra.select>
      ) : (
        <Blank
          label={text.steps.process}
          value={head.name}
          placeholder={text.steps.process}
          strong
          onCommit={rename(head.process)}
        />
      )}
      <chakra.span flexShrink={0}>{text.steps.until}</chakra.span>
      <EndOfSentence
        label={text.steps.result}
        hint={text.steps.resultHint}
        events={head.ends}
        what="ends"
        words={head.result}
        onCommit={rename(head.ends[0])}
      />
      <Flex flex="1" />
      {end}
    </Flex>
  );
});
