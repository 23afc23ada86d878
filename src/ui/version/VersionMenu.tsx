"use client";
import { Box, Menu, Portal } from "@chakra-ui/react";
import { Check as Tick } from "lucide-react";
import { useRouter } from "next/navigation";
import { text } from "../messages";
import { useVersion } from "./VersionContext";
import { VersionMenuButton } from "./VersionMenuButton";

/** The versions of this process, and what can be done with this one. Loaded when it is first opened. */
export function VersionMenu({
  onStart,
  onRevisions,
  onExport,
}: {
  readonly onStart: () => void;
  readonly onRevisions: () => void;
  readonly onExport: () => void;
}) {
  const info = useVersion((state) => state.info);
  const router = useRouter();
  const name = encodeURIComponent(`${info.process.name} ${info.version.name}`);
  const exportPath = (format: string) =>
    `/api/export?version=${encodeURIComponent(info.version.id)}&format=${format}&name=${name}`;
  return (
    <Menu.Root defaultOpen>
      <Menu.Trigger asChild>
        <VersionMenuButton name={info.version.name} />
      </Menu.Trigger>
      <Portal>
        <Menu.Positioner>
          <Menu.Content bg="paper" color="ink" minW="240px">
            {info.siblings.map((sibling) => (
              <Menu.Item
                key={sibling.id}
                value={sibling.id}
                onClick={() => router.push(`/v/${encodeURIComponent(sibling.id)}/diagram`)}
              >
                <Box flex="1">{sibling.name}</Box>
                {sibling.id === info.version.id && <Tick size={14} aria-hidden />}
              </Menu.Item>
            ))}
            <Menu.Separator borderColor="line" />
            <Menu.Item value="start" onClick={onStart}>
              {text.version.start}
            </Menu.Item>
            <Menu.Item value="revisions" onClick={onRevisions}>
              {text.version.revisions}
            </Menu.Item>
            <Menu.Separator borderColor="line" />
            <Menu.Item value="bpmn" asChild>
              <a href={exportPath("bpmn")} download>
                {text.version.export}: {text.version.bpmn}
              </a>
            </Menu.Item>
            <Menu.Item value="picture" onClick={onExport}>
              {text.exporting.open}
            </Menu.Item>
          </Menu.Content>
        </Menu.Positioner>
      </Portal>
    </Menu.Root>
  );
}
