"use client";
import { useEffect, useState } from "react";
import { inVersion } from "@/contract";
import { ask } from "../kernel/ask";
import { text } from "../messages";
import { useVersion } from "./VersionContext";

/**
 * What the present state is called: the revision that holds it, or "the present state" with the last one before. `kept` changes
 * when a revision was made.
 */
export function useLatestRevision(kept = 0): string {
  const version = useVersion((state) => state.info.version.id);
  const pending = useVersion((state) => state.pending.length);
  const [words, setWords] = useState<string>(text.check.head);
  useEffect(() => {
    let stale = false;
    ask(inVersion.listRevisions, { version })
      .then(({ revisions, changedSince }) => {
        if (stale) return;
        const last = revisions[0]?.number;
        setWords(
          last === undefined
            ? text.check.head
            : changedSince
              ? `${text.check.head}, after revision ${last}`
              : `revision ${last}`,
        );
      })
      .catch(() => {});
    return () => {
      stale = true;
    };
  }, [version, pending === 0, kept]);
  return words;
}
