"use client";
import { Button, chakra, Flex } from "@chakra-ui/react";
import type { Editor } from "@tiptap/react";
import { FileText } from "lucide-react";
import { type ReactNode, useRef } from "react";
import { markKinds } from "@/core/brief";
import { Keycap } from "../../controls/Keycap";
import { text } from "../../messages";
import { useBrief } from "../../version/briefStore";
import { kindLetters, kindWords } from "./markKeys";
import { markWords } from "./pageActions";

interface MarkBarProps {
  readonly editor: Editor | null;
  readonly onSuggest: () => void;
  readonly onComment: () => void;
  readonly onFile: (file: File) => void;
}

/** What words can be marked as, each with its key; writing or marking; suggestions; a text from a file. */
export function MarkBar({ editor, onSuggest, onComment, onFile }: MarkBarProps) {
  const mode = useBrief((state) => state.mode);
  const file = useRef<HTMLInputElement>(null);
  const { set } = useBrief.getState();
  /** While one writes, a letter alone is text. */
  const needsAlt = mode === "write";
  return (
    <Flex
      role="toolbar"
      aria-label={text.brief.marks}
      minH="42px"
      px={4}
      py="6px"
      gap="6px"
      align="center"
      wrap="wrap"
      bg="sheet"
      borderBottomWidth="1px"
      borderColor="line"
      flexShrink={0}
    >
      {needsAlt && <WithAlt />}
      {markKinds.map((kind) => (
        <Button
          key={kind}
          size="xs"
          variant="outline"
          bg="paper"
          borderColor="line"
          px={2}
          flexShrink={0}
          aria-keyshortcuts={needsAlt ? `Alt+${kindLetters[kind]}` : kindLetters[kind]}
          onMouseDown={(event) => event.preventDefault()}
          onClick={() => editor && markWords(editor, kind)}
        >
          {kindWords(kind)} <Keycap>{kindLetters[kind]}</Keycap>
        </Button>
      ))}
      <Flex gap="6px" align="center" wrap="wrap" ms="auto">
        {needsAlt && <WithAlt />}
        <Tool words={text.brief.suggest} keys="G" needsAlt={needsAlt} onPress={onSuggest} />
        <Tool
          words={text.brief.comment}
          keys="K"
          needsAlt={needsAlt}
          title={text.brief.commentTitle}
          onPress={onComment}
        />
        <Tool
          words={text.brief.write}
          keys="F2"
          isOn={needsAlt}
          onPress={() => {
            set({ mode: needsAlt ? "mark" : "write" });
            editor?.commands.focus();
          }}
        />
        <Tool
          words={text.brief.fromFile}
          icon={<FileText size={14} aria-hidden />}
          onPress={() => file.current?.click()}
        />
      </Flex>
      <chakra.input
        ref={file}
        type="file"
        accept=".docx,.md,.markdown,.txt,.text"
        aria-label={text.brief.fromFile}
        hidden
        onChange={(event) => {
          const [chosen] = event.target.files ?? [];
          if (chosen) onFile(chosen);
          event.target.value = "";
        }}
      />
    </Flex>
  );
}

/** Said once for the letters behind it: beside each it would take more room than the bar has. */
const WithAlt = () => (
  <Flex align="center" gap="3px" flexShrink={0} aria-hidden>
    <Keycap>Alt</Keycap> +
  </Flex>
);

function Tool(props: {
  readonly words: string;
  readonly keys?: string;
  readonly needsAlt?: boolean;
  readonly title?: string;
  readonly icon?: ReactNode;
  /** Of one that stays pressed, whether it is. */
  readonly isOn?: boolean;
  readonly onPress: () => void;
}) {
  const { words, keys, needsAlt, title, icon, isOn, onPress } = props;
  return (
    <Button
      size="xs"
      variant="outline"
      bg={isOn ? "accentSoft" : "paper"}
      borderColor={isOn ? "accent" : "line"}
      px={2}
      flexShrink={0}
      aria-pressed={isOn}
      aria-keyshortcuts={needsAlt ? `Alt+${keys}` : keys}
      title={title}
      onClick={onPress}
    >
      {icon} {words} {keys && <Keycap>{keys}</Keycap>}
    </Button>
  );
}
