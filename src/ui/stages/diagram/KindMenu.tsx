"use client";
import { Text } from "@chakra-ui/react";
import { Command as Palette } from "cmdk";
import { useState } from "react";
import { type Kind, type KindGroup, kindWords } from "@/core/commands";
import { KindPicture } from "../../canvas/KindPicture";
import { PaletteDialog } from "../../controls/PaletteDialog";
import { text } from "../../messages";

interface KindMenuProps {
  readonly title: string;
  readonly groups: readonly KindGroup[];
  readonly onChoose: (kind: Kind) => void;
  readonly onClose: () => void;
}

/** All kinds that are possible here, each with its picture; typing narrows them. */
export function KindMenu({ title, groups, onChoose, onClose }: KindMenuProps) {
  const [typed, setTyped] = useState("");
  const words = typed.trim().toLowerCase().split(/\s+/).filter(Boolean);
  const matching = groups
    .map(({ title: heading, kinds }) => ({
      heading,
      kinds: kinds.filter((kind) => words.every((word) => kindWords(kind).toLowerCase().includes(word))),
    }))
    .filter(({ kinds }) => kinds.length > 0);
  return (
    <PaletteDialog
      title={title}
      isTitled
      placeholder={text.diagram.filter}
      typed={typed}
      onType={setTyped}
      empty={text.diagram.noKind}
      width="480px"
      onClose={onClose}
    >
      {matching.map(({ heading, kinds }) => (
        <Palette.Group key={heading} heading={heading}>
          {kinds.map((kind) => (
            <Palette.Item key={kindWords(kind)} value={kindWords(kind)} onSelect={() => onChoose(kind)}>
              <KindPicture kind={kind} width={46} height={30} />
              <Text>{kindWords(kind)}</Text>
            </Palette.Item>
          ))}
        </Palette.Group>
      ))}
    </PaletteDialog>
  );
}
