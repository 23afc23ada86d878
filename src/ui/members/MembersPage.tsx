"use client";
import { Button, chakra, Flex } from "@chakra-ui/react";
import { useState } from "react";
import { membership } from "@/contract";
import type { MemberRow } from "@/contract/members";
import { Segments } from "../controls/Segments";
import { ErrorPage, LoadingPage } from "../controls/states";
import { useAsked } from "../kernel/queries";
import { text } from "../messages";
import { TopRow } from "../shell/TopRow";
import { Audit } from "./Audit";
import { MemberDialog } from "./MemberDialog";
import { MemberLine } from "./MemberLine";

const words = text.members;

/** Who has access, to what; and what was done. For owners. */
export function MembersPage() {
  const { data, error, refetch } = useAsked(membership.listMembers, {}, { keepsLast: true });
  const isOwner = data?.rights.includes("own") ?? false;
  const { data: known } = useAsked(membership.listAccounts, {}, { isWanted: isOwner, keepsLast: true });
  const [part, setPart] = useState<"members" | "done">("members");
  const [opened, setOpened] = useState<MemberRow | "new">();
  if (error && !data) return <ErrorPage message={error.message} retry={() => void refetch()} />;
  if (!data) return <LoadingPage label={text.shell.loading} />;
  const accountOf = (id: string) => known?.accounts.find((one) => one.id === id);
  return (
    <Flex direction="column" h="100%">
      <TopRow
        trail={
          <chakra.h1 color="ink" fontWeight="700">
            {words.title}
          </chakra.h1>
        }
      />
      <Flex as="main" id="content" direction="column" flex="1" minH={0} overflow="auto" p={6} gap={4} tabIndex={-1}>
        {!isOwner ? (
          <p>{words.notAllowed}</p>
        ) : (
          <Flex direction="column" gap={4} maxW="1000px" w="100%" mx="auto">
            <Flex gap={3} align="center" wrap="wrap">
              <Segments
                label={words.title}
                value={part}
                options={[
                  ["members", words.parts.members],
                  ["done", words.parts.done],
                ]}
                onChoose={setPart}
              />
              {part === "members" && (
                <Button size="sm" bg="accent" color="onAccent" ms="auto" onClick={() => setOpened("new")}>
                  {words.add}
                </Button>
              )}
            </Flex>
            {part === "done" ? (
              <Audit members={data.members} />
            ) : (
              <>
                <chakra.p color="quiet">{data.signsIn ? words.explain : words.demo}</chakra.p>
                <chakra.ul listStyleType="none" data-testid="members">
                  {data.members.map((member) => (
                    <MemberLine
                      key={member.id}
                      member={member}
                      account={accountOf(member.id)}
                      isMe={member.id === data.me}
                      signsIn={data.signsIn}
                      onChange={() => setOpened(member)}
                    />
                  ))}
                </chakra.ul>
              </>
            )}
          </Flex>
        )}
      </Flex>
      {opened && (
        <MemberDialog
          {...(opened !== "new" && { member: opened, account: accountOf(opened.id) })}
          signsIn={data.signsIn}
          onClose={() => setOpened(undefined)}
        />
      )}
    </Flex>
  );
}
