"use client";
import { type ReactNode, useEffect, useState } from "react";
import { speak } from "../messages";
import { type Language, languageCookie } from "../messages/languages";

const words = { de: () => import("../messages/german") } as const;

// Begun as soon as this file is there: nothing is shown before.
const asked: string | undefined = typeof document === "undefined" ? undefined : document.documentElement.lang;
const coming = asked === "de" ? words.de() : undefined;

/**
 * What is shown, in the language of the page. The server tells every page in English, so one in another language is shown when its
 * words are there.
 */
export function InLanguage({ language, children }: { readonly language: Language; readonly children: ReactNode }) {
  const [isThere, setThere] = useState(language === "en");
  useEffect(() => {
    if (language === "en") return;
    // A page without its words says what it can.
    void (coming ?? words[language]()).then(({ spoken }) => speak(spoken)).finally(() => setThere(true));
  }, [language]);
  return isThere ? children : null;
}

/** Shows the interface in another language, from now on in this browser. */
export function chooseLanguage(language: Language): void {
  // biome-ignore lint/suspicious/noDocumentCookie: the Cookie Store is not everywhere yet.
  document.cookie = `${languageCookie}=${language}; path=/; max-age=31536000; samesite=strict`;
  window.location.reload();
}
