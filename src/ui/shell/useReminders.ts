"use client";
import { useEffect, useState } from "react";
import { live } from "@/contract";
import { tell } from "../controls/notices";
import { ask } from "../kernel/ask";
import { text } from "../messages";

const words = text.work;
const minute = 60_000;
/** What was said already in this window. */
let known = { overdue: 0, soon: 0 };

/** How much of one's work is overdue, looked for once a minute while the window is seen; what comes to be due is said once. */
export function useReminders(): number {
  const [overdue, setOverdue] = useState(known.overdue);
  useEffect(() => {
    let isOver = false;
    const look = async () => {
      if (document.visibilityState === "hidden") return;
      // Without the server nobody is reminded; that it cannot be reached is said elsewhere.
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
