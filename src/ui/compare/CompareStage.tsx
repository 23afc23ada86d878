"use client";
import { Box, Button, chakra, Flex } from "@chakra-ui/react";
import { useRouter } from "next/navigation";
import { useCallback, useEffect, useMemo, useState } from "react";
import { type Change, compareModels, type MatchBy } from "@/core/compare";
import { roleOfLane } from "@/core/directory";
import { sceneOf } from "@/core/drawing";
import { type Id, type Model, trustStored } from "@/core/model";
import { ask } from "../api";
import { Choice } from "../controls/fields";
import { Keycap } from "../controls/Keycap";
import { EmptyState, LoadingPage } from "../controls/states";
import { complain } from "../controls/toaster";
import { useEntries } from "../directory/entries";
import { text } from "../messages";
import { useVersion } from "../version/VersionContext";
import type { VersionInfo } from "../version/versionStore";
import { ComparedPage, type Mark } from "./ComparedPage";

/** Two versions side by side, with what differs in plain words. */
export function CompareStage() {
  const info = useVersion((state) => state.info);
  const model = useVersion((state) => state.model);
  const others = info.siblings.filter((sibling) => sibling.id !== info.version.id);
  const [otherId, setOtherId] = useState(info.version.source ?? others[0]?.id ?? "");
  const [by, setBy] = useState<MatchBy | "auto">("auto");
  const [other, setOther] = useState<{ info: VersionInfo; model: Model } | null>(null);
  const [chosen, setChosen] = useState(0);
  const router = useRouter();

  useEffect(() => {
    if (!otherId) return;
    let stale = false;
    setOther(null);
    ask<VersionInfo>("openVersion", { version: otherId })
      .then((opened) => !stale && setOther({ info: opened, model: trustStored(opened.model) }))
      .catch(complain);
    return () => {
      stale = true;
    };
  }, [otherId]);

  // The older side stands left, whichever of the two is open.
  const openIsNewer = !other || other.info.version.source !== info.version.id;
  const from = openIsNewer ? other?.model : model;
  const to = openIsNewer ? model : other?.model;
  const fromInfo = openIsNewer ? other?.info : info;
  const toInfo = openIsNewer ? info : other?.info;
  const comparison = useMemo(
    () => (from && to ? compareModels(from, to, by === "auto" ? undefined : by) : undefined),
    [from, to, by],
  );
  const changes = comparison?.changes ?? [];
  const current = changes[Math.min(chosen, changes.length - 1)];

  const step = useCallback(
    (forward: boolean) => setChosen((at) => Math.max(0, Math.min(changes.length - 1, at + (forward ? 1 : -1)))),
    [changes.length],
  );
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      if (
        (event.target as HTMLElement).closest("input, textarea, select, [role=dialog]") ||
        event.ctrlKey ||
        event.metaKey
      )
        return;
      if (event.key.toLowerCase() === "j") step(true);
      if (event.key.toLowerCase() === "k") step(false);
    };
    window.addEventListener("keydown", onKey);
    return () => window.removeEventListener("keydown", onKey);
  }, [step]);

  if (others.length === 0) return <EmptyState>{text.compare.noOther}</EmptyState>;
  const marks = (side: "from" | "to"): Map<Id, Mark> => {
    const found = new Map<Id, Mark>();
    for (const change of changes) {
      const id = change[side]?.id;
      if (!id) continue;
      const lane = change.fields.find((field) => field.field === "lane");
      const system = change.fields.find((field) => field.field === "systems");
      const tag =
        change.kind === "moved" && lane
          ? side === "to"
            ? `from ${lane.from || "no lane"}`
            : `to ${lane.to || "no lane"}`
          : change.kind === "changed"
            ? system && side === "to"
              ? `was ${system.from || "without system"}`
              : "changed"
            : change.kind;
      found.set(id, { kind: change.kind, tag, current: change === current });
    }
    return found;
  };
  const openAt = (version: string | undefined, id: Id | undefined) =>
    version && id && router.push(`/v/${encodeURIComponent(version)}/diagram?element=${encodeURIComponent(id)}`);
  return (
    <Flex direction="column" flex="1" minH={0}>
      <Flex px={5} h="46px" gap={3} align="center" bg="sheet" borderBottomWidth="1px" borderColor="line" flexShrink={0}>
        <chakra.h1 srOnly>{text.stages.compare}</chakra.h1>
        <chakra.b>{fromInfo?.version.name}</chakra.b>
        <span>{text.compare.against}</span>
        <chakra.b>{toInfo?.version.name}</chakra.b>
        {others.length > 1 && (
          <Choice
            label={text.compare.against}
            value={otherId}
            options={others.map((sibling) => [sibling.id, sibling.name])}
            onChoose={setOtherId}
          />
        )}
        <chakra.span color="quiet">{text.compare.matched}</chakra.span>
        <Choice
          label={text.compare.matched}
          value={by}
          options={(["auto", "counterpart", "id", "name"] as const).map((method) => [method, text.compare.by[method]])}
          onChoose={setBy}
        />
        <Box flex="1" />
        <Legend />
      </Flex>
      {!from || !to ? (
        <LoadingPage label={text.shell.loading} />
      ) : (
        <>
          <Flex flex="1.1" minH="220px" gap={3} px={5} py={3}>
            <Side
              title={fromInfo?.version.name ?? ""}
              model={from}
              marks={marks("from")}
              focus={current?.from?.id}
              side="from"
            />
            <Side title={toInfo?.version.name ?? ""} model={to} marks={marks("to")} focus={current?.to?.id} side="to" />
          </Flex>
          <Flex
            px={5}
            h="36px"
            align="center"
            gap={4}
            borderTopWidth="1px"
            borderColor="line"
            bg="sheet"
            flexShrink={0}
          >
            <chakra.b data-testid="change-count">{text.compare.changes(changes.length)}</chakra.b>
            <chakra.span color="quiet">{text.compare.unchanged(comparison?.unchanged ?? 0)}</chakra.span>
            <Box flex="1" />
            <Button size="xs" variant="ghost" onClick={() => step(true)}>
              {text.compare.next} <Keycap>J</Keycap>
            </Button>
            <Button size="xs" variant="ghost" onClick={() => step(false)}>
              {text.compare.before} <Keycap>K</Keycap>
            </Button>
          </Flex>
          <Box as="ul" flex="1" minH="140px" overflow="auto" listStyleType="none" bg="paper">
            {changes.length === 0 && <EmptyState>{text.compare.none}</EmptyState>}
            {changes.map((change, at) => (
              <ChangeRow
                key={`${change.from?.id ?? ""}>${change.to?.id ?? ""}`}
                change={change}
                current={change === current}
                onChoose={() => setChosen(at)}
                onFrom={() => openAt(fromInfo?.version.id, change.from?.id)}
                onTo={() => openAt(toInfo?.version.id, change.to?.id)}
                fromName={fromInfo?.version.name ?? ""}
                toName={toInfo?.version.name ?? ""}
              />
            ))}
          </Box>
        </>
      )}
    </Flex>
  );
}

function Legend() {
  return (
    <Flex gap={4} fontSize="13px" color="quiet" align="center">
      <Flex gap={1.5} align="center">
        <svg width="22" height="12" aria-hidden="true">
          <rect
            x="1"
            y="1"
            width="20"
            height="10"
            rx="3"
            fill="none"
            stroke="var(--chakra-colors-pencil)"
            strokeWidth="1.4"
            strokeDasharray="4 2.5"
          />
        </svg>
        {text.compare.only.from}
      </Flex>
      <Flex gap={1.5} align="center">
        <svg width="24" height="14" aria-hidden="true">
          <rect
            x="4"
            y="4"
            width="19"
            height="9"
            rx="3"
            fill="none"
            stroke="var(--chakra-colors-accent)"
            strokeWidth="1.2"
          />
          <rect
            x="1"
            y="1"
            width="19"
            height="9"
            rx="3"
            fill="var(--chakra-colors-paper)"
            stroke="var(--chakra-colors-accent)"
            strokeWidth="1.4"
          />
        </svg>
        {text.compare.only.to}
      </Flex>
    </Flex>
  );
}

function Side({
  title,
  model,
  marks,
  focus,
  side,
}: {
  readonly title: string;
  readonly model: Model;
  readonly marks: ReadonlyMap<Id, Mark>;
  readonly focus: Id | undefined;
  readonly side: "from" | "to";
}) {
  const { entries } = useEntries();
  const page = useMemo(() => [...model.diagrams].sort((a, b) => a.order - b.order)[0], [model]);
  const scene = useMemo(
    () =>
      page &&
      sceneOf(model, page, {
        hueOf: (lane) => entries.find((entry) => entry.id === roleOfLane(model, lane)?.entry)?.hue ?? undefined,
      }),
    [model, page, entries],
  );
  return (
    <Flex
      as="section"
      aria-label={title}
      direction="column"
      flex="1"
      minW={0}
      bg="ground"
      borderWidth="1px"
      borderColor="line"
      borderRadius="6px"
      overflow="hidden"
    >
      <chakra.h2
        fontSize="12px"
        fontWeight="600"
        color="quiet"
        px={3}
        py={1}
        bg="paper"
        borderBottomWidth="1px"
        borderColor="line"
      >
        {title}
      </chakra.h2>
      {scene && <ComparedPage scene={scene} marks={marks} focus={focus} side={side} label={title} />}
    </Flex>
  );
}

interface ChangeRowProps {
  readonly change: Change;
  readonly current: boolean;
  readonly onChoose: () => void;
  readonly onFrom: () => void;
  readonly onTo: () => void;
  readonly fromName: string;
  readonly toName: string;
}

function ChangeRow({ change, current, onChoose, onFrom, onTo, fromName, toName }: ChangeRowProps) {
  const gone = change.kind === "gone";
  return (
    <Flex
      as="li"
      align="center"
      gap={3}
      px={5}
      minH="36px"
      py={1}
      borderBottomWidth="1px"
      borderColor="line"
      bg={current ? "accentSoft" : undefined}
      data-change={change.kind}
    >
      <chakra.span w="72px" flexShrink={0}>
        <chakra.span
          px={2}
          py="1px"
          borderWidth="1px"
          borderStyle={gone ? "dashed" : "solid"}
          borderColor={gone ? "pencil" : "accent"}
          color={gone ? "pencil" : "accent"}
          borderRadius="4px"
          fontSize="12px"
          fontWeight="600"
          bg="paper"
        >
          {text.compare.kinds[change.kind]}
        </chakra.span>
      </chakra.span>
      <chakra.button
        type="button"
        textAlign="start"
        flex="1"
        minH="24px"
        cursor="pointer"
        aria-current={current}
        onClick={onChoose}
      >
        {change.words}
      </chakra.button>
      {change.from && (
        <Button
          size="xs"
          variant="plain"
          color="accent"
          onClick={onFrom}
          aria-label={`${fromName}: ${text.compare.showFrom}`}
        >
          {fromName}
        </Button>
      )}
      {change.to && (
        <Button
          size="xs"
          variant="plain"
          color="accent"
          onClick={onTo}
          aria-label={`${toName}: ${text.compare.showTo}`}
        >
          {toName}
        </Button>
      )}
    </Flex>
  );
}
