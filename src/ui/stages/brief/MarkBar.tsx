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
  const withAlt = (letter: string) => (mode === "write" ? `Alt ${letter}` : letter);
  return (
    <Flex
      role="toolbar"
      aria-label={text.brief.marks}
      minH="42px"
      px={4}
      gap="6px"
      align="center"
      bg="sheet"
      borderBottomWidth="1px"
      borderColor="line"
      flexShrink={0}
      overflowX="auto"
    >
      {markKinds.map((kind) => (
        <Button
          key={kind}
          size="xs"
          variant="outline"
          bg="paper"
          borderColor="line"
          px={2}
          flexShrink={0}
          onMouseDown={(event) => event.preventDefault()}
          onClick={() => editor && markWords(editor, kind)}
        >
          {kindWords(kind)} <Keycap>{withAlt(kindLetters[kind])}</Keycap>
        </Button>
      ))}
      <Flex flex="1" />
      <Tool words={text.brief.suggest} keys={withAlt("G")} onPress={onSuggest} />
      <Tool words={text.brief.comment} keys={withAlt("K")} title={text.brief.commentTitle} onPress={onComment} />
      <Tool
        words={text.brief.write}
        keys="F2"
        isOn={mode === "write"}
        onPress={() => {
          set({ mode: mode === "write" ? "mark" : "write" });
          editor?.commands.focus();
        }}
      />
      <Tool
        words={text.brief.fromFile}
        icon={<FileText size={14} aria-hidden />}
        onPress={() => file.current?.click()}
      />
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

function Tool(props: {
  readonly words: string;
  readonly keys?: string;
  readonly title?: string;
  readonly icon?: ReactNode;
  /** Of one that stays pressed, whether it is. */
  readonly isOn?: boolean;
  readonly onPress: () => void;
}) {
  const { words, keys, title, icon, isOn, onPress } = props;
  return (
    <Button
      size="xs"
      variant="outline"
      bg={isOn ? "accentSoft" : "paper"}
      borderColor={isOn ? "accent" : "line"}
      px={2}
      flexShrink={0}
      aria-pressed={isOn}
      title={title}
      onClick={onPress}
    >
      {icon} {words} {keys && <Keycap>{keys}</Keycap>}
    </Button>
  );
}
