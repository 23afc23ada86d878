import { useSearchParams } from "next/navigation";
import { useCallback, useEffect } from "react";
import { useDiagram } from "./diagramStore";

/** Pages are places in the browser's own history: back and forth lead through them, and a link can name one. */
export function usePageHistory(): (by: 1 | -1) => void {
  const named = useSearchParams().get("page");
  useEffect(() => {
    if (named) useDiagram.getState().set({ page: named });
    else useDiagram.getState().set({ page: null });
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
  return useCallback((by) => window.history.go(by), []);
}
