"use client";
import { useEffect } from "react";
import { language, text } from "@/ui/messages";

/** Where not even the frame of a page could be shown: plain words and the ways on. */
export default function FrameError({ error, reset }: { readonly error: Error; readonly reset: () => void }) {
  useEffect(() => console.error(error), [error]);
  return (
    <html lang={language()}>
      <body>
        <main>
          <h1>{text.shell.broken}</h1>
          <p role="alert">{text.shell.brokenExplain}</p>
          <button type="button" onClick={reset}>
            {text.shell.retry}
          </button>{" "}
          <a href="/">{text.shell.toHome}</a>
        </main>
      </body>
    </html>
  );
}
