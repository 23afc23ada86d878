"use client";
import { Box, chakra, Flex } from "@chakra-ui/react";
import dynamic from "next/dynamic";
import { usePathname, useRouter, useSearchParams } from "next/navigation";
import { type ReactNode, useEffect, useMemo, useState } from "react";
import { howAssumed } from "@/core/forecast";
import { isFlowNode, type Model } from "@/core/model";
import { complain, tell } from "../controls/notices";
import { useActsUnderWay } from "../kernel/ask";
import { text } from "../messages";

import type { PaletteCommand } from "../shell/paletteStore";
import { TopRow } from "../shell/TopRow";
import { useCommentsShown } from "../version/comments/store";
import { FindingsProvider, useFindings } from "../version/findings";
import { usePresent } from "../version/presence/usePresent";
import { useVersion, VersionProvider } from "../version/VersionContext";
import { useWalks, WalksProvider } from "../version/walks";
import { CommentsButton } from "./frame/CommentsButton";
import type { VersionQuestion } from "./frame/VersionDialogs";
import { VersionMenuButton } from "./frame/VersionMenuButton";
import { Journey } from "./Journey";
import { Others } from "./Others";
import { firstShown, type StageName, type StageSigns, stageNamed, stagePath, stageSigns, stages } from "./register";

// Shown only when asked for, and loaded then.
const VersionMenu = dynamic(() => import("./frame/VersionMenu").then((file) => file.VersionMenu), {
  loading: () => null,
});
const VersionDialogs = dynamic(() => import("./frame/VersionDialogs").then((file) => file.VersionDialogs), {
  loading: () => null,
});
const AsideDialog = dynamic(() => import("./frame/AsideDialog").then((file) => file.AsideDialog), {
  loading: () => null,
});
const CommentsColumn = dynamic(() => import("./frame/CommentsColumn").then((file) => file.CommentsColumn), {
  loading: () => null,
});
const DisagreementDialog = dynamic(() => import("./frame/DisagreementDialog").then((file) => file.DisagreementDialog), {
  loading: () => null,
});

/** Everything around the stages of one version: trail, journey, saved state, revisions. */
export function VersionShell({ version, children }: { readonly version: string; readonly children: ReactNode }) {
  return (
    <VersionProvider version={version}>
      <FindingsProvider>
        <WalksProvider>
          <Frame>{children}</Frame>
        </WalksProvider>
      </FindingsProvider>
    </VersionProvider>
  );
}

function Frame({ children }: { readonly children: ReactNode }) {
  const info = useVersion((state) => state.info);
  const stage = stageNamed(usePathname().split("/").at(-1))?.name ?? firstShown;
  const [question, setQuestion] = useState<VersionQuestion | null>(null);
  const [menuWanted, setMenuWanted] = useState(false);
  const commentsOpen = useCommentsShown((state) => state.isOpen);
  const router = useRouter();
  // Whoever comes from a comment sees it.
  const wanted = useSearchParams().get("comments");
  useEffect(() => {
    const part = wanted === "review" ? "review" : "comments";
    if (wanted !== null) useCommentsShown.getState().set({ isOpen: true, part });
  }, [wanted]);
  useNotices();
  usePresent(stage);
  const disagrees = useVersion((state) => state.disagreement !== null);
  const commands = useMemo<PaletteCommand[]>(
    () => [
      { id: "to-be", title: text.version.start, run: () => setQuestion("to-be") },
      { id: "history", title: text.version.history, run: () => setQuestion("history") },
      { id: "describe", title: text.version.describe, run: () => setQuestion("describe") },
      ...(info.version.kind === "to-be"
        ? [{ id: "adopt", title: text.version.adopt, run: () => setQuestion("adopt") }]
        : []),
      { id: "gallery", title: text.gallery.open, run: () => router.push("/gallery") },
      { id: "export", title: text.exporting.open, run: () => setQuestion("export") },
      { id: "keep", title: text.version.keep, run: () => setQuestion("keep") },
      { id: "links", title: text.links.title, run: () => setQuestion("links") },
      {
        id: "comments",
        title: text.comments.title,
        run: () => useCommentsShown.getState().set({ isOpen: true, part: "comments" }),
      },
      {
        id: "review",
        title: text.review.ask,
        run: () => useCommentsShown.getState().set({ isOpen: true, part: "review" }),
      },
      ...stages.map(({ name, words }) => ({
        id: `stage-${name}`,
        title: text.stages[words],
        run: () => router.push(stagePath(info.version.id, name)),
      })),
    ],
    [router, info.version.id, info.version.kind],
  );
  return (
    <Flex direction="column" h="100%" minH={0}>
      <TopRow
        commands={commands}
        trail={
          <>
            {info.trail.map((area) => (
              <Flex key={area} gap={2} flexShrink={1} minW={0} hideBelow="md">
                <chakra.span truncate>{area}</chakra.span>
                <span aria-hidden>/</span>
              </Flex>
            ))}
            <chakra.span color="ink" fontWeight="700" truncate minW="60px" title={info.process.name}>
              {info.process.name}
            </chakra.span>
            <span aria-hidden>/</span>
            {menuWanted ? (
              <VersionMenu onAsk={setQuestion} />
            ) : (
              <VersionMenuButton name={info.version.name} onClick={() => setMenuWanted(true)} />
            )}
          </>
        }
        state={
          <>
            <Others version={info.version.id} stage={stage} />
            <SavedState />
            <CommentsButton />
          </>
        }
      />
      <JourneyRow version={info.version.id} current={stage} />
      {/* In a window as small as one that shows all twice as large, a stage keeps its size, and one scrolls. */}
      <Box as="main" id="content" flex="1" minH={0} overflow="auto" display="flex" flexDirection="column">
        <Flex flex="1 0 auto" h="100%" minH="500px" minW="900px">
          <Flex direction="column" flex="1" minW={0}>
            {children}
          </Flex>
          {commentsOpen && <CommentsColumn />}
        </Flex>
      </Box>
      {disagrees && <DisagreementDialog />}
      {question && <VersionDialogs question={question} onAsk={setQuestion} />}
    </Flex>
  );
}

function SavedState() {
  const acts = useActsUnderWay();
  const pending = useVersion((state) => state.pending.length);
  const isSaving = pending + acts > 0;
  const failing = useVersion((state) => state.failing);
  const disagrees = useVersion((state) => state.disagreement !== null);
  const mayChange = useVersion((state) => state.info.rights.includes("edit"));
  if (!mayChange)
    return (
      <chakra.span color="quiet" fontSize="13px" flexShrink={0} title={text.lacking.edit} data-testid="reads-only">
        {text.saved.readsOnly}
      </chakra.span>
    );
  const words = disagrees
    ? text.saved.deciding
    : failing
      ? text.saved.waiting(pending)
      : isSaving
        ? text.saved.saving
        : text.saved.saved;
  return (
    <>
      <SetAside />
      <chakra.span
        role="status"
        data-testid="saved-state"
        color={failing ? "attention" : isSaving ? "quiet" : "good"}
        fontSize="13px"
        flexShrink={0}
      >
        {words}
      </chakra.span>
    </>
  );
}

/** Beside the saved state, where something could not be saved: how much, and on a click what. */
function SetAside() {
  const count = useVersion((state) => state.setAside.length);
  const [isOpen, setOpen] = useState(false);
  if (count === 0) return null;
  return (
    <>
      <chakra.button
        type="button"
        color="trouble"
        fontSize="13px"
        textDecoration="underline"
        onClick={() => setOpen(true)}
      >
        {text.saved.aside(count)}
      </chakra.button>
      {isOpen && <AsideDialog onClose={() => setOpen(false)} />}
    </>
  );
}

/** Shows what commands have to say, once each. */
function useNotices(): void {
  const notice = useVersion((state) => state.notice);
  useEffect(() => {
    if (!notice) return;
    if (notice.kind === "refusal") complain(new Error(notice.message));
    else tell({ description: notice.message });
  }, [notice]);
}

/** Apart from the rest of the frame, which need not be drawn again with each change of the model. */
function JourneyRow(props: { readonly version: string; readonly current: StageName }) {
  return <Journey {...props} signs={useStageSigns()} />;
}

/** Up to a start, an end and something between; more is not counted, so that the journey is not drawn again with each step. */
function fewNodes(model: Model): number {
  let nodes = 0;
  for (const element of model.elements) if (isFlowNode(element.type) && ++nodes === 3) break;
  return nodes;
}

/** The state of each stage, from the model and what was done with it. */
function useStageSigns(): StageSigns {
  const nodes = useVersion((state) => fewNodes(state.model));
  const info = useVersion((state) => state.info);
  const { verdict } = useFindings();
  const { tests, failing, settled } = useWalks();
  const assumed = useMemo(() => howAssumed(settled), [settled]);
  return useMemo(
    () =>
      stageSigns({
        brief: info.brief,
        nodes,
        open: verdict ? { errors: verdict.counts.error, warnings: verdict.counts.warning } : undefined,
        walks: tests.length,
        failingWalks: failing,
        assumed,
        versions: info.siblings.length,
        isCopy: info.version.source !== null,
        handedOff: info.handedOff,
        live: info.live,
      }),
    [nodes, info, verdict, tests, failing, assumed],
  );
}
