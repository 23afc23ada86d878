"use client";
import { Box, Button, chakra, Flex } from "@chakra-ui/react";
import { useEffect, useState } from "react";
import { ErrorPage, LoadingPage } from "../controls/states";
import { aboutSession, type SessionState, sessionState } from "../kernel/session";
import { wordsOf } from "../kernel/wordsOf";
import { text } from "../messages";
import { Mark } from "../shell/Mark";
import { elsewhere } from "../shell/SignedOut";
import { type AskedLine, SignInForm, signInLines } from "../shell/SignInForm";

const words = text.signIn;
const newPassword = (): AskedLine => ({
  name: "password",
  label: words.password,
  type: "password",
  fills: "new-password",
});
const ownerLines = (): readonly AskedLine[] => [
  { name: "code", label: words.owner.code, type: "text", fills: "off" },
  { name: "name", label: words.owner.name, type: "text", fills: "name" },
  { name: "email", label: words.email, type: "email", fills: "username" },
  newPassword(),
];

/** A path of ours that somebody was on the way to. */
const ownPath = (to: string | null): string => (to && /^\/(?![/\\])[^\s\\]*$/.test(to) ? to : "/");

/** The door: for a member, for somebody with a link to set a password, for the very first owner. */
export function SignInPage() {
  const [state, setState] = useState<SessionState>();
  const [problem, setProblem] = useState<string>();
  const look = () => void sessionState().then(setState, (error) => setProblem(wordsOf(error)));
  useEffect(() => void sessionState().then(setState, (error) => setProblem(wordsOf(error))), []);
  if (problem !== undefined) return <ErrorPage message={problem} retry={look} />;
  if (!state) return <LoadingPage label={text.shell.loading} />;
  // After the hash: it is sent to no server, and stands in no log.
  const token = /^#invited=([\w-]+)$/.exec(window.location.hash)?.[1];
  const asked = new URLSearchParams(window.location.search);
  const to = ownPath(asked.get("to"));
  const send = (act: string, more: object, leadsTo: string) => async (values: object) => {
    await aboutSession(act, { ...values, ...more });
    window.location.assign(leadsTo);
  };
  if (!state.signsIn)
    return (
      <Door title={words.title}>
        <p>{words.notNeeded}</p>
        <chakra.a href="/" color="accent" textDecoration="underline">
          {words.toHome}
        </chakra.a>
      </Door>
    );
  if (!state.isOwned)
    return (
      <Door title={words.owner.title} explain={words.owner.explain}>
        <SignInForm lines={ownerLines()} action={words.owner.go} onSend={send("/owner", {}, "/")} />
      </Door>
    );
  if (token)
    return (
      <Door title={words.invited.title} explain={words.invited.explain}>
        <SignInForm lines={[newPassword()]} action={words.invited.go} onSend={send("/invitation", { token }, "/")} />
      </Door>
    );
  return (
    <Door title={words.title}>
      {asked.has("error") && (
        <chakra.p role="alert" color="trouble">
          {words.refused}
        </chakra.p>
      )}
      <SignInForm lines={signInLines()} action={words.go} onSend={send("", {}, to)} />
      {state.provider && (
        <Button asChild variant="outline" alignSelf="flex-start">
          <a href={elsewhere(to)}>{words.elsewhere(state.provider)}</a>
        </Button>
      )}
    </Door>
  );
}

function Door(props: { readonly title: string; readonly explain?: string; readonly children: React.ReactNode }) {
  const { title, explain, children } = props;
  return (
    <Flex as="main" minH="100%" align="center" justify="center" p={4} bg="sheet">
      <Flex
        direction="column"
        gap={4}
        w="100%"
        maxW="400px"
        bg="paper"
        borderWidth="1px"
        borderColor="line"
        borderRadius="6px"
        p={6}
      >
        <Flex align="center" gap={2} fontWeight="700">
          <Mark />
          {text.product}
        </Flex>
        <Box>
          <chakra.h1 fontSize="20px" fontWeight="700">
            {title}
          </chakra.h1>
          {explain && (
            <chakra.p color="quiet" mt={1}>
              {explain}
            </chakra.p>
          )}
        </Box>
        {children}
      </Flex>
    </Flex>
  );
}
