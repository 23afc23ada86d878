"use client";
import { useRouter } from "next/navigation";
import { useRef, useState } from "react";
import { complain } from "../controls/notices";
import { sendBytes } from "../kernel/ask";

/** Opens files as processes of an area, one after the other, with a way to call it off. `firstArea`: makes one where there is none. */
export function useOpenFiles(area: string, firstArea: () => Promise<string>, onOpened: () => Promise<void>) {
  const [reading, setReading] = useState<string | null>(null);
  const stopReading = useRef<AbortController | null>(null);
  const router = useRouter();
  const open = async (files: FileList | null | undefined) => {
    const all = [...(files ?? [])];
    // One area for all of them, made when the first is about to come.
    let into = area;
    for (const one of all) {
      setReading(one.name);
      const stop = new AbortController();
      stopReading.current = stop;
      try {
        into ||= await firstArea();
        const made = await sendBytes<{ version: string }>(
          `/api/import?area=${encodeURIComponent(into)}&name=${encodeURIComponent(one.name)}`,
          one,
          stop.signal,
        );
        await onOpened();
        if (all.length === 1) router.push(`/v/${encodeURIComponent(made.version)}/diagram`);
      } catch (reason) {
        if (!stop.signal.aborted) complain(reason);
      }
      setReading(null);
    }
  };
  return { reading, open, stop: () => stopReading.current?.abort() };
}
