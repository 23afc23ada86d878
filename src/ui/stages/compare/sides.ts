"use client";
import { useCallback, useEffect, useMemo, useState } from "react";
import { inVersion } from "@/contract";
import { type Model, trustStored } from "@/core/model";
import { ask } from "../../kernel/ask";
import { text } from "../../messages";
import { useVersion } from "../../version/VersionContext";

/** What may stand on a side: what a version holds now, one of its kept states, or a file. */
export type SideRef =
  | { readonly kind: "version"; readonly version: string }
  | { readonly kind: "revision"; readonly version: string; readonly number: number }
  | { readonly kind: "file"; readonly name: string; readonly model: Model };

export interface Side {
  readonly ref: SideRef;
  readonly title: string;
  readonly model: Model;
  /** The version whose present state this is: only that can be changed from here. */
  readonly head: { readonly version: string; readonly sequence: number; readonly isOpen: boolean } | null;
  readonly process: string;
}

/** As it stands in an address: "version", or "version@7" for revision 7. */
export const readRef = (words: string | null): SideRef | undefined => {
  if (!words) return undefined;
  const [, version, number] = /^(.+?)(?:@(\d+))?$/.exec(words) ?? [];
  if (!version) return undefined;
  return number ? { kind: "revision", version, number: Number(number) } : { kind: "version", version };
};
export const writeRef = (ref: SideRef): string =>
  ref.kind === "file" ? "file" : ref.kind === "revision" ? `${ref.version}@${ref.number}` : ref.version;

export type LoadedSide =
  | { readonly state: "none" | "loading" }
  | { readonly state: "there"; readonly side: Side }
  | { readonly state: "failed"; readonly message: string };

/** Opens what stands on a side. The version that is open anyway is followed as it changes. */
export function useSide(ref: SideRef | undefined): LoadedSide & { readonly reload: () => void } {
  const open = useVersion((state) => state.info);
  const model = useVersion((state) => state.model);
  const sequence = useVersion((state) => state.info.sequence);
  const [loaded, setLoaded] = useState<LoadedSide>({ state: "none" });
  const [asked, setAsked] = useState(0);
  const reload = useCallback(() => setAsked((count) => count + 1), []);
  const key = ref && writeRef(ref);
  const isOpen = ref?.kind === "version" && ref.version === open.version.id;
  useEffect(() => {
    if (!ref || isOpen || ref.kind === "file") return setLoaded({ state: "none" });
    let isStale = false;
    // Looked at again, what was there stays until the newer state has come.
    setLoaded((known) =>
      known.state === "there" && writeRef(known.side.ref) === writeRef(ref) ? known : { state: "loading" },
    );
    sideFromServer(ref, open.process.id)
      .then((side) => !isStale && setLoaded({ state: "there", side }))
      .catch((error: Error) => !isStale && setLoaded({ state: "failed", message: error.message }));
    return () => {
      isStale = true;
    };
  }, [key, isOpen, asked]);
  // The same object as long as it is the same side, so that nothing is compared twice.
  return useMemo(() => {
    if (ref?.kind === "file")
      return { state: "there", side: { ref, title: ref.name, model: ref.model, head: null, process: "" }, reload };
    if (!isOpen || !ref) return { ...loaded, reload };
    const head = { version: open.version.id, sequence, isOpen: true };
    return {
      state: "there",
      side: { ref, title: open.version.name, model, head, process: open.process.id },
      reload,
    };
  }, [ref, isOpen, open, model, sequence, loaded, reload]);
}

async function sideFromServer(ref: Exclude<SideRef, { kind: "file" }>, here: string): Promise<Side> {
  const info = await ask(inVersion.openVersion, { version: ref.version });
  const isElsewhere = info.process.id !== here;
  const name = isElsewhere ? `${info.process.name}: ${info.version.name}` : info.version.name;
  if (ref.kind === "version")
    return {
      ref,
      title: name,
      model: trustStored(info.model),
      head: { version: ref.version, sequence: info.sequence, isOpen: false },
      process: info.process.id,
    };
  const { model } = await ask(inVersion.openRevision, { version: ref.version, number: ref.number });
  return {
    ref,
    title: text.compare.revisionOf(name, ref.number),
    model: trustStored(model),
    head: null,
    process: info.process.id,
  };
}
