import { useSearchParams } from "next/navigation";
import { useCallback, useEffect, useRef } from "react";
import { useDiagram } from "../../version/diagramStore";

/** Pages are places in the browser's own history: back and forth lead through them, and a link can name one. */
export function usePageHistory(): (by: 1 | -1) => void {
  const named = useSearchParams().get("page");
  const last = useRef(named);
  useEffect(() => {
    // An address that names no page leaves it to what it does name, such as an element; back from a named one it is the first.
    if (named || last.current) useDiagram.getState().set({ page: named });
    last.current = named;
  }, [named]);
  useEffect(
    () =>
      useDiagram.subscribe(({ page }, before) => {
        const now = new URL(window.location.href);
        if (page === before.page || page === now.searchParams.get("page") || page === null) return;
        now.search = "";
        now.searchParams.set("page", page);
        window.history.pushState(null, "", now);
      }),
    [],
  );
  // Straight from the browser: the router tells of addresses a moment later, and leaves out one that was left again meanwhile.
  useEffect(() => {
    const { pathname } = window.location;
    const onMove = () => {
      const now = new URL(window.location.href);
      if (now.pathname === pathname) useDiagram.getState().set({ page: now.searchParams.get("page") });
    };
    window.addEventListener("popstate", onMove);
    return () => window.removeEventListener("popstate", onMove);
  }, []);
  return useCallback((by) => window.history.go(by), []);
}
