"use client";
import { useMemo } from "react";
import { comments } from "@/contract";
import { useAsked } from "../../kernel/queries";
import { useVersion } from "../VersionContext";

/** How many threads are open about each sentence of the brief, by what it says. */
export function useTalkedOf(): ReadonlyMap<string, number> {
  const version = useVersion((state) => state.info.version.id);
  const { data } = useAsked(comments.listThreads, { version }, { keepsLast: true });
  return useMemo(() => {
    const found = new Map<string, number>();
    for (const { about, resolved } of data?.threads ?? [])
      if (about.kind === "sentence" && resolved === null) found.set(about.key, (found.get(about.key) ?? 0) + 1);
    return found;
  }, [data]);
}
