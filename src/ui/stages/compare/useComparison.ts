"use client";
import { useCallback, useEffect, useMemo } from "react";
import { compare } from "@/contract";
import {
  type ChangeGroup,
  changeGroups,
  compareModels,
  type MatchBy,
  marksOf,
  noReason,
  type Reason,
  type TakeOverRequest,
} from "@/core/compare";
import { complain } from "../../controls/notices";
import { ask } from "../../kernel/ask";
import { doAct } from "../../kernel/history";
import { expecting, knownNow, useAsked } from "../../kernel/queries";
import { text } from "../../messages";
import type { Side } from "./sides";

/** Two sides and everything that is known of their difference. */
export interface Compared {
  readonly from: Side;
  readonly to: Side;
  readonly pairs: TakeOverRequest["pairs"];
  readonly groups: readonly ChangeGroup[];
  readonly marks: ReturnType<typeof marksOf>;
  readonly unchanged: number;
}

export function useCompared(
  from: Side | undefined,
  to: Side | undefined,
  by: MatchBy | undefined,
): Compared | undefined {
  return useMemo(() => {
    if (!from || !to) return undefined;
    const comparison = compareModels(from.model, to.model, by);
    const groups = changeGroups(from.model, to.model, comparison);
    return { from, to, pairs: comparison.pairs, groups, marks: marksOf(groups), unchanged: comparison.unchanged };
  }, [from, to, by]);
}

/** The two versions whose changes have reasons; none where a side is a file, or both are states of one version. */
export function reasonedPair(compared: Compared | undefined): { version: string; against: string } | null {
  const of = (side: Side | undefined) => (side && side.ref.kind !== "file" ? side.ref.version : undefined);
  const [against, version] = [of(compared?.from), of(compared?.to)];
  return version && against && version !== against ? { version, against } : null;
}

/** Gives a change a reason, or takes it back; a part of it is changed in the reason as it is by then, not as it was when it was drawn. */
export type GiveReason = (
  change: { readonly key: string; readonly words: string },
  reason: Reason | null | ((last: Reason) => Reason),
) => Promise<void>;

/** Why the changes are made, and a hand to say so. */
export function useReasons(compared: Compared | undefined) {
  const pair = reasonedPair(compared);
  const [version = "", against = ""] = [pair?.version, pair?.against];
  const { data, error } = useAsked(compare.listReasons, { version, against }, { isWanted: pair !== null });
  useEffect(() => {
    if (error) complain(error);
  }, [error]);
  const reasons = useMemo(() => new Map((data?.reasons ?? []).map((row) => [row.change, row])), [data]);
  const give = useCallback<GiveReason>(
    async ({ key, words }, reason) => {
      const known = knownNow(compare.listReasons, { version, against })?.reasons ?? [];
      const before = known.find((row) => row.change === key)?.reason ?? null;
      const next = typeof reason === "function" ? reason(before ?? noReason) : reason;
      const say = (said: Reason | null) =>
        expecting(
          compare.listReasons,
          { version, against },
          ({ reasons: last }) => {
            const others = last.filter((row) => row.change !== key);
            const row = { change: key, words, member: "", at: new Date().toISOString() };
            return { reasons: said ? [...others, { ...row, reason: said }] : others };
          },
          () => ask(compare.giveReason, { version, against, change: key, words, reason: said }),
        );
      await doAct(
        text.compare.reasonGiven(words),
        () => say(next),
        () => say(before),
      );
    },
    [version, against],
  );
  /** Notes with the reasons of some changes that these are settled. What was never said has nothing to be noted with. */
  const settle = useCallback(
    (groups: readonly ChangeGroup[], settled: "taken" | "undone") => {
      const known = knownNow(compare.listReasons, { version, against })?.reasons ?? [];
      const rows = known.filter((row) => groups.some((group) => group.key === row.change));
      return Promise.all(
        rows.map(({ change, words, reason }) =>
          ask(compare.giveReason, { version, against, change, words, reason: { ...reason, settled } }),
        ),
      ).catch(complain);
    },
    [version, against],
  );
  // Before it is known what was said, nothing is said over it.
  return { settle, reasons, give: pair ? (data ? give : null) : undefined };
}
