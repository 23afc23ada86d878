import { useEffect, useRef } from "react";

/** Where keys write or choose something; a box that is ticked needs none but the space bar. */
const typedIn = "input:not([type=checkbox]), textarea, select, [role=dialog], [role=menu]";

/** Single keys that do something on a page, by their names in small letters, while nothing is typed or asked. */
export function useKeys(keys: { readonly [key: string]: () => void }): void {
  const latest = useRef(keys);
  latest.current = keys;
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      if (event.ctrlKey || event.metaKey || event.altKey || event.defaultPrevented) return;
      const target = event.target as HTMLElement;
      if (target.isContentEditable || target.closest(typedIn)) return;
      const act = latest.current[event.key.toLowerCase()];
      if (!act) return;
      event.preventDefault();
      act();
    };
    window.addEventListener("keydown", onKey);
    return () => window.removeEventListener("keydown", onKey);
  }, []);
}
