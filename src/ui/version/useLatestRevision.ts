"use client";
import { useEffect } from "react";
import { inVersion } from "@/contract";
import { lookAgain, useAsked } from "../kernel/queries";
import { text } from "../messages";
import { useVersion } from "./VersionContext";

/** What the present state is called: the revision that holds it, or "the present state" with the last one before. */
export function useLatestRevision(): string {
  const version = useVersion((state) => state.info.version.id);
  const isStored = useVersion((state) => state.pending.length === 0);
  const { data } = useAsked(inVersion.listRevisions, { version });
  useEffect(() => {
    if (isStored) void lookAgain([{ kind: "version", id: version }]);
  }, [isStored, version]);
  const last = data?.revisions[0]?.number;
  return last === undefined
    ? text.check.head
    : data?.changedSince
      ? text.check.headAfter(last)
      : text.check.atRevision(last);
}
