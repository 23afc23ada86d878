"use client";
import { Dialog, Portal, Text } from "@chakra-ui/react";
import { Command as Palette } from "cmdk";
import { useState } from "react";
import { type Kind, type KindGroup, kindWords } from "@/core/commands";
import { KindPicture } from "../canvas/KindPicture";
import { text } from "../messages";
import "../shell/findAnything.css";

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
    <Dialog.Root
      open
      onOpenChange={({ open }) => !open && onClose()}
      placement="top"
      initialFocusEl={() => document.getElementById("kind-filter")}
      finalFocusEl={() => document.querySelector<HTMLElement>("[data-naming], [data-canvas]")}
    >
      <Portal>
        <Dialog.Backdrop bg="rgb(30 36 48 / 35%)" />
        <Dialog.Positioner>
          <Dialog.Content bg="paper" color="ink" borderRadius="6px" maxW="480px" mt="64px" overflow="hidden">
            <Dialog.Title px={4} pt={3} fontSize="14px">
              {title}
            </Dialog.Title>
            <Palette shouldFilter={false} label={title} className="find">
              <Palette.Input
                id="kind-filter"
                value={typed}
                onValueChange={setTyped}
                placeholder={text.diagram.filter}
                aria-label={text.diagram.filter}
              />
              <Palette.List aria-label={title}>
                <Palette.Empty>{text.diagram.noKind}</Palette.Empty>
                {matching.map(({ heading, kinds }) => (
                  <Palette.Group key={heading} heading={heading}>
                    {kinds.map((kind) => (
                      <Palette.Item
                        key={kindWords(kind)}
                        value={kindWords(kind)}
                        onSelect={() => {
                          onClose();
                          onChoose(kind);
                        }}
                      >
                        <KindPicture kind={kind} width={34} height={22} />
                        <Text>{kindWords(kind)}</Text>
                      </Palette.Item>
                    ))}
                  </Palette.Group>
                ))}
              </Palette.List>
            </Palette>
          </Dialog.Content>
        </Dialog.Positioner>
      </Portal>
    </Dialog.Root>
  );
}
