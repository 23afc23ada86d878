"use client";
import { useCallback, useMemo } from "react";
import { handoff, inVersion } from "@/contract";
import { type Model, trustStored } from "@/core/model";
import { lookAgain, useAsked } from "../../kernel/queries";
import { wordsOf } from "../../kernel/wordsOf";
import { text } from "../../messages";
import { useVersion } from "../../version/VersionContext";

/** What may stand on a side: what a version holds now, one of its kept states, its developers' file, or a file. */
export type SideRef =
  | { readonly kind: "version"; readonly version: string }
  | { readonly kind: "revision"; readonly version: string; readonly number: number }
  | { readonly kind: "build"; readonly version: string; readonly copy: string }
  | { readonly kind: "file"; readonly name: string; readonly model: Model };

export interface Side {
  readonly ref: SideRef;
  readonly title: string;
  readonly model: Model;
  /** The version whose present state this is: only that can be changed from here. */
  readonly head: { readonly version: string; readonly sequence: number; readonly isOpen: boolean } | null;
  readonly process: string;
}

/** As it stands in an address: "version", "version@7" for revision 7, or "version~copy" for a build copy. */
export const readRef = (words: string | null): SideRef | undefined => {
  if (!words) return undefined;
  const [, version, number, copy] = /^(.+?)(?:@(\d+)|~([\w-]+))?$/.exec(words) ?? [];
  if (!version) return undefined;
  if (copy) return { kind: "build", version, copy };
  return number ? { kind: "revision", version, number: Number(number) } : { kind: "version", version };
};
export function writeRef(ref: SideRef): string {
  switch (ref.kind) {
    case "file":
      return "file";
    case "revision":
      return `${ref.version}@${ref.number}`;
    case "build":
      return `${ref.version}~${ref.copy}`;
    default:
      return ref.version;
  }
}

export type LoadedSide =
  | { readonly state: "none" | "loading" }
  | { readonly state: "there"; readonly side: Side }
  | { readonly state: "failed"; readonly message: string };

/** What a question to the server has come to; a newer answer takes the place of one that is shown. */
const stateOf = ({ error, isLoading }: { readonly error: Error | null; readonly isLoading: boolean }): LoadedSide =>
  error ? { state: "failed", message: wordsOf(error) } : { state: isLoading ? "loading" : "none" };

/** Opens what stands on a side. The version that is open anyway is followed as it changes. */
export function useSide(ref: SideRef | undefined): LoadedSide & { readonly reload: () => void } {
  const open = useVersion((state) => state.info);
  const model = useVersion((state) => state.model);
  const sequence = useVersion((state) => state.info.sequence);
  const isOpen = ref?.kind === "version" && ref.version === open.version.id;
  const version = ref && ref.kind !== "file" ? ref.version : "";
  const number = ref?.kind === "revision" ? ref.number : 0;
  const info = useAsked(inVersion.openVersion, { version }, { isWanted: version !== "" && !isOpen });
  const kept = useAsked(inVersion.openRevision, { version, number }, { isWanted: number > 0 });
  const copy = ref?.kind === "build" ? ref.copy : "";
  const built = useAsked(handoff.openBuildCopy, { version, copy }, { isWanted: copy !== "" });
  const reload = useCallback(() => void lookAgain([{ kind: "version", id: version }]), [version]);
  // The same object as long as it is the same side, so that nothing is compared twice.
  const side = useMemo((): Side | undefined => {
    if (!ref) return undefined;
    if (ref.kind === "file") return { ref, title: ref.name, model: ref.model, head: null, process: "" };
    if (isOpen) {
      const head = { version: open.version.id, sequence, isOpen: true };
      return { ref, title: open.version.name, model, head, process: open.process.id };
    }
    if (ref.kind === "build") {
      if (!built.data) return undefined;
      const { title, model: stored } = built.data;
      return { ref, title, model: trustStored(stored), head: null, process: open.process.id };
    }
    if (!info.data) return undefined;
    const { process, version: named, sequence: now, model: stored } = info.data;
    const name = process.id === open.process.id ? named.name : `${process.name}: ${named.name}`;
    if (ref.kind === "version") {
      const head = { version: ref.version, sequence: now, isOpen: false };
      return { ref, title: name, model: trustStored(stored), head, process: process.id };
    }
    if (!kept.data) return undefined;
    const title = text.compare.revisionOf(name, ref.number);
    return { ref, title, model: trustStored(kept.data.model), head: null, process: process.id };
  }, [ref, isOpen, open, model, sequence, info.data, kept.data, built.data]);
  const asked = [info, kept, built].find(({ error }) => error) ?? (copy !== "" ? built : info);
  return side ? { state: "there", side, reload } : { ...stateOf(asked), reload };
}
