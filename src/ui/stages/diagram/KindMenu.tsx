"use client";
import { Text } from "@chakra-ui/react";
import { Command as Palette } from "cmdk";
import { type Kind, type KindGroup, kindWords as kindInEnglish } from "@/core/commands";
import { term } from "@/core/messages";
import { KindPicture } from "../../canvas/KindPicture";
import { PaletteDialog } from "../../controls/PaletteDialog";
import { text, worded } from "../../messages";
import { useTypedAhead } from "./useTypedAhead";

const kindWords = (kind: Kind) => worded(term(kindInEnglish(kind)));

interface KindMenuProps {
  readonly title: string;
  readonly groups: readonly KindGroup[];
  readonly onChoose: (kind: Kind) => void;
  /** What would be lost by choosing a kind, in words. */
  readonly loses?: (kind: Kind) => readonly string[];
  readonly onClose: () => void;
}

/** What fits what is typed, in one list: first where the name begins so, then where its words do, then what has it inside. */
function ranked(groups: readonly KindGroup[], typed: readonly string[]): { heading: string; kinds: readonly Kind[] }[] {
  const wanted = typed.join(" ");
  const rankOf = (kind: Kind) => {
    const name = kindWords(kind).toLowerCase();
    if (!typed.every((word) => name.includes(word))) return undefined;
    if (name.startsWith(wanted)) return 0;
    return typed.every((word) => ` ${name}`.includes(` ${word}`)) ? 1 : 2;
  };
  const found = groups.flatMap(({ kinds }) => kinds.flatMap((kind) => ({ kind, rank: rankOf(kind) ?? 3 })));
  const kinds = found
    .filter(({ rank }) => rank < 3)
    .sort((a, b) => a.rank - b.rank)
    .map(({ kind }) => kind);
  return kinds.length > 0 ? [{ heading: "", kinds }] : [];
}

/** All kinds that are possible here, each with its picture; typing narrows them. */
export function KindMenu({ title, groups, onChoose, loses, onClose }: KindMenuProps) {
  const [typed, setTyped] = useTypedAhead();
  const words = typed.trim().toLowerCase().split(/\s+/).filter(Boolean);
  const matching =
    words.length === 0 ? groups.map(({ title, kinds }) => ({ heading: title, kinds })) : ranked(groups, words);
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
        <Palette.Group key={heading || "found"} heading={heading}>
          {kinds.map((kind) => (
            <Palette.Item key={kindWords(kind)} value={kindWords(kind)} onSelect={() => onChoose(kind)}>
              <KindPicture kind={kind} width={46} height={30} />
              <Text>{kindWords(kind)}</Text>
              {(loses?.(kind) ?? []).length > 0 && (
                <Text color="attention" fontSize="12px">
                  {text.diagram.loses(loses?.(kind) ?? [])}
                </Text>
              )}
            </Palette.Item>
          ))}
        </Palette.Group>
      ))}
    </PaletteDialog>
  );
}
