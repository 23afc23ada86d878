"use client";
import { useRouter } from "next/navigation";
import { useRef, useState } from "react";
import type { SameProcess } from "@/contract/files";
import { complain, tell } from "../controls/notices";
import { sendBytes } from "../kernel/ask";
import { text } from "../messages";
import { stagePath } from "../stages/register";

const comparing = (from: string, to: string) =>
  `${stagePath(to, "compare")}?from=${encodeURIComponent(from)}&to=${encodeURIComponent(to)}`;

/** Opens files as processes of an area, one after the other, with a way to call it off. `firstArea`: makes one where there is none. */
export function useOpenFiles(area: string, firstArea: () => Promise<string>, onOpened: () => Promise<void>) {
  const [reading, setReading] = useState<string | null>(null);
  const stopReading = useRef<AbortController | null>(null);
  const router = useRouter();
  const open = async (files: FileList | null | undefined, wanted = "") => {
    const all = [...(files ?? [])];
    // One area for all of them, made when the first is about to come.
    let into = wanted || area;
    for (const one of all) {
      setReading(one.name);
      const stop = new AbortController();
      stopReading.current = stop;
      try {
        into ||= await firstArea();
        const made = await sendBytes<{ version: string; same?: SameProcess | null }>(
          `/api/import?area=${encodeURIComponent(into)}&name=${encodeURIComponent(one.name)}`,
          one,
          stop.signal,
        );
        await onOpened();
        const { same } = made;
        if (same)
          tell({
            description: same.isEqual
              ? text.home.sameAgain(one.name, same.name)
              : text.home.sameId(one.name, same.name),
            action: {
              label: same.isEqual ? text.home.openThat : text.home.compareBoth,
              onClick: () =>
                router.push(same.isEqual ? stagePath(same.version, "diagram") : comparing(same.version, made.version)),
            },
          });
        if (all.length === 1) router.push(`/v/${encodeURIComponent(made.version)}/diagram`);
      } catch (reason) {
        if (!stop.signal.aborted) complain(reason);
      }
      setReading(null);
    }
  };
  return { reading, open, stop: () => stopReading.current?.abort() };
}
