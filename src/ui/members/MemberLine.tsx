"use client";
import { Button, chakra, Flex } from "@chakra-ui/react";
import { useState } from "react";
import { membership } from "@/contract";
import type { MemberAccount, MemberRow } from "@/contract/members";
import { momentWords } from "../controls/moment";
import { complain } from "../controls/notices";
import { ask } from "../kernel/ask";
import { lookAgain } from "../kernel/queries";
import { text } from "../messages";
import { useAreas } from "./useAreas";

const words = text.members;

interface MemberLineProps {
  readonly member: MemberRow;
  readonly account: MemberAccount | undefined;
  readonly isMe: boolean;
  readonly signsIn: boolean;
  readonly onChange: () => void;
}

/** A member: seats, how they get in, and what can be done about it. */
export function MemberLine({ member, account, isMe, signsIn, onChange }: MemberLineProps) {
  const { id, name, seat, areas } = member;
  const known = useAreas();
  const [made, setMade] = useState<{ readonly link: string; readonly until: string }>();
  const act = async (deed: () => Promise<unknown>) => {
    try {
      await deed();
    } catch (error) {
      complain(error);
    }
    await lookAgain([{ kind: "workspace" }]);
  };
  const invite = () =>
    act(async () => {
      const { token, until } = await ask(membership.inviteMember, { id });
      setMade({ link: `${window.location.origin}/sign-in#invited=${token}`, until });
    });
  const remove = () => window.confirm(words.removeAsk(name)) && void act(() => ask(membership.removeMember, { id }));
  const inAreas = areas.map((one) =>
    words.inArea(words.seats[one.seat], known.find((area) => area.id === one.area)?.name ?? one.area),
  );
  return (
    <Flex
      as="li"
      gap={3}
      py={3}
      borderTopWidth="1px"
      borderColor="line"
      align="start"
      wrap="wrap"
      aria-label={name}
      data-member={id}
    >
      <chakra.div flex="1" minW="260px">
        <chakra.span fontWeight="700">{name}</chakra.span>
        {isMe && <chakra.span color="quiet"> ({words.you})</chakra.span>}
        <chakra.div fontSize="13px">
          <chakra.span fontWeight="600">{words.seats[seat]}</chakra.span>{" "}
          <chakra.span color="quiet">{words.may[seat]}</chakra.span>
        </chakra.div>
        {inAreas.length > 0 && <chakra.div fontSize="13px">{inAreas.join("; ")}</chakra.div>}
        {signsIn && account && (
          <chakra.div fontSize="12px" color="quiet">
            {[account.email ?? words.noAddress, standing(account)].filter(Boolean).join(", ")}
          </chakra.div>
        )}
        {made && (
          <chakra.div role="status" mt={2} fontSize="13px">
            <p>{words.made(name, momentWords(made.until))}</p>
            <chakra.code display="block" mt={1} overflowWrap="anywhere" userSelect="all">
              {made.link}
            </chakra.code>
          </chakra.div>
        )}
      </chakra.div>
      <Flex gap={2} wrap="wrap">
        <Button size="xs" variant="outline" aria-label={words.changeOf(name)} onClick={onChange}>
          {words.change}
        </Button>
        {signsIn && account?.email && (
          <>
            <Button size="xs" variant="outline" aria-label={words.inviteOf(name)} onClick={() => void invite()}>
              {words.invite}
            </Button>
            <Button
              size="xs"
              variant="outline"
              aria-label={words.signOutOf(name)}
              onClick={() => void act(() => ask(membership.signOutMember, { id }))}
            >
              {words.signOut}
            </Button>
          </>
        )}
        {!isMe && (
          <Button size="xs" variant="outline" color="trouble" aria-label={words.removeOf(name)} onClick={remove}>
            {words.remove}
          </Button>
        )}
      </Flex>
    </Flex>
  );
}

function standing({ canSignIn, email, signedInAt, invitedUntil, waits }: MemberAccount): string {
  if (waits > 0) return words.waits(waits);
  if (invitedUntil) return words.invited(momentWords(invitedUntil));
  if (signedInAt) return words.signedIn(momentWords(signedInAt));
  if (email === null) return "";
  return canSignIn ? words.never : words.noWay;
}
