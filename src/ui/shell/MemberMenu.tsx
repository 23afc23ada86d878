"use client";
import { Box, Menu, Portal } from "@chakra-ui/react";
import { nanoid } from "nanoid";
import dynamic from "next/dynamic";
import { useState } from "react";
import { directory, live } from "@/contract";
import { AskDialog } from "../controls/AskDialog";
import { ask } from "../kernel/ask";
import { lookAgain, useAsked } from "../kernel/queries";
import { text } from "../messages";
import { MemberButton } from "./MemberButton";
import { chooseMember } from "./member";

const Programs = dynamic(() => import("./Programs").then((file) => file.Programs), { loading: () => null });

const words = text.member;

/** Who one is, and what concerns the whole workspace. Loaded when it is first opened. */
export function MemberMenu({ onRestore }: { readonly onRestore: () => void }) {
  const { data } = useAsked(live.listMembers, {});
  const { data: known } = useAsked(directory.openDirectory, {});
  const [isAdding, setAdding] = useState(false);
  const [isGivingKeys, setGivingKeys] = useState(false);
  const [roles, setRoles] = useState<readonly string[]>([]);
  const listed = (known?.entries ?? []).filter(({ kind }) => kind === "role");
  return (
    <>
      <Menu.Root defaultOpen>
        <Menu.Trigger asChild>
          <MemberButton />
        </Menu.Trigger>
        <Portal>
          <Menu.Positioner>
            <Menu.Content bg="paper" color="ink">
              <Box px={3} py={1} color="quiet" fontSize="12px">
                {words.you}
              </Box>
              <Menu.RadioItemGroup
                aria-label={words.choose}
                value={data?.me ?? ""}
                onValueChange={({ value }) => value !== data?.me && chooseMember(value)}
              >
                {data?.members.map(({ id, name }) => (
                  <Menu.RadioItem key={id} value={id}>
                    {name}
                    <Menu.ItemIndicator />
                  </Menu.RadioItem>
                ))}
              </Menu.RadioItemGroup>
              <Menu.Item value="add" onClick={() => setAdding(true)}>
                {words.add}
              </Menu.Item>
              <Menu.Separator />
              <Menu.Item value="work" asChild>
                <a href="/work">{text.work.title}</a>
              </Menu.Item>
              <Menu.Item value="programs" onClick={() => setGivingKeys(true)}>
                {text.programs.title}
              </Menu.Item>
              <Menu.Item value="backup" asChild>
                <a href="/api/backup" download>
                  {text.shell.backup}
                </a>
              </Menu.Item>
              <Menu.Item value="restore" onClick={onRestore}>
                {text.shell.restore}
              </Menu.Item>
            </Menu.Content>
          </Menu.Positioner>
        </Portal>
      </Menu.Root>
      {isGivingKeys && <Programs onClose={() => setGivingKeys(false)} />}
      {isAdding && (
        <AskDialog
          title={words.add}
          label={words.name}
          action={words.add}
          onClose={() => setAdding(false)}
          onAnswer={async (name) => {
            await ask(live.setMember, { id: nanoid(12), name, roles: [...roles] });
            await lookAgain([{ kind: "workspace" }]);
          }}
        >
          <Box as="fieldset" mt={3}>
            <Box as="legend" fontSize="13px" fontWeight="600">
              {words.roles}
            </Box>
            {listed.map(({ id, name }) => (
              <Box as="label" key={id} display="flex" gap={2} alignItems="center">
                <input
                  type="checkbox"
                  checked={roles.includes(id)}
                  onChange={(event) =>
                    setRoles(event.target.checked ? [...roles, id] : roles.filter((one) => one !== id))
                  }
                />
                {name}
              </Box>
            ))}
          </Box>
        </AskDialog>
      )}
    </>
  );
}
