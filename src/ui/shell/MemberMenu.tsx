"use client";
import { Box, Menu, Portal } from "@chakra-ui/react";
import dynamic from "next/dynamic";
import { useState } from "react";
import { membership } from "@/contract";
import { complain } from "../controls/notices";
import { useAsked } from "../kernel/queries";
import { signOut } from "../kernel/session";
import { language, text } from "../messages";
import { type Language, languages } from "../messages/languages";
import { chooseLanguage } from "./InLanguage";
import { MemberButton } from "./MemberButton";
import { chooseMember } from "./member";

const Programs = dynamic(() => import("./Programs").then((file) => file.Programs), { loading: () => null });
const OwnAccess = dynamic(() => import("./OwnAccess").then((file) => file.OwnAccess), { loading: () => null });

const words = text.member;

/**
 * Who one is, and what concerns the whole workspace. Loaded when it is first opened. Its items come all at once: what moves away under the
 * pointer when more come is not chosen, or something else is.
 */
export function MemberMenu({ onRestore }: { readonly onRestore: () => void }) {
  const { data, isPending } = useAsked(membership.listMembers, {});
  const [opened, setOpened] = useState<"programs" | "access">();
  const me = data?.members.find(({ id }) => id === data.me);
  const isOwner = data?.rights.includes("own") ?? false;
  return (
    <>
      <Menu.Root defaultOpen>
        <Menu.Trigger asChild>
          <MemberButton />
        </Menu.Trigger>
        <Portal>
          <Menu.Positioner>
            <Menu.Content bg="paper" color="ink" maxW="320px" aria-busy={isPending}>
              {isPending ? (
                <Box px={3} py={1} color="quiet">
                  {text.shell.loading}
                </Box>
              ) : (
                <>
                  <Box px={3} py={1} color="quiet" fontSize="12px">
                    {data?.signsIn ? (me?.name ?? "") : words.you}
                    {me && data?.signsIn && `, ${text.members.seats[me.seat]}`}
                  </Box>
                  {data && !data.signsIn && (
                    <Menu.RadioItemGroup
                      aria-label={words.choose}
                      value={data.me}
                      onValueChange={({ value }) => value !== data.me && chooseMember(value)}
                    >
                      {data.members.map(({ id, name, seat }) => (
                        <Menu.RadioItem key={id} value={id}>
                          <Box as="span" flex="1">
                            {name}
                            <Box as="span" color="quiet" fontSize="12px">
                              {" "}
                              {text.members.seats[seat]}
                            </Box>
                          </Box>
                          <Menu.ItemIndicator />
                        </Menu.RadioItem>
                      ))}
                    </Menu.RadioItemGroup>
                  )}
                  {data?.signsIn && (
                    <>
                      <Menu.Item value="access" onClick={() => setOpened("access")}>
                        {text.signIn.own.title}
                      </Menu.Item>
                      <Menu.Item value="out" onClick={() => void signOut().catch(complain)}>
                        {text.signIn.signOut}
                      </Menu.Item>
                    </>
                  )}
                  <Menu.Separator />
                  <Menu.RadioItemGroup
                    aria-label={text.shell.language}
                    value={language()}
                    onValueChange={({ value }) => value !== language() && chooseLanguage(value as Language)}
                  >
                    {Object.entries(languages).map(([code, name]) => (
                      <Menu.RadioItem key={code} value={code} lang={code}>
                        {name}
                        <Menu.ItemIndicator />
                      </Menu.RadioItem>
                    ))}
                  </Menu.RadioItemGroup>
                  <Menu.Separator />
                  <Menu.Item value="work" asChild>
                    <a href="/work">{text.work.title}</a>
                  </Menu.Item>
                  {isOwner && (
                    <>
                      <Menu.Item value="members" asChild>
                        <a href="/members">{text.members.title}</a>
                      </Menu.Item>
                      <Menu.Item value="programs" onClick={() => setOpened("programs")}>
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
                    </>
                  )}
                </>
              )}
            </Menu.Content>
          </Menu.Positioner>
        </Portal>
      </Menu.Root>
      {opened === "programs" && <Programs onClose={() => setOpened(undefined)} />}
      {opened === "access" && <OwnAccess onClose={() => setOpened(undefined)} />}
    </>
  );
}
