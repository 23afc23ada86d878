"use client";
import { Box, chakra, Flex } from "@chakra-ui/react";
import { EditorContent, useEditor } from "@tiptap/react";
import StarterKit from "@tiptap/starter-kit";
import { Bold, Italic, Link, List, ListOrdered } from "lucide-react";
import { useRef, useState } from "react";
import { type RichNode, richTextSchema, safeAddress } from "@/core/model";
import { text } from "../../messages";

/** A text with emphasis, lists and links; kept when one leaves it. */
export function RichTextField({
  label,
  value,
  onCommit,
}: {
  readonly label: string;
  readonly value: RichNode;
  readonly onCommit: (value: RichNode) => void;
}) {
  const [address, setAddress] = useState<string | null>(null);
  const [, redraw] = useState(0);
  const field = useRef<HTMLDivElement>(null);
  const editor = useEditor({
    immediatelyRender: false,
    autofocus: "end",
    extensions: [
      StarterKit.configure({
        heading: false,
        code: false,
        codeBlock: false,
        horizontalRule: false,
        blockquote: false,
        strike: false,
        underline: false,
        trailingNode: false,
        link: { openOnClick: false, autolink: false, isAllowedUri: (href) => safeAddress.test(href) },
      }),
    ],
    content: value as never,
    editorProps: { attributes: { "aria-label": label, role: "textbox", "aria-multiline": "true" } },
    onTransaction: () => redraw((count) => count + 1),
  });
  const commit = () => {
    const read = richTextSchema.safeParse(withoutRest(editor?.getJSON()));
    if (read.success && JSON.stringify(read.data) !== JSON.stringify(value)) onCommit(read.data);
  };
  const link = () => {
    const href = address?.trim() ?? "";
    if (href === "") editor?.chain().focus().extendMarkRange("link").unsetLink().run();
    else if (safeAddress.test(href)) editor?.chain().focus().extendMarkRange("link").setLink({ href }).run();
    else return;
    setAddress(null);
  };
  const tools = [
    ["bold", text.tray.bold, Bold, () => editor?.chain().focus().toggleBold().run()],
    ["italic", text.tray.italic, Italic, () => editor?.chain().focus().toggleItalic().run()],
    ["bulletList", text.tray.bulletList, List, () => editor?.chain().focus().toggleBulletList().run()],
    ["orderedList", text.tray.orderedList, ListOrdered, () => editor?.chain().focus().toggleOrderedList().run()],
    ["link", text.tray.link, Link, () => setAddress((editor?.getAttributes("link").href as string) ?? "https://")],
  ] as const;
  return (
    <Box
      ref={field}
      onKeyDown={(event) => event.stopPropagation()}
      onBlur={(event) => !field.current?.contains(event.relatedTarget) && commit()}
    >
      <Flex role="toolbar" aria-label={text.tray.format} gap={0.5} mb={1}>
        {tools.map(([name, words, Icon, run]) => (
          <chakra.button
            key={name}
            type="button"
            aria-label={words}
            title={words}
            aria-pressed={editor?.isActive(name) ?? false}
            w="26px"
            h="24px"
            display="grid"
            placeItems="center"
            borderRadius="6px"
            cursor="pointer"
            bg={editor?.isActive(name) ? "accentSoft" : undefined}
            onMouseDown={(event) => event.preventDefault()}
            onClick={run}
          >
            <Icon size={13} />
          </chakra.button>
        ))}
      </Flex>
      {address !== null && (
        <chakra.input
          aria-label={text.tray.address}
          value={address}
          autoFocus
          w="100%"
          h="26px"
          px={2}
          mb={1}
          fontSize="13px"
          bg="paper"
          borderWidth="1px"
          borderColor={safeAddress.test(address) || address === "" ? "line" : "trouble"}
          borderRadius="6px"
          onChange={(event) => setAddress(event.target.value)}
          onKeyDown={(event) => {
            if (event.key === "Enter") link();
            if (event.key === "Escape") setAddress(null);
          }}
        />
      )}
      <Box
        bg="paper"
        borderWidth="1px"
        borderColor="accent"
        borderRadius="6px"
        px={2}
        py={1}
        fontSize="13px"
        css={{
          "& .ProseMirror": { minHeight: "84px", outline: "none" },
          "& p": { marginBottom: "4px" },
          "& ul": { listStyle: "disc", paddingInlineStart: "16px" },
          "& ol": { listStyle: "decimal", paddingInlineStart: "20px" },
          "& a": { textDecoration: "underline", color: "var(--chakra-colors-accent)" },
        }}
      >
        <EditorContent editor={editor} />
      </Box>
    </Box>
  );
}

/** The editor's own attributes of lists and links say nothing that is kept. */
function withoutRest(node: unknown): unknown {
  if (Array.isArray(node)) return node.map(withoutRest);
  if (node === null || typeof node !== "object") return node;
  const { type, content, text: words, marks, attrs } = node as { [key: string]: unknown };
  return {
    type,
    ...(content !== undefined && { content: withoutRest(content) }),
    ...(words !== undefined && { text: words }),
    ...(Array.isArray(marks) && marks.length > 0 && { marks: marks.map(withoutRest) }),
    ...(type === "link" && { attrs: { href: (attrs as { href?: string } | undefined)?.href } }),
  };
}
