"use client";
import { Button, chakra, Flex } from "@chakra-ui/react";
import { useEffect, useState } from "react";
import { DialogFrame } from "../controls/DialogFrame";
import { whenSignedOut } from "../kernel/ask";
import { lookAgain } from "../kernel/queries";
import {
  aboutSession,
  type SessionState,
  sessionBegun,
  sessionEnded,
  sessionState,
  useSignedOut,
} from "../kernel/session";
import { text } from "../messages";
import { SignInForm, signInLines } from "./SignInForm";

const words = text.signIn;

/** Over whatever page is open, when its session has ended: what is not saved stays, and goes on when somebody has signed in again. */
export function SignedOut() {
  const isSignedOut = useSignedOut();
  const [state, setState] = useState<SessionState>();
  useEffect(() => whenSignedOut(sessionEnded), []);
  useEffect(() => {
    if (isSignedOut) void sessionState().then(setState, () => undefined);
  }, [isSignedOut]);
  if (!isSignedOut || window.location.pathname === "/sign-in") return null;
  return (
    <DialogFrame title={words.expired.title} width="420px" isAlert footer={null}>
      <Flex direction="column" gap={4} pb={4} data-testid="signed-out">
        <chakra.p color="quiet">{words.expired.explain}</chakra.p>
        <SignInForm
          lines={signInLines()}
          action={words.go}
          onSend={async (values) => {
            await aboutSession("", values);
            sessionBegun();
            await lookAgain([{ kind: "workspace" }]);
          }}
        />
        {state?.signsIn && state.provider && (
          <Button asChild variant="outline" alignSelf="flex-start">
            <a href={elsewhere(window.location.pathname + window.location.search)}>{words.elsewhere(state.provider)}</a>
          </Button>
        )}
      </Flex>
    </DialogFrame>
  );
}

/** The way to the provider that vouches for members, and back to a page. */
export const elsewhere = (to: string): string => `/api/session/elsewhere?to=${encodeURIComponent(to)}`;
