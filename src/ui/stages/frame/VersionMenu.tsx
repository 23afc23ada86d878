"use client";
import { Box, Menu, Portal } from "@chakra-ui/react";
import { Check as Tick } from "lucide-react";
import { useRouter } from "next/navigation";
import { home } from "@/contract";
import { complain, tell } from "../../controls/notices";
import { ask } from "../../kernel/ask";
import { doDelete } from "../../kernel/deletions";
import { undoLast } from "../../kernel/history";
import { text } from "../../messages";
import { useVersion } from "../../version/VersionContext";
import type { VersionQuestion } from "./VersionDialogs";
import { VersionMenuButton } from "./VersionMenuButton";

/** The versions of this process, and what can be done with this one. Loaded when it is first opened. */
export function VersionMenu({ onAsk }: { readonly onAsk: (question: VersionQuestion) => void }) {
  const info = useVersion((state) => state.info);
  const router = useRouter();
  const name = encodeURIComponent(`${info.process.name} ${info.version.name}`);
  const exportPath = (format: string) =>
    `/api/export?version=${encodeURIComponent(info.version.id)}&format=${format}&name=${name}`;
  /** Gone from the list, and back with a click as long as the note stands. */
  const remove = async () => {
    await doDelete(text.home.removed(info.version.name), () => ask(home.deleteVersion, { id: info.version.id }));
    const other = info.siblings.find(({ id }) => id !== info.version.id);
    router.push(other ? `/v/${encodeURIComponent(other.id)}/diagram` : "/");
    tell({
      description: text.version.removed(info.version.name),
      action: {
        label: text.version.bringBack,
        onClick: () => void undoLast().then(() => router.refresh(), complain),
      },
    });
  };
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
                <Box flex="1">
                  {sibling.name}
                  {(sibling.adoptedAt || sibling.aim || sibling.builds) && (
                    <Box color="quiet" fontSize="12px" maxW="320px">
                      {[
                        sibling.adoptedAt && text.version.wasAdopted,
                        sibling.aim,
                        sibling.builds && text.version.builds(text.handoff.builds.states[sibling.builds]),
                      ]
                        .filter(Boolean)
                        .join(" ")}
                    </Box>
                  )}
                </Box>
                {sibling.id === info.version.id && <Tick size={14} aria-hidden />}
              </Menu.Item>
            ))}
            <Menu.Separator borderColor="line" />
            <Menu.Item value="start" onClick={() => onAsk("to-be")}>
              {text.version.start}
            </Menu.Item>
            <Menu.Item value="describe" onClick={() => onAsk("describe")}>
              {text.version.describe}
            </Menu.Item>
            {info.version.kind === "to-be" && (
              <>
                <Menu.Item value="adopt" onClick={() => onAsk("adopt")}>
                  {text.version.adopt}
                </Menu.Item>
                <Menu.Item value="delete" onClick={() => remove().catch(complain)}>
                  {text.version.remove}
                </Menu.Item>
              </>
            )}
            <Menu.Item value="history" onClick={() => onAsk("history")}>
              {text.version.history}
            </Menu.Item>
            <Menu.Separator borderColor="line" />
            <Menu.Item value="bpmn" asChild>
              <a href={exportPath("bpmn")} download>
                {text.version.export}: {text.version.bpmn}
              </a>
            </Menu.Item>
            <Menu.Item value="links" onClick={() => onAsk("links")}>
              {text.links.open}
            </Menu.Item>
            <Menu.Item value="picture" onClick={() => onAsk("export")}>
              {text.exporting.open}
            </Menu.Item>
          </Menu.Content>
        </Menu.Positioner>
      </Portal>
    </Menu.Root>
  );
}
