import { type Editor, useEditor } from "@tiptap/react";
import StarterKit from "@tiptap/starter-kit";
import { useEffect, useRef } from "react";
import type { BriefNode } from "@/core/brief";
import { text } from "../../messages";
import { useBrief } from "../../version/briefStore";
import { AsideMark, BelongsMark, Signs, WordMark } from "./wordMark";

/** The page's editor. What is written goes into the store; what is put in from outside is shown anew. */
export function useBriefEditor(onKey: (event: KeyboardEvent, editor: Editor) => boolean): Editor | null {
  const loaded = useBrief((state) => state.loaded);
  const key = useRef(onKey);
  key.current = onKey;
  const held = useRef<Editor | null>(null);
  const editor = useEditor(
    {
      immediatelyRender: false,
      shouldRerenderOnTransaction: false,
      extensions: [
        StarterKit.configure({
          heading: { levels: [1, 2, 3] },
          code: false,
          codeBlock: false,
          horizontalRule: false,
          link: false,
          strike: false,
          trailingNode: false,
        }),
        WordMark,
        BelongsMark,
        AsideMark,
        Signs,
      ],
      content: useBrief.getState().content.document as never,
      editorProps: {
        attributes: {
          "aria-label": text.brief.page,
          role: "textbox",
          "aria-multiline": "true",
          spellcheck: "true",
          lang: "en",
          "data-testid": "brief-page",
        },
        handleKeyDown: (_, event) => held.current !== null && key.current(event, held.current),
        // In mark mode letters mark; nothing may slip into the text.
        handleTextInput: () => useBrief.getState().mode === "mark",
        handlePaste: () => {
          if (useBrief.getState().mode === "mark") useBrief.getState().set({ mode: "write" });
          return false;
        },
        handleDrop: () => useBrief.getState().mode === "mark",
      },
      onUpdate: ({ editor: changed }) => useBrief.getState().setDocument(changed.getJSON() as BriefNode),
      onSelectionUpdate: ({ editor: changed }) => {
        const { $from, empty } = changed.state.selection;
        const mark = empty ? [...$from.marks()].reverse().find((one) => one.type.name === "word") : undefined;
        if (mark) useBrief.getState().set({ selected: mark.attrs.id as string });
      },
    },
    [loaded],
  );
  held.current = editor;
  useEffect(() => {
    editor?.view.dom.setAttribute("aria-readonly", "false");
    // On an empty page one writes.
    if (editor?.isEmpty) editor.commands.focus();
  }, [editor]);
  return editor;
}
