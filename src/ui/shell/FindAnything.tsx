"use client";
import { Box, Flex, Text } from "@chakra-ui/react";
import { Command as Palette } from "cmdk";
import { useRouter } from "next/navigation";
import { useState } from "react";
import { finding } from "@/contract";
import type { Found } from "@/contract/find";
import { Keycap } from "../controls/Keycap";
import { closeThen, PaletteDialog } from "../controls/PaletteDialog";
import { useAsked } from "../kernel/queries";
import { useRested } from "../kernel/useRested";
import { text } from "../messages";
import { type PaletteCommand, usePalette } from "./paletteStore";

const none: readonly Found[] = [];

/** Ctrl+K: anything by a part of its name, and every command of the screen. */
export function FindAnything({
  commands,
  onClose,
}: {
  readonly commands: readonly PaletteCommand[];
  readonly onClose: () => void;
}) {
  const { typed, setTyped } = usePalette();
  const router = useRouter();
  const wanted = useRested(typed.trim().slice(0, 100), 120);
  const isWanted = wanted !== "" && typed.trim() !== "";
  const found = useAsked(finding.find, { text: wanted }, { isWanted, keepsLast: true }).data?.found ?? none;
  // As they were when the palette opened: it is about what was chosen then.
  const [stage] = useState(() => usePalette.getState().stage());
  const all = [...commands.filter((one) => one.isFirst), ...stage, ...commands.filter((one) => !one.isFirst)];
  const matching = all.filter((command) => command.title.toLowerCase().includes(typed.trim().toLowerCase()));
  const choose = (run: () => void) => closeThen(onClose, run);
  const goTo = (item: Found) => {
    if (item.file)
      router.push(
        `/decisions/${encodeURIComponent(item.file)}${item.decision ? `?decision=${encodeURIComponent(item.decision)}` : ""}`,
      );
    else if (item.entry) router.push(`/directory?entry=${encodeURIComponent(item.entry)}`);
    else
      router.push(
        `/v/${encodeURIComponent(item.version ?? "")}/diagram${item.element ? `?element=${encodeURIComponent(item.element)}` : ""}`,
      );
  };
  return (
    <PaletteDialog
      title={text.shell.find}
      placeholder={text.shell.find}
      typed={typed}
      onType={setTyped}
      empty={typed.trim() === "" ? text.shell.findHint : text.shell.findEmpty}
      width="560px"
      onClose={onClose}
    >
      {matching.slice(0, typed.trim() === "" ? 10 : 8).map((command) => (
        <Palette.Item key={command.id} value={command.id} onSelect={() => choose(command.run)}>
          <Text flex="1">{command.title}</Text>
          {command.keys && <Keycap>{command.keys}</Keycap>}
        </Palette.Item>
      ))}
      {(isWanted ? found : none).map((item) => (
        <Palette.Item
          key={`${item.kind}-${item.version ?? ""}-${item.element ?? item.entry ?? `${item.file} ${item.decision}`}`}
          value={`${item.kind}-${item.version ?? ""}-${item.element ?? item.entry ?? `${item.file} ${item.decision}`}`}
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
      {typed.trim() !== "" && (
        <Palette.Item
          value="find-in-all"
          onSelect={() => choose(() => router.push(`/find?text=${encodeURIComponent(typed.trim())}`))}
        >
          <Text flex="1">{text.find.inAll(typed.trim())}</Text>
        </Palette.Item>
      )}
    </PaletteDialog>
  );
}
