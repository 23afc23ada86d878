"use client";
import dynamic from "next/dynamic";
import { createContext, type ReactNode, useContext, useEffect, useState } from "react";
import { useStore } from "zustand";
import { inVersion } from "@/contract";
import { concerns } from "@/contract/events";
import { ErrorPage, LoadingPage } from "../controls/states";
import { ask, ServerError } from "../kernel/ask";
import { onHappened } from "../kernel/events";
import { wordsOf } from "../kernel/wordsOf";
import { text } from "../messages";
import { useDiagram } from "./diagramStore";
import type { VersionActions, VersionState } from "./versionState";
import { createVersionStore, type VersionStore } from "./versionStore";

// Loaded only when it is needed, which is hardly ever.
const DamagedVersion = dynamic(() => import("./DamagedVersion").then((file) => file.DamagedVersion), {
  loading: () => null,
});

const Context = createContext<VersionStore | null>(null);

/** Opens a version and keeps it open while the person moves between its stages. */
export function VersionProvider({ version, children }: { readonly version: string; readonly children: ReactNode }) {
  const [store, setStore] = useState<VersionStore | null>(null);
  const [error, setError] = useState<Error | null>(null);
  const [attempt, setAttempt] = useState(0);
  useEffect(() => {
    let gone = false;
    let opened: VersionStore | undefined;
    setStore(null);
    setError(null);
    // What was chosen in another version means nothing here.
    useDiagram.getState().select();
    useDiagram.getState().set({ page: null, run: null, handovers: null });
    // What is done while the version is on its way may not be in it, and is told before anybody else listens.
    let isLate = false;
    const stopHearing = onHappened(({ things }) => {
      isLate ||= concerns([{ kind: "version", id: version }], things);
    });
    ask(inVersion.openVersion, { version })
      .then((info) => {
        if (gone) return;
        opened = createVersionStore(info, isLate);
        setStore(opened);
      })
      .catch((reason: Error) => !gone && setError(reason))
      .finally(stopHearing);
    return () => {
      gone = true;
      stopHearing();
      opened?.getState().close();
    };
  }, [version, attempt]);
  if (error instanceof ServerError && error.code === "damaged")
    return (
      <DamagedVersion version={version} message={error.message} onMended={() => setAttempt((count) => count + 1)} />
    );
  if (error) return <ErrorPage message={wordsOf(error)} retry={() => setAttempt((count) => count + 1)} />;
  if (!store) return <LoadingPage label={text.shell.loading} />;
  return <Context.Provider value={store}>{children}</Context.Provider>;
}

export function useVersionStore(): VersionStore {
  const store = useContext(Context);
  if (!store) throw new Error("This part of the interface needs an open version around it.");
  return store;
}

export function useVersion<Selected>(select: (state: VersionState & VersionActions) => Selected): Selected {
  return useStore(useVersionStore(), select);
}
