"use client";
import createCache from "@emotion/cache";
import { CacheProvider } from "@emotion/react";
import { useServerInsertedHTML } from "next/navigation";
import { type ReactNode, useState } from "react";

/** Puts the styles of the server's first rendering into the page's head, where the browser's own rendering expects them. */
export function StyleRegistry({ children }: { readonly children: ReactNode }) {
  const [{ cache, flush }] = useState(() => {
    const made = createCache({ key: "lane" });
    made.compat = true;
    const insert = made.insert;
    let names: string[] = [];
    made.insert = (...args) => {
      const [, serialized] = args;
      if (made.inserted[serialized.name] === undefined) names.push(serialized.name);
      return insert(...args);
    };
    return {
      cache: made,
      flush: () => {
        const flushed = names;
        names = [];
        return flushed;
      },
    };
  });
  useServerInsertedHTML(() => {
    const names = flush();
    if (names.length === 0) return null;
    const styles = names.map((name) => cache.inserted[name]).filter((style) => typeof style === "string");
    return (
      <style key={cache.key} data-emotion={`${cache.key} ${names.join(" ")}`}>
        {styles.join("")}
      </style>
    );
  });
  return <CacheProvider value={cache}>{children}</CacheProvider>;
}
