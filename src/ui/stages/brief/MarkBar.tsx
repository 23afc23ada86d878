"use client";
import { Button, chakra, Flex } from "@chakra-ui/react";
import type { Editor } from "@tiptap/react";
import { FileText } from "lucide-react";
import { useRef } from "react";
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
          {kindWords(kind)} <Keycap>{mode === "write" ? `Alt ${kindLetters[kind]}` : kindLetters[kind]}</Keycap>
        </Button>
      ))}
      <Flex flex="1" />
      <Button size="xs" variant="outline" bg="paper" borderColor="line" px={2} flexShrink={0} onClick={onSuggest}>
        {text.brief.suggest} <Keycap>{mode === "write" ? "Alt G" : "G"}</Keycap>
      </Button>
      <Button
        size="xs"
        variant="outline"
        bg="paper"
        borderColor="line"
        px={2}
        flexShrink={0}
        title={text.brief.commentTitle}
        onMouseDown={(event) => event.preventDefault()}
        onClick={onComment}
      >
        {text.brief.comment} <Keycap>{mode === "write" ? "Alt K" : "K"}</Keycap>
      </Button>
      <Button
        size="xs"
        variant="outline"
        bg={mode === "write" ? "accentSoft" : "paper"}
        borderColor={mode === "write" ? "accent" : "line"}
        px={2}
        flexShrink={0}
        aria-pressed={mode === "write"}
        onClick={() => {
          set({ mode: mode === "write" ? "mark" : "write" });
          editor?.commands.focus();
        }}
      >
        {text.brief.write} <Keycap>F2</Keycap>
      </Button>
      <Button
        size="xs"
        variant="outline"
        bg="paper"
        borderColor="line"
        px={2}
        flexShrink={0}
        onClick={() => file.current?.click()}
      >
        <FileText size={14} aria-hidden /> {text.brief.fromFile}
      </Button>
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
