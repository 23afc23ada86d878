"use client";
import { Box, chakra } from "@chakra-ui/react";
import { type KeyboardEvent, useCallback, useEffect, useId, useRef, useState } from "react";
import { OptionList } from "../../controls/OptionList";
import { hasLines } from "./pastedLines";

/** Pixels that the list of options takes at most. */
const listHeight = 240;

export interface CellOption {
  readonly id: string;
  readonly label: string;
}

interface ChoiceCellProps {
  readonly label: string;
  readonly start: string | null;
  readonly placeholder?: string;
  readonly options: (typed: string) => readonly CellOption[];
  readonly onChoose: (option: CellOption, typed: string) => void;
  /** Backspace in the empty field. */
  readonly onTakeBack?: () => void;
  readonly onLeave: (event: KeyboardEvent) => void;
  readonly onCancel: () => void;
}

/** A cell that is filled by choosing: what fits is listed as one types. Enter takes what is marked; an empty Enter goes on. */
export function ChoiceCell(props: ChoiceCellProps) {
  const { label, start, placeholder, options, onChoose, onTakeBack, onLeave, onCancel } = props;
  const [typed, setTyped] = useState(start ?? "");
  const [active, setActive] = useState(0);
  const [moved, setMoved] = useState(false);
  const listId = useId();
  // An option that is pressed is taken before the cell closes; one that closed already closes no other.
  const leaving = useRef<ReturnType<typeof setTimeout>>(undefined);
  useEffect(() => () => clearTimeout(leaving.current), []);
  const [side, setSide] = useState<"above" | "below">("below");
  // Near the lower edge of the sheet the list would stand out of sight.
  const placeList = useCallback((input: HTMLInputElement | null) => {
    const sheet = input?.closest("[role=treegrid]")?.parentElement?.getBoundingClientRect();
    const own = input?.getBoundingClientRect();
    if (sheet && own)
      setSide(own.bottom + listHeight > sheet.bottom && own.top - sheet.top > listHeight ? "above" : "below");
  }, []);
  const found = options(typed);
  const take = (at: number) => {
    const option = found[at];
    if (!option) return;
    onChoose(option, typed.trim());
    setTyped("");
    setActive(0);
    setMoved(false);
  };
  const onKeyDown = (event: KeyboardEvent) => {
    event.stopPropagation();
    const wants = typed.trim() !== "" || moved;
    if (event.key === "ArrowDown" || event.key === "ArrowUp") {
      if (event.altKey) return onLeave(event);
      setMoved(true);
      setActive((at) =>
        Math.max(0, Math.min(found.length - 1, at + (event.key === "ArrowDown" ? (moved ? 1 : 0) : -1))),
      );
    } else if (event.key === "Enter" && wants) take(active);
    else if (event.key === "Tab" && wants) {
      take(active);
      onLeave(event);
    } else if (event.key === "Enter" || event.key === "Tab" || (event.altKey && event.key !== "Alt")) onLeave(event);
    else if (event.key === "Escape") onCancel();
    else if (event.key === "Backspace" && typed === "" && onTakeBack) onTakeBack();
    else return;
    event.preventDefault();
  };
  return (
    <Box position="relative" flex="1" minW="90px">
      <chakra.input
        ref={placeList}
        autoFocus
        data-sheet-cell=""
        role="combobox"
        placeholder={placeholder}
        aria-label={label}
        aria-expanded="true"
        aria-controls={listId}
        aria-activedescendant={found[active] ? `${listId}-${active}` : undefined}
        value={typed}
        w="100%"
        h="24px"
        px={1}
        bg="paper"
        borderWidth="2px"
        borderColor="accent"
        borderRadius="4px"
        outline="none"
        onChange={(event) => {
          setTyped(event.target.value);
          setActive(0);
        }}
        onBlur={() => {
          leaving.current = setTimeout(onCancel, 120);
        }}
        onPaste={(event) => {
          if (!hasLines(event.clipboardData.getData("text/plain"))) return;
          event.preventDefault();
          onCancel();
        }}
        onKeyDown={onKeyDown}
      />
      <OptionList id={listId} label={label} options={found} active={active} side={side} onTake={take} />
    </Box>
  );
}
