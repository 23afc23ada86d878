"use client";
import { chakra, Flex } from "@chakra-ui/react";
import type { KeyboardEvent } from "react";
import { type EntryKind, foldedName, lookUp } from "@/core/directory";
import { useEntries } from "../../controls/entries";
import { complain } from "../../controls/notices";
import { text } from "../../messages";
import { type CellOption, ChoiceCell } from "./ChoiceCell";

export interface EntryLabel {
  readonly key: string;
  readonly name: string;
  readonly entry?: string | undefined;
}

interface EntryCellProps {
  readonly kind: EntryKind;
  readonly label: string;
  readonly entries: readonly EntryLabel[];
  readonly editing: { readonly start: string | null } | null;
  readonly onAdd: (entry: { entry: string; name: string }) => void;
  readonly onRemove: (key: string) => void;
  readonly onLeave: (event: KeyboardEvent) => void;
  readonly onCancel: () => void;
}

/** Directory entries of a step, as paper labels; edited, one more is looked up or made on the spot. */
export function EntryCell({ kind, label, entries, editing, onAdd, onRemove, onLeave, onCancel }: EntryCellProps) {
  const directory = useEntries();
  const options = (typed: string): readonly CellOption[] => {
    const found = lookUp(directory.entries, kind, typed).slice(0, 8);
    const exact = found.some((entry) => foldedName(entry.name) === foldedName(typed));
    return [
      ...found.map((entry) => ({ id: entry.id, label: entry.name })),
      ...(typed.trim() !== "" && !exact ? [{ id: "", label: text.tray.createNew(typed.trim()) }] : []),
    ];
  };
  const choose = async (option: CellOption, typed: string) => {
    try {
      if (option.id) return onAdd({ entry: option.id, name: option.label });
      const made = await directory.create(kind, typed);
      onAdd({ entry: made.id, name: made.name });
    } catch (error) {
      complain(error);
    }
  };
  return (
    <Flex gap={1} align="center" h="100%" minW={0} overflow={editing ? "visible" : "hidden"}>
      {(!editing || entries.length < 2) &&
        entries.map((entry) => (
          <Label key={entry.key} entry={entry} hue={directory.entries.find((one) => one.id === entry.entry)?.hue} />
        ))}
      {editing && (
        <ChoiceCell
          label={label}
          start={editing.start}
          options={options}
          onChoose={(option, typed) => void choose(option, typed)}
          onTakeBack={() => {
            const last = entries.at(-1);
            if (last) onRemove(last.key);
          }}
          onLeave={onLeave}
          onCancel={onCancel}
        />
      )}
    </Flex>
  );
}

function Label({ entry, hue }: { readonly entry: EntryLabel; readonly hue: string | null | undefined }) {
  return (
    <chakra.span
      display="inline-flex"
      alignItems="center"
      gap={1.5}
      h="21px"
      px={1.5}
      bg="paper"
      borderWidth="1px"
      borderColor="line"
      borderRadius="5px"
      minW="28px"
      maxW="100%"
      title={entry.name}
    >
      {hue && (
        <chakra.span w="4px" h="13px" borderRadius="1px" style={{ background: hue }} flexShrink={0} aria-hidden />
      )}
      <chakra.span truncate>{entry.name}</chakra.span>
    </chakra.span>
  );
}
