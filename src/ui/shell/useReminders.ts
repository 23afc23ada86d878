"use client";
import { useEffect, useState } from "react";
import { live, review } from "@/contract";
import { tell } from "../controls/notices";
import { ask } from "../kernel/ask";
import { daysFromToday } from "../kernel/today";
import { text } from "../messages";

const words = text.work;
const minute = 60_000;
/** What was said already in this window. */
let known = { overdue: 0, soon: 0 };
/** Rounds of review that one was reminded of already. */
const reminded = new Set<string>();

/** Rounds that wait for one's answer until tomorrow at the latest, each said once. */
async function remindReviews(): Promise<void> {
  const { reviews } = await ask(review.myReviews, {}).catch(() => ({ reviews: [] }));
  for (const { id, version, process, due } of reviews) {
    const days = due === null ? Number.POSITIVE_INFINITY : daysFromToday(due);
    if (days > 1 || reminded.has(id)) continue;
    reminded.add(id);
    const to = `/v/${encodeURIComponent(version)}/diagram?comments=review`;
    const action = { label: text.review.toIt, onClick: () => window.location.assign(to) };
    tell({ description: text.review.remind(process, days), action, duration: 15_000 });
  }
}

/**
 * How much of one's work is overdue, looked for once a minute while the window is seen; what comes to be due, and which review waits for
 * one's answer, is said once.
 */
export function useReminders(): number {
  const [overdue, setOverdue] = useState(known.overdue);
  useEffect(() => {
    let isOver = false;
    const look = async () => {
      if (document.visibilityState === "hidden") return;
      // Without the server nobody is reminded; that it cannot be reached is said elsewhere.
      void remindReviews();
      const found = await ask(live.remindWork, {}).catch(() => known);
      if (isOver) return;
      const action = { label: words.toList, onClick: () => window.location.assign("/work") };
      if (found.overdue > known.overdue) tell({ description: words.remind(found.overdue), action });
      else if (found.soon > known.soon) tell({ description: words.remindSoon(found.soon), action });
      known = found;
      setOverdue(found.overdue);
    };
    void look();
    const timer = setInterval(() => void look(), minute);
    return () => {
      isOver = true;
      clearInterval(timer);
    };
  }, []);
  return overdue;
}
