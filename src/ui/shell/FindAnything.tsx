"use client";
import { Box, Dialog, Flex, Portal, Text } from "@chakra-ui/react";
import { Command as Palette } from "cmdk";
import { useRouter } from "next/navigation";
import { useEffect, useState } from "react";
import { ask } from "../api";
import { Keycap } from "../controls/Keycap";
import { text } from "../messages";
import "./findAnything.css";
import { type PaletteCommand, usePalette } from "./paletteStore";

interface Found {
  readonly kind: "process" | "element" | "entry";
  readonly title: string;
  readonly detail: string;
  readonly version?: string;
  readonly element?: string;
  readonly entry?: string;
}

/** Ctrl+K: anything by a part of its name, and every command of the screen. */
export function FindAnything({
  commands,
  onClose,
}: {
  readonly commands: readonly PaletteCommand[];
  readonly onClose: () => void;
}) {
  const [typed, setTyped] = useState("");
  const [found, setFound] = useState<readonly Found[]>([]);
  const router = useRouter();
  useEffect(() => {
    if (typed.trim() === "") {
      setFound([]);
      return;
    }
    let stale = false;
    const timer = setTimeout(() => {
      ask<{ found: Found[] }>("find", { text: typed.slice(0, 100) })
        .then((answer) => !stale && setFound(answer.found))
        .catch(() => !stale && setFound([]));
    }, 120);
    return () => {
      stale = true;
      clearTimeout(timer);
    };
  }, [typed]);
  // As they were when the palette opened: it is about what was chosen then.
  const [stage] = useState(() => usePalette.getState().stage());
  const all = [...commands.filter((one) => one.isFirst), ...stage, ...commands.filter((one) => !one.isFirst)];
  const matching = all.filter((command) => command.title.toLowerCase().includes(typed.trim().toLowerCase()));
  const choose = (run: () => void) => {
    onClose();
    // Once the palette has given the focus back: that would count as leaving a dialog that is open already, and close it.
    setTimeout(run, 60);
  };
  const goTo = (item: Found) => {
    if (item.entry) router.push(`/directory?entry=${encodeURIComponent(item.entry)}`);
    else
      router.push(
        `/v/${encodeURIComponent(item.version ?? "")}/diagram${item.element ? `?element=${encodeURIComponent(item.element)}` : ""}`,
      );
  };
  return (
    <Dialog.Root
      open
      onOpenChange={({ open }) => !open && onClose()}
      placement="top"
      initialFocusEl={() => document.getElementById("find-anything")}
    >
      <Portal>
        <Dialog.Backdrop bg="rgb(30 36 48 / 35%)" />
        <Dialog.Positioner>
          <Dialog.Content bg="paper" color="ink" borderRadius="6px" maxW="560px" mt="64px" overflow="hidden">
            <Dialog.Title srOnly>{text.shell.find}</Dialog.Title>
            <Palette shouldFilter={false} label={text.shell.find} className="find">
              <Palette.Input
                id="find-anything"
                value={typed}
                onValueChange={setTyped}
                placeholder={text.shell.find}
                aria-label={text.shell.find}
              />
              <Palette.List aria-label={text.shell.find}>
                <Palette.Empty>{typed.trim() === "" ? text.shell.findHint : text.shell.findEmpty}</Palette.Empty>
                {matching.slice(0, typed.trim() === "" ? 10 : 8).map((command) => (
                  <Palette.Item key={command.id} value={command.id} onSelect={() => choose(command.run)}>
                    <Text flex="1">{command.title}</Text>
                    {command.keys && <Keycap>{command.keys}</Keycap>}
                  </Palette.Item>
                ))}
                {found.map((item) => (
                  <Palette.Item
                    key={`${item.kind}-${item.version ?? ""}-${item.element ?? item.entry ?? ""}`}
                    value={`${item.kind}-${item.version ?? ""}-${item.element ?? item.entry ?? ""}`}
                    onSelect={() => choose(() => goTo(item))}
                  >
                    <Flex flex="1" minW={0} gap={3} align="baseline">
                      <Text truncate fontWeight="600">
                        {item.title}
                      </Text>
                      <Box color="quiet" fontSize="12px" truncate>
                        {item.detail}
                      </Box>
                    </Flex>
                  </Palette.Item>
                ))}
              </Palette.List>
            </Palette>
          </Dialog.Content>
        </Dialog.Positioner>
      </Portal>
    </Dialog.Root>
  );
}
