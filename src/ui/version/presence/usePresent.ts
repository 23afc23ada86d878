"use client";
import { nanoid } from "nanoid";
import { useEffect, useMemo, useRef } from "react";
import { membership, presence } from "@/contract";
import type { Here } from "@/contract/presence";
import { ask } from "../../kernel/ask";
import { onHere } from "../../kernel/events";
import { useAsked } from "../../kernel/queries";
import { useDiagram } from "../diagramStore";
import { useVersion } from "../VersionContext";
import { usePresence } from "./store";

/** This window, as long as its page is open. */
const ownWindow = nanoid(12);
/** Milliseconds between two words about where one is, at least; and at most, so that one is not taken to have gone. */
const [soonest, latest] = [300, 10_000];

/** Says where this window is, and hears where others are, for as long as the version is open. */
export function usePresent(stage: string): void {
  const version = useVersion((state) => state.info.version.id);
  const { data } = useAsked(membership.listMembers, {});
  const me = data?.me;
  const selection = useDiagram((state) => state.selection);
  const page = useDiagram((state) => state.page);
  // Who follows another has no view of their own: two who follow each other would never rest.
  const view = usePresence((state) => (state.following === null ? state.view : null));
  const place = useMemo(
    () => ({ window: ownWindow, version, stage, page, selection: selection.slice(0, 50), view, isGone: false }),
    [version, stage, page, selection, view],
  );
  const now = useRef(place);
  now.current = place;

  useEffect(() => {
    if (me === undefined) return;
    const { set } = usePresence.getState();
    set({ others: new Map(), following: null });
    /** Of one who says where they are, or of all who are here: then nobody else is. */
    const hear = (heard: readonly Here[], isAll = false) => {
      const known = new Map(isAll ? [] : usePresence.getState().others);
      for (const here of heard) {
        if (here.window === ownWindow || here.member === me || here.version !== version) known.delete(here.window);
        else if (here.isGone) known.delete(here.window);
        else known.set(here.window, { ...here, at: Date.now() });
      }
      const { following } = usePresence.getState();
      set({ others: known, ...(following !== null && !known.has(following) && { following: null }) });
    };
    const say = () =>
      // Not to be seen by others is no reason to be kept from anything.
      ask(presence.sayWhereIAm, now.current).then(
        ({ others }) => hear(others, true),
        () => undefined,
      );
    void say();
    const end = onHere((here) => hear([here]));
    const beat = setInterval(() => document.visibilityState !== "hidden" && void say(), latest);
    // Sent on behalf of a page that is gone already.
    const goes = () =>
      void fetch(`/api/do/${presence.sayWhereIAm.name}`, {
        method: "POST",
        keepalive: true,
        headers: { "content-type": "application/json" },
        body: JSON.stringify({ ...now.current, isGone: true }),
      }).catch(() => undefined);
    window.addEventListener("pagehide", goes);
    return () => {
      end();
      clearInterval(beat);
      window.removeEventListener("pagehide", goes);
      goes();
    };
  }, [version, me]);

  useEffect(() => {
    if (me === undefined) return;
    const timer = setTimeout(() => void ask(presence.sayWhereIAm, place).catch(() => undefined), soonest);
    return () => clearTimeout(timer);
  }, [place, me]);
}
