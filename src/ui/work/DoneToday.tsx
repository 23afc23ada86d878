"use client";
import { chakra } from "@chakra-ui/react";
import type { DoneWork } from "@/contract/live";
import { clockWords } from "../controls/moment";
import { text } from "../messages";

const words = text.work;

/** What one has done in the last day, the latest first. */
export function DoneToday({ done }: { readonly done: readonly DoneWork[] }) {
  if (done.length === 0)
    return (
      <chakra.p color="quiet" fontSize="12px" data-testid="done-today">
        {words.done(0)}
      </chakra.p>
    );
  return (
    <chakra.details color="quiet" fontSize="12px" data-testid="done-today">
      <chakra.summary cursor="pointer">{words.done(done.length)}</chakra.summary>
      <chakra.ul listStyleType="none" mt={1}>
        {done.map(({ run, number, label, process, at, note }, place) => (
          <chakra.li key={`${run} ${number} ${label} ${at} ${place}`} py={1}>
            {clockWords(at, "UTC")} · {words.doneOne(label, process, number)}
            {note && ` · ${note}`}
          </chakra.li>
        ))}
      </chakra.ul>
    </chakra.details>
  );
}
