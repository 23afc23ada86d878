"use client";
import { Menu, Portal } from "@chakra-ui/react";
import type { Editor } from "@tiptap/react";
import { text } from "../../messages";
import { assign } from "./pageActions";
import type { Reading } from "./useReading";

interface BelongsMenuProps {
  readonly editor: Editor;
  readonly told: Reading;
  readonly sentence: number;
  readonly at: DOMRect;
  readonly onClose: () => void;
}

/** Says which process a paragraph or sentence belongs to, where its place in the text does not tell. */
export function BelongsMenu({ editor, told, sentence: index, at, onClose }: BelongsMenuProps) {
  const { reading, frames } = told;
  const sentence = reading.sentences[index];
  const passage = sentence && reading.passages[sentence.passage];
  if (!sentence || !passage) return null;
  const whole = { passage: passage.at, from: 0, to: passage.text.length };
  const choices = frames.filter((frame) => frame.kind === "trigger" || frame.kind === "part");
  const group = (title: string, span: typeof whole) => (
    <Menu.ItemGroup key={title}>
      <Menu.ItemGroupLabel>{title}</Menu.ItemGroupLabel>
      {choices.map((frame) => (
        <Menu.Item
          key={frame.key}
          value={`${title}-${frame.key}`}
          onClick={() => assign(editor, span, { belongs: frame.key })}
        >
          {frames.indexOf(frame) + 1} {frame.name}
        </Menu.Item>
      ))}
      <Menu.Item value={`${title}-place`} onClick={() => assign(editor, span, null)}>
        {text.brief.byPlace}
      </Menu.Item>
      <Menu.Item value={`${title}-aside`} onClick={() => assign(editor, span, "aside")}>
        {text.brief.background}
      </Menu.Item>
    </Menu.ItemGroup>
  );
  return (
    <Menu.Root
      open
      onOpenChange={({ open }) => !open && onClose()}
      positioning={{ getAnchorRect: () => ({ x: at.x, y: at.y, width: at.width, height: at.height }) }}
    >
      <Portal>
        <Menu.Positioner>
          <Menu.Content bg="paper" color="ink" minW="260px">
            {group(text.brief.paragraphBelongs, whole)}
            <Menu.Separator borderColor="line" />
            {group(text.brief.sentenceBelongs, sentence)}
          </Menu.Content>
        </Menu.Positioner>
      </Portal>
    </Menu.Root>
  );
}
