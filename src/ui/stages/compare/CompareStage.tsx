"use client";
import { Flex } from "@chakra-ui/react";
import { useSearchParams } from "next/navigation";
import { useCallback, useEffect, useMemo, useState } from "react";
import type { Id } from "@/core/model";
import { complain } from "../../controls/notices";
import { EmptyState, ErrorPage, LoadingPage } from "../../controls/states";
import { useKeys } from "../../controls/useKeys";
import { text } from "../../messages";
import { useVersion } from "../../version/VersionContext";
import { AskTake } from "./AskTake";
import { ChangeDetail } from "./ChangeDetail";
import { ChangeList } from "./ChangeList";
import { CompareHead, type Method } from "./CompareHead";
import { useCompare } from "./compareStore";
import { EffectBar } from "./EffectBar";
import { FileDrop } from "./FileDrop";
import { useForecastsOfBoth } from "./Forecasts";
import { OnePage } from "./OnePage";
import { readRef, type SideRef, useSide } from "./sides";
import { TakeDialog } from "./TakeDialog";
import { TwoPages } from "./TwoPages";
import { type Compared, useCompared, useReasons } from "./useComparison";
import { useTakeOver } from "./useTakeOver";

/** The stage where two versions are held against each other: both drawings, what differs in plain words, why, and what it comes to. */
export function CompareStage() {
  const version = useVersion((state) => state.info.version.id);
  useEffect(() => useCompare.getState().begin(version), [version]);
  const [refs, setSide] = useRefs();
  const [by, setBy] = useState<Method>("auto");
  const [from, to] = [useSide(refs.from), useSide(refs.to)];
  const compared = useCompared(
    from.state === "there" ? from.side : undefined,
    to.state === "there" ? to.side : undefined,
    by === "auto" ? undefined : by,
  );
  const titles = {
    from: from.state === "there" ? from.side.title : undefined,
    to: to.state === "there" ? to.side.title : undefined,
  };
  const reload = useCallback(() => {
    from.reload();
    to.reload();
  }, [from.reload, to.reload]);
  const failed = [from, to].find((side) => side.state === "failed");
  return (
    <FileDrop onFiles={setSide}>
      <CompareHead refs={refs} titles={titles} onSide={setSide} by={by} onMethod={setBy} />
      {failed?.state === "failed" ? (
        <ErrorPage message={failed.message} retry={reload} />
      ) : refs.from === undefined || refs.to === undefined ? (
        <EmptyState>{text.compare.noOther}</EmptyState>
      ) : compared ? (
        <Comparing compared={compared} onChanged={reload} />
      ) : (
        <LoadingPage label={text.shell.loading} />
      )}
    </FileDrop>
  );
}

/** What is compared: as the address says, else the open version with the one it was copied from. */
function useRefs() {
  const info = useVersion((state) => state.info);
  const search = useSearchParams();
  const own = info.version.id;
  const others = info.siblings.filter(({ id }) => id !== own);
  const source = others.find(({ id }) => id === info.version.source)?.id;
  const copy = (others.find((other) => other.source === own) ?? others[0])?.id;
  const [askedFrom, askedTo] = [search.get("from"), search.get("to")];
  const isAsked = askedFrom && askedTo;
  const from = isAsked ? askedFrom : (source ?? own);
  const to = isAsked ? askedTo : source ? own : (copy ?? "");
  const start = useMemo(() => ({ from: readRef(from), to: readRef(to) }), [from, to]);
  const [refs, setRefs] = useState<{ from: SideRef | undefined; to: SideRef | undefined }>(start);
  useEffect(() => setRefs(start), [start]);
  const setSide = useCallback(
    (hand: "from" | "to", ref: SideRef) => setRefs((current) => ({ ...current, [hand]: ref })),
    [],
  );
  return [refs, setSide] as const;
}

function Comparing({ compared, onChanged }: { readonly compared: Compared; readonly onChanged: () => void }) {
  const { view, chosen, filter, choose, set } = useCompare();
  const { reasons, give, settle } = useReasons(compared);
  const { take, wish, mayInto, refused, asked, forget } = useTakeOver(compared, onChanged, settle);
  const both = useForecastsOfBoth(compared);
  const groups = useMemo(() => {
    const wanted = filter.trim().toLowerCase();
    if (wanted === "") return compared.groups;
    return compared.groups.filter((group) => {
      const reason = reasons.get(group.key)?.reason;
      const told = [
        text.compare.kinds[group.kind],
        group.words,
        reason?.note,
        reason?.effect,
        reason?.state,
        ...(reason?.pains ?? []),
      ];
      return told.join(" ").toLowerCase().includes(wanted);
    });
  }, [compared.groups, filter, reasons]);
  const group = compared.groups.find((one) => one.key === chosen);
  // A change that is looked at may be gone, taken over or undone.
  useEffect(() => {
    if (!group) choose(compared.groups[0]?.key ?? null);
  }, [group, compared.groups, choose]);
  const step = useCallback(
    (forward: boolean) => {
      const at = groups.findIndex((one) => one.key === useCompare.getState().chosen);
      const next = groups[Math.max(0, Math.min(groups.length - 1, at + (forward ? 1 : -1)))];
      if (next) choose(next.key);
    },
    [groups, choose],
  );
  const takeChosen = useCallback(() => {
    const key = useCompare.getState().chosen;
    if (key) wish(mayInto("from") ? "from" : "to", [key]);
  }, [wish, mayInto]);
  const agreed = compared.groups.filter(({ key }) => reasons.get(key)?.reason.state === "agreed").map(({ key }) => key);
  // J and K go from change to change, T takes the one that is looked at over.
  useKeys({ j: () => step(true), k: () => step(false), t: takeChosen });
  const pick = useCallback(
    (side: "from" | "to", id: Id | undefined) => {
      const key = id === undefined ? undefined : compared.marks[side].get(id)?.key;
      if (key !== undefined) choose(key);
      set({ picked: id === undefined ? null : { side, id } });
    },
    [compared.marks, choose, set],
  );
  return (
    <Flex direction="column" flex="1" minH={0}>
      {view === "one" ? (
        <OnePage compared={compared} group={group} onPick={pick} />
      ) : (
        <TwoPages compared={compared} group={group} onPick={pick} />
      )}
      <EffectBar compared={compared} both={both} />
      <ChangeList
        compared={compared}
        groups={groups}
        reasons={reasons}
        give={give ?? undefined}
        onStep={step}
        onTake={takeChosen}
        onTakeAgreed={agreed.length > 0 && mayInto("from") ? () => wish("from", agreed) : undefined}
        takeInto={mayInto("from") ? compared.from.title : compared.to.title}
        detail={
          group && (
            <ChangeDetail
              compared={compared}
              group={group}
              both={both}
              kept={reasons.get(group.key)}
              onReason={give && ((reason) => give(group, reason).catch(complain))}
              onTake={(into) => wish(into, [group.key])}
              onLinked={onChanged}
            />
          )
        }
      />
      {asked && !refused && (
        <AskTake
          title={compared[asked.into].title}
          words={asked.keys.flatMap((key) => compared.groups.find((one) => one.key === key)?.words ?? [])}
          onTake={() => void take(asked.into, asked.keys)}
          onClose={forget}
        />
      )}
      {refused && (
        <TakeDialog
          refused={refused}
          title={compared[refused.into].title}
          onAlong={() => take(refused.into, [...refused.keys, ...refused.along.map((one) => one.key)])}
          onAnyway={() => take(refused.into, refused.keys, { anyway: true })}
          onClose={forget}
        />
      )}
    </Flex>
  );
}
