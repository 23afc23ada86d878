"use client";
import { useEffect } from "react";
import { text } from "@/ui/messages";
import { PlainPage } from "@/ui/shell/PlainPage";

/** A page that could not be shown: what it says stays in the console, for who looks after the program. */
export default function PageError({ error, reset }: { readonly error: Error; readonly reset: () => void }) {
  useEffect(() => console.error(error), [error]);
  return <PlainPage title={text.shell.broken} explain={text.shell.brokenExplain} retry={reset} />;
}
