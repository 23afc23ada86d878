"use client";
import { Button, chakra, Flex } from "@chakra-ui/react";
import { useCallback, useEffect, useState } from "react";
import type { SessionRow } from "@/contract/members";
import { DialogFrame } from "../controls/DialogFrame";
import { momentWords } from "../controls/moment";
import { complain, tell } from "../controls/notices";
import { answerTo } from "../kernel/ask";
import { aboutSession } from "../kernel/session";
import { text } from "../messages";
import { type AskedLine, SignInForm } from "./SignInForm";

const words = text.signIn.own;
const lines = (): readonly AskedLine[] => [
  { name: "before", label: words.before, type: "password", fills: "current-password" },
  { name: "password", label: words.next, type: "password", fills: "new-password" },
];

/** One's own password, and where one is signed in. */
export function OwnAccess({ onClose }: { readonly onClose: () => void }) {
  const [sessions, setSessions] = useState<readonly SessionRow[]>([]);
  const [count, setCount] = useState(0);
  const look = useCallback(
    () =>
      answerTo<{ sessions: readonly SessionRow[] }>(fetch("/api/session/sessions")).then(
        (answer) => setSessions(answer.sessions),
        complain,
      ),
    [],
  );
  useEffect(() => void look(), [look]);
  return (
    <DialogFrame
      title={words.title}
      width="520px"
      onClose={onClose}
      footer={
        <Button variant="outline" onClick={onClose}>
          {text.dialog.close}
        </Button>
      }
    >
      <Flex direction="column" gap={5} data-testid="own-access">
        <SignInForm
          key={count}
          lines={lines()}
          action={words.change}
          onSend={async (values) => {
            await aboutSession("/password", values);
            tell({ description: words.changed });
            setCount(count + 1);
            await look();
          }}
        />
        <chakra.div>
          <chakra.h2 fontWeight="600">{words.sessions}</chakra.h2>
          <chakra.ul listStyleType="none">
            {sessions.map((session) => (
              <Flex as="li" key={session.id} gap={3} align="center" py={1.5} borderTopWidth="1px" borderColor="line">
                <chakra.span flex="1" minW={0} fontSize="13px">
                  {words.since(momentWords(session.at))}
                  {session.isThis && <chakra.strong> ({words.here})</chakra.strong>}
                  <chakra.div color="quiet" fontSize="12px" overflowWrap="anywhere">
                    {session.agent || words.unknown}
                  </chakra.div>
                </chakra.span>
                {!session.isThis && (
                  <Button
                    size="xs"
                    variant="outline"
                    aria-label={words.endOf(momentWords(session.at))}
                    onClick={() => void aboutSession("/end", { id: session.id }).then(look, complain)}
                  >
                    {words.end}
                  </Button>
                )}
              </Flex>
            ))}
          </chakra.ul>
        </chakra.div>
      </Flex>
    </DialogFrame>
  );
}
