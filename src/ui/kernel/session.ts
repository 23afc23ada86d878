import { useStore } from "zustand";
import { createStore } from "zustand/vanilla";
import { anotherSession, answerTo } from "./ask";

/** How members sign in here, and who is signed in in this browser. */
export type SessionState =
  | { readonly signsIn: false }
  | {
      readonly signsIn: true;
      readonly isOwned: boolean;
      readonly provider: string | null;
      readonly member: { readonly id: string; readonly name: string } | null;
    };

export const sessionState = (): Promise<SessionState> => answerTo<SessionState>(fetch("/api/session"));

/** What one does about one's own access: signing in and out, passwords, sessions. */
export const aboutSession = (act: string, input: unknown, method = "POST"): Promise<unknown> =>
  answerTo(
    fetch(`/api/session${act}`, {
      method,
      headers: { "content-type": "application/json" },
      ...(method === "POST" && { body: JSON.stringify(input) }),
    }),
  );

export async function signOut(): Promise<void> {
  await aboutSession("", {}, "DELETE");
  window.location.assign("/sign-in");
}

/** Whether an answer said that the session has ended: until there is a new one, nothing is saved. */
const ended = createStore<{ readonly isSignedOut: boolean }>(() => ({ isSignedOut: false }));
export const sessionEnded = (): void => ended.setState({ isSignedOut: true });
export const sessionBegun = (): void => {
  anotherSession();
  ended.setState({ isSignedOut: false });
};
export const useSignedOut = (): boolean => useStore(ended, ({ isSignedOut }) => isSignedOut);
