"use client";
import { Button, chakra, Flex } from "@chakra-ui/react";
import { useState } from "react";
import type { Said, ThreadRow } from "@/contract/comments";
import { Choice } from "../../controls/fields";
import { momentWords } from "../../controls/moment";
import { text } from "../../messages";
import type { Threads } from "./useThreads";
import { Writing } from "./Writing";

const words = text.comments;
const quietly = (done: Promise<unknown>) => void done.catch(() => undefined);

/** A thread: what it is about, what was said, who sees to it; answered, resolved, opened again. */
export function ThreadView(props: {
  readonly thread: ThreadRow;
  /** What it is about is called so now; undefined where that is not there any more. */
  readonly name: string | undefined;
  readonly of: Threads;
  readonly onShow: (() => void) | undefined;
}) {
  const { thread, name, of, onShow } = props;
  const { id, about, said, assigned, resolved } = thread;
  const { members, me } = of;
  const called = name ?? about.words;
  return (
    <chakra.li
      borderTopWidth="1px"
      borderColor="line"
      px={4}
      py={3}
      data-testid="thread"
      data-resolved={resolved !== null}
      listStyleType="none"
    >
      <Flex gap={2} align="center" mb={1}>
        {onShow ? (
          <chakra.button
            type="button"
            color="accent"
            fontWeight="700"
            textAlign="start"
            cursor="pointer"
            flex="1"
            minW={0}
            aria-label={words.show(called)}
            onClick={onShow}
          >
            {called}
          </chakra.button>
        ) : (
          <chakra.span fontWeight="700" flex="1">
            {about.kind === "version" ? words.version : `${called} (${words.gone})`}
          </chakra.span>
        )}
        <Button size="2xs" variant="outline" onClick={() => quietly(of.settle(id, resolved === null))}>
          {resolved === null ? words.resolve : words.reopen}
        </Button>
      </Flex>
      <Flex as="ol" direction="column" gap={2} listStyleType="none">
        {said.map((one) => (
          <Contribution key={one.id} one={one} thread={id} of={of} isOwn={one.member === me} />
        ))}
      </Flex>
      {resolved !== null ? (
        <chakra.p color="quiet" fontSize="12px" mt={1}>
          {words.resolvedBy(resolved.name, momentWords(resolved.at))}
        </chakra.p>
      ) : (
        <Flex direction="column" gap={2} mt={2}>
          <Writing
            label={`${words.answer}: ${called}`}
            hint={words.answerHint}
            action={words.answer}
            members={members}
            onSend={(typed, mentions) => of.answer(id, typed, mentions)}
          />
          <Flex gap={2} align="center" fontSize="12px">
            <chakra.span color="quiet">{words.assigned}</chakra.span>
            <Choice
              label={`${words.assigned}: ${called}`}
              value={assigned ?? ""}
              options={[["", words.nobody], ...members.map((member) => [member.id, member.name] as const)]}
              onChoose={(value) => quietly(of.assign(id, value === "" ? null : value))}
            />
            <chakra.span flex="1" />
            {said[0]?.member === me && (
              <Button size="2xs" variant="ghost" onClick={() => quietly(of.remove(id))}>
                {words.delete}
              </Button>
            )}
          </Flex>
        </Flex>
      )}
    </chakra.li>
  );
}

function Contribution(props: {
  readonly one: Said;
  readonly thread: string;
  readonly of: Threads;
  readonly isOwn: boolean;
}) {
  const { one, thread, of, isOwn } = props;
  const [isEditing, setEditing] = useState(false);
  return (
    <chakra.li>
      <Flex gap={2} fontSize="12px" color="quiet" align="center">
        <chakra.span color="ink" fontWeight="600">
          {one.name}
        </chakra.span>
        <span>{momentWords(one.at)}</span>
        {one.editedAt !== null && <span>{words.edited}</span>}
        <chakra.span flex="1" />
        {isOwn && !isEditing && (
          <chakra.button type="button" color="accent" minH="24px" cursor="pointer" onClick={() => setEditing(true)}>
            {words.edit}
          </chakra.button>
        )}
      </Flex>
      {isEditing ? (
        <Writing
          label={words.edit}
          hint=""
          action={words.keep}
          start={one.text}
          members={of.members}
          onCancel={() => setEditing(false)}
          onSend={async (typed, mentions) => {
            await of.edit(thread, one.id, typed, mentions);
            setEditing(false);
          }}
        />
      ) : (
        <chakra.p whiteSpace="pre-line" overflowWrap="anywhere">
          {one.text}
        </chakra.p>
      )}
    </chakra.li>
  );
}
