"use client";
import { chakra, Flex } from "@chakra-ui/react";
import { X } from "lucide-react";
import { useRouter } from "next/navigation";
import { useEffect, useRef } from "react";
import type { About, ThreadRow } from "@/contract/comments";
import { called, nameOf } from "@/core/model";
import { IconTool } from "../../controls/IconTool";
import { Segments } from "../../controls/Segments";
import { EmptyState } from "../../controls/states";
import { text, typeWord, worded } from "../../messages";
import { useCommentsShown } from "../../version/comments/store";
import { ThreadView } from "../../version/comments/ThreadView";
import { useThreads } from "../../version/comments/useThreads";
import { Writing } from "../../version/comments/Writing";
import { useDiagram } from "../../version/diagramStore";
import { useVersion } from "../../version/VersionContext";
import { ReviewPart } from "./ReviewPart";

const words = text.comments;
/** Where what a thread is about is seen, besides elements. */
const stagesOf = { finding: "check", change: "compare", sentence: "brief", figure: "forecast" } as const;
const parts = () => Object.entries(text.review.parts) as [keyof typeof text.review.parts, string][];
const filters = () => Object.entries(words.filters) as [keyof typeof words.filters, string][];

/** What people say about the version, beside whatever stage is open: about the element that is selected, or about all of it. */
export function CommentsColumn() {
  const info = useVersion((state) => state.info);
  const model = useVersion((state) => state.model);
  const selection = useDiagram((state) => state.selection);
  const { part, filter, about: pointed, set } = useCommentsShown();
  const of = useThreads();
  const router = useRouter();
  const [first] = selection;
  const selected = selection.length === 1 && first !== undefined ? model.elements.get(first) : undefined;
  // Whoever selects something else has gone on; what was selected before is not.
  const before = useRef(first);
  useEffect(() => {
    if (first !== undefined && first !== before.current) set({ about: null });
    before.current = first;
  }, [first, set]);
  const about: About = pointed
    ? pointed
    : selected
      ? {
          kind: "element",
          key: selected.id,
          words: (nameOf(model, selected.id) || typeWord(selected.type)).slice(0, 500),
        }
      : { kind: "version", key: "", words: info.version.name };
  const nameOfAbout = ({ about: { kind, key, words: called } }: ThreadRow): string | undefined => {
    const element = kind === "element" ? model.elements.get(key) : undefined;
    return element ? nameOf(model, element.id) || typeWord(element.type) : kind in stagesOf ? called : undefined;
  };
  const isMine = ({ assigned, said }: ThreadRow) =>
    assigned === of.me || said.some(({ member, mentions }) => member === of.me || mentions.includes(of.me ?? ""));
  const shown = of.threads.filter((thread) =>
    filter === "all" ? true : thread.resolved === null && (filter === "open" || isMine(thread)),
  );
  // What is pointed at, or selected, comes first.
  const isSelected = ({ about: { kind, key } }: ThreadRow) => kind === about.kind && key === about.key && key !== "";
  const ordered = [...shown].sort((one, other) => Number(isSelected(other)) - Number(isSelected(one)));
  const show = (thread: ThreadRow) => {
    const { kind, key } = thread.about;
    const stage = kind === "figure" ? key.split(" ")[0] : stagesOf[kind as keyof typeof stagesOf];
    const of = `/v/${encodeURIComponent(info.version.id)}`;
    router.push(stage ? `${of}/${stage}` : `${of}/diagram?element=${encodeURIComponent(key)}`);
  };
  return (
    <Flex
      as="aside"
      direction="column"
      w="340px"
      flexShrink={0}
      minH={0}
      bg="sheet"
      borderStartWidth="1px"
      borderColor="line"
      aria-label={words.title}
      data-testid="comments"
    >
      <Flex px={4} pt={3} pb={2} gap={2} align="center">
        <chakra.h2 srOnly>{text.review.parts[part]}</chakra.h2>
        <Segments
          small
          label={text.review.part}
          value={part}
          options={parts()}
          onChoose={(next) => set({ part: next })}
        />
        <chakra.span flex="1" />
        {part === "comments" && (
          <Segments
            small
            label={words.filter}
            value={filter}
            options={filters()}
            onChoose={(next) => set({ filter: next })}
          />
        )}
        <IconTool name={words.close} icon={X} onPress={() => set({ isOpen: false })} />
      </Flex>
      {part === "review" ? (
        <ReviewPart />
      ) : (
        <>
          <chakra.div px={4} pb={3}>
            <Writing
              label={words.newAbout(
                pointed ? pointed.words : selected ? worded(called(model, selected)) : words.version,
              )}
              hint={`${words.newAbout(pointed || selected ? about.words : words.version)}. ${words.hint}`}
              action={words.send}
              members={of.members}
              onSend={(typed, mentions) => of.start(about, typed, mentions)}
            />
            {pointed && (
              <chakra.button
                type="button"
                color="accent"
                minH="24px"
                cursor="pointer"
                onClick={() => set({ about: null })}
              >
                {words.notAbout}
              </chakra.button>
            )}
          </chakra.div>
          <chakra.ul flex="1" minH={0} overflow="auto" tabIndex={0} aria-label={words.filter}>
            {ordered.length === 0 && (
              <li>
                <EmptyState>{words.none[filter]}</EmptyState>
              </li>
            )}
            {ordered.map((thread) => {
              const name = nameOfAbout(thread);
              return (
                <ThreadView
                  key={thread.id}
                  thread={thread}
                  name={name}
                  of={of}
                  onShow={name === undefined ? undefined : () => show(thread)}
                />
              );
            })}
          </chakra.ul>
        </>
      )}
    </Flex>
  );
}
