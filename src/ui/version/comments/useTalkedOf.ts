"use client";
import { useMemo } from "react";
import { comments } from "@/contract";
import { useAsked } from "../../kernel/queries";
import { useVersion } from "../VersionContext";
import { openThreads } from "./openThreads";

/** How many threads are open about each sentence of the brief, by what it says. */
export function useTalkedOf(): ReadonlyMap<string, number> {
  const version = useVersion((state) => state.info.version.id);
  const { data } = useAsked(comments.listThreads, { version }, { keepsLast: true });
  return useMemo(() => openThreads(data?.threads ?? [], "sentence"), [data]);
}
