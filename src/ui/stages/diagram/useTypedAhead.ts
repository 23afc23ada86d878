"use client";
import { useEffect, useState } from "react";
import { useDiagram } from "../../version/diagramStore";

/** What is typed into a question's field; with it comes what was typed while the question was still opening. */
export function useTypedAhead(): readonly [string, (typed: string) => void] {
  const [typed, setTyped] = useState("");
  const ahead = useDiagram((state) => state.ahead);
  useEffect(() => {
    if (ahead === "") return;
    setTyped((before) => before + ahead);
    useDiagram.getState().set({ ahead: "" });
  }, [ahead]);
  return [typed, setTyped];
}
