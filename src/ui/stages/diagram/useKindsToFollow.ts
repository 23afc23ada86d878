"use client";
import { useMemo, useRef } from "react";
import { type Kind, kindsThatMayFollow } from "@/core/commands";
import type { Element, Model } from "@/core/model";

const none: readonly Kind[] = [];

/** What may follow the chosen element: the same list as before, where a change of the model did not change it. */
export function useKindsToFollow(model: Model, chosen: Element | undefined, several: boolean): readonly Kind[] {
  const last = useRef(none);
  return useMemo(() => {
    const kinds = several ? none : kindsThatMayFollow(model, chosen);
    if (JSON.stringify(kinds) !== JSON.stringify(last.current)) last.current = kinds;
    return last.current;
  }, [model, chosen, several]);
}
