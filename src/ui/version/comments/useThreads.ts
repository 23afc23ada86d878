"use client";
import { nanoid } from "nanoid";
import { useCallback } from "react";
import { comments, membership } from "@/contract";
import type { About, ThreadRow } from "@/contract/comments";
import { complain } from "../../controls/notices";
import { ask } from "../../kernel/ask";
import { doAct } from "../../kernel/history";
import { lookAgain, useAsked } from "../../kernel/queries";
import { text } from "../../messages";
import { useVersion } from "../VersionContext";

const words = text.comments;
const nothing: readonly ThreadRow[] = [];

/** The threads of the open version, who there is, and what can be done with them; each act can be taken back. */
export function useThreads() {
  const version = useVersion((state) => state.info.version.id);
  const { data } = useAsked(comments.listThreads, { version }, { keepsLast: true });
  const { data: people } = useAsked(membership.listMembers, {});
  /** Does something, and looks again; what could not be done is told, and whoever asked learns of it. */
  const doing = useCallback(
    async <Output>(label: string, act: () => Promise<Output>, back: (output: Output) => Promise<unknown>) => {
      try {
        await doAct(label, act, back);
      } catch (error) {
        complain(error);
        throw error;
      } finally {
        await lookAgain([{ kind: "version", id: version }]);
      }
    },
    [version],
  );
  const start = (about: About, said: string, mentions: readonly string[]) => {
    const of = { version, thread: nanoid(12) };
    const begin = { ...of, said: nanoid(12), about, text: said, mentions: [...mentions], assigned: null };
    return doing(
      words.saying,
      async () => {
        await ask(comments.startThread, begin);
        // Brought again after it was taken back.
        await ask(comments.restoreThread, of);
      },
      () => ask(comments.deleteThread, of),
    );
  };
  const answer = async (thread: string, said: string, mentions: readonly string[]) => {
    try {
      const sent = { version, thread, said: nanoid(12), text: said, mentions: [...mentions] };
      await ask(comments.answerThread, sent);
    } catch (error) {
      complain(error);
      throw error;
    } finally {
      await lookAgain([{ kind: "version", id: version }]);
    }
  };
  const edit = (thread: string, said: string, written: string, mentions: readonly string[]) =>
    doing(
      words.editing,
      () => ask(comments.editSaid, { version, thread, said, text: written, mentions: [...mentions] }),
      ({ before }) =>
        ask(comments.editSaid, { version, thread, said, text: before.text, mentions: [...before.mentions] }),
    );
  const settle = (thread: string, isResolved: boolean) =>
    doing(
      isResolved ? words.resolving : words.reopening,
      () => ask(comments.settleThread, { version, thread, isResolved }),
      () => ask(comments.settleThread, { version, thread, isResolved: !isResolved }),
    );
  const assign = (thread: string, assigned: string | null) =>
    doing(
      words.assigning,
      () => ask(comments.assignThread, { version, thread, assigned }),
      ({ before }) => ask(comments.assignThread, { version, thread, assigned: before }),
    );
  const remove = (thread: string) =>
    doing(
      words.deleting,
      () => ask(comments.deleteThread, { version, thread }),
      () => ask(comments.restoreThread, { version, thread }),
    );
  return {
    threads: data?.threads ?? nothing,
    members: people?.members ?? [],
    me: people?.me,
    start,
    answer,
    edit,
    settle,
    assign,
    remove,
  };
}

export type Threads = ReturnType<typeof useThreads>;
