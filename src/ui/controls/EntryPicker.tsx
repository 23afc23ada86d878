"use client";
import { Box, Button, chakra } from "@chakra-ui/react";
import { useId, useRef, useState } from "react";
import { type EntryKind, foldedName, lookUp } from "@/core/directory";
import { text } from "../messages";
import { useEntries } from "./entries";
import { complain } from "./notices";
import { OptionList } from "./OptionList";

interface EntryPickerProps {
  readonly kind: EntryKind;
  readonly label: string;
  /** What the closed picker says. */
  readonly words?: string;
  /** Where there is room for the list: above the tray's pickers, below those of a table. */
  readonly side?: "above" | "below";
  readonly onChoose: (entry: { entry: string; name: string }) => void;
}

/** Finds a directory entry as one types, or creates it on the spot. */
export function EntryPicker({ kind, label, words = text.tray.add, side = "above", onChoose }: EntryPickerProps) {
  const { entries, create } = useEntries();
  const [open, setOpen] = useState(false);
  const [typed, setTyped] = useState("");
  const [active, setActive] = useState(0);
  const listId = useId();
  const button = useRef<HTMLButtonElement>(null);
  const found = lookUp(entries, kind, typed).slice(0, 7);
  const exact = found.some((entry) => foldedName(entry.name) === foldedName(typed));
  const options = [
    ...found.map((entry) => ({ id: entry.id, label: entry.name })),
    ...(typed.trim() !== "" && !exact ? [{ id: "", label: text.tray.createNew(typed.trim()) }] : []),
  ];
  const close = () => {
    setOpen(false);
    setTyped("");
    setActive(0);
    requestAnimationFrame(() => button.current?.focus());
  };
  const choose = async (at: number) => {
    const option = options[at];
    if (!option) return;
    try {
      if (option.id) onChoose({ entry: option.id, name: option.label });
      else {
        const made = await create(kind, typed.trim());
        onChoose({ entry: made.id, name: made.name });
      }
      close();
    } catch (error) {
      complain(error);
    }
  };
  if (!open) {
    return (
      <Button
        ref={button}
        variant="plain"
        h="24px"
        px={1}
        color="accent"
        fontWeight="400"
        aria-label={label}
        onClick={() => setOpen(true)}
      >
        {words}
      </Button>
    );
  }
  return (
    <Box position="relative" display="inline-block">
      <chakra.input
        autoFocus
        role="combobox"
        aria-label={label}
        aria-expanded="true"
        aria-controls={listId}
        aria-activedescendant={options[active] ? `${listId}-${active}` : undefined}
        value={typed}
        onChange={(event) => {
          setTyped(event.target.value);
          setActive(0);
        }}
        onBlur={() => setTimeout(() => setOpen(false), 150)}
        onKeyDown={(event) => {
          event.stopPropagation();
          if (event.key === "ArrowDown") setActive((at) => Math.min(at + 1, options.length - 1));
          else if (event.key === "ArrowUp") setActive((at) => Math.max(at - 1, 0));
          else if (event.key === "Enter") void choose(active);
          else if (event.key === "Escape") close();
          else return;
          event.preventDefault();
        }}
        w="150px"
        h="26px"
        px={2}
        bg="paper"
        borderWidth="1px"
        borderColor="accent"
        borderRadius="6px"
        fontSize="13px"
      />
      <OptionList
        id={listId}
        label={label}
        options={options}
        active={active}
        side={side}
        empty={text.directory.filter}
        onTake={(at) => void choose(at)}
      />
    </Box>
  );
}
