"use client";
import { Button, chakra, Flex } from "@chakra-ui/react";
import type { Editor } from "@tiptap/react";
import { useSearchParams } from "next/navigation";
import { useCallback, useEffect, useRef, useState } from "react";
import { brief } from "@/contract";
import type { ProcessGrowth } from "@/contract/brief";
import { useEntries } from "../../controls/entries";
import { complain, tell } from "../../controls/notices";
import { ErrorPage, LoadingPage } from "../../controls/states";
import { ask, ServerError } from "../../kernel/ask";
import { text } from "../../messages";
import { useBrief } from "../../version/briefStore";
import { aboutOf, commentOn } from "../../version/comments/store";
import { useVersion, useVersionStore } from "../../version/VersionContext";
import { BelongsMenu } from "./BelongsMenu";
import { BriefPage } from "./BriefPage";
import { type BuildChoice, GrowthDialog } from "./GrowthDialog";
import { MarkBar } from "./MarkBar";
import { sentenceHere, showMark, showSentence, startSuggesting } from "./pageActions";
import { onPageKey } from "./pageKeys";
import { focusQuestion, showQuestion } from "./questions";
import { htmlOfFile } from "./readFile";
import { useBriefEditor } from "./useBriefEditor";
import { useReading } from "./useReading";
import { WholePanel } from "./WholePanel";

/** The stage before drawing: a description, what its words stand for, and the processes it tells of. */
export function BriefStage() {
  const info = useVersion((state) => state.info);
  const status = useBrief((state) => state.status);
  const process = useBrief((state) => state.process);
  const problem = useBrief((state) => state.problem);
  useEffect(() => {
    void useBrief.getState().open(info.process.id);
    return () => void useBrief.getState().settle();
  }, [info.process.id]);
  if (process !== info.process.id || status === "loading") return <LoadingPage label={text.brief.loading} />;
  if (status === "failed" && useBrief.getState().id === "")
    return <ErrorPage message={problem} retry={() => void useBrief.getState().open(info.process.id)} />;
  return <OpenBrief />;
}

function OpenBrief() {
  const store = useVersionStore();
  const info = useVersion((state) => state.info);
  const status = useBrief((state) => state.status);
  const problem = useBrief((state) => state.problem);
  const told = useReading();
  const [badge, setBadge] = useState<{ sentence: number; at: DOMRect } | null>(null);
  const [building, setBuilding] = useState(false);
  useEntries();

  const openAt = useRef(-1);
  const held = useRef<Editor | null>(null);
  const nextOpen = useCallback(() => {
    const { open } = told.coverage;
    if (!held.current || open.length === 0) return;
    openAt.current = (openAt.current + 1) % open.length;
    showSentence(held.current, told.reading, open[openAt.current]?.at ?? 0);
  }, [told]);
  const askedAt = useRef(-1);
  const nextQuestion = useCallback(() => {
    const questions = told.frames.flatMap((frame) => frame.open);
    if (!held.current || questions.length === 0) return;
    askedAt.current = (askedAt.current + 1) % questions.length;
    const question = questions[askedAt.current];
    if (question) showQuestion(held.current, told.reading, question);
  }, [told]);
  const suggest = useCallback(() => {
    if (startSuggesting() === 0) tell({ description: text.brief.noSuggestions });
    held.current?.commands.focus();
  }, []);
  const comment = useCallback(() => {
    const sentence = held.current && sentenceHere(held.current, told.reading);
    if (sentence) commentOn(aboutOf("sentence", sentence, sentence));
    else tell({ description: text.brief.noSentence });
  }, [told]);
  const editor = useBriefEditor((event, at) => onPageKey(event, at, { suggest, nextOpen, nextQuestion, comment }));
  held.current = editor;

  // The suggestion one is at is in sight.
  const current = useBrief((state) => state.suggestions?.[state.current]);
  useEffect(() => {
    if (!current) return;
    const frame = requestAnimationFrame(() =>
      document.querySelector(".suggested-current")?.scrollIntoView({ block: "nearest" }),
    );
    return () => cancelAnimationFrame(frame);
  }, [current]);

  // From an element to its words.
  const wanted = useSearchParams().get("mark");
  const shown = useRef<string | null>(null);
  useEffect(() => {
    if (!editor || !wanted || shown.current === wanted) return;
    shown.current = wanted;
    requestAnimationFrame(() => showMark(editor, wanted));
  }, [editor, wanted]);

  const { sentences, accounted } = told.coverage;
  const { asks } = told;
  const { noteBrief } = store.getState();
  useEffect(() => noteBrief({ sentences, accounted, asks }), [sentences, accounted, asks, noteBrief]);

  const [growth, setGrowth] = useState<{ told: readonly ProcessGrowth[]; frames: readonly string[] | undefined }>();
  const build = async (frames: readonly string[] | undefined, chosen: BuildChoice) => {
    setBuilding(true);
    setGrowth(undefined);
    try {
      const { built } = await ask(brief.buildProcesses, {
        version: info.version.id,
        ...(frames && { frames: [...frames] }),
        ...chosen,
      });
      await lookAtBuilt();
      const made = built.filter((one) => one.added > 0);
      tell({ description: text.brief.built(made.map((one) => one.name)) });
    } catch (error) {
      tellNotBuilt(error, frames);
      // Without an answer it may have been built all the same: what is there is shown.
      if (error instanceof ServerError && error.code === "no-answer") await lookAtBuilt().catch(complain);
    } finally {
      setBuilding(false);
    }
  };
  const lookAtBuilt = async () => {
    await store.getState().reload();
    // What was typed while it was built goes first.
    await useBrief.getState().settle();
    await useBrief.getState().open(info.process.id);
  };
  /** Nothing was built since one could not be: the others can be built without it. */
  const tellNotBuilt = (error: unknown, frames: readonly string[] | undefined) => {
    const stuck = error instanceof ServerError ? error.details.map(({ code }) => code) : [];
    const others = (frames ?? told.frames.map((frame) => frame.key)).filter((key) => !stuck.includes(key));
    if (!(error instanceof ServerError) || error.code !== "not-built" || others.length === 0) return complain(error);
    tell({
      type: "error",
      description: error.message,
      duration: 30_000,
      action: { label: text.brief.buildOthers, onClick: () => void look(others) },
    });
  };
  /** What building again would do is shown first, to be taken or left. */
  const look = async (frames?: readonly string[]) => {
    setBuilding(true);
    try {
      await useBrief.getState().settle();
      await store.getState().settled();
      const { processes: grown } = await ask(brief.previewBuild, {
        version: info.version.id,
        ...(frames && { frames: [...frames] }),
      });
      if (grown.some((one) => one.added.length + one.renamed.length + one.lost.length > 0 && one.hasSteps))
        return setGrowth({ told: grown, frames });
      await build(frames, {});
    } catch (error) {
      complain(error);
    } finally {
      setBuilding(false);
    }
  };
  const takeFile = async (file: File) => {
    try {
      const html = await htmlOfFile(file);
      useBrief.getState().set({ mode: "write" });
      if (!editor) return;
      if (editor.isEmpty) editor.commands.setContent(html, { emitUpdate: true });
      else editor.chain().focus("end").insertContent(html).run();
      useBrief.getState().set({ mode: "mark" });
    } catch (error) {
      complain(error);
    }
  };

  return (
    <Flex
      direction="column"
      flex="1"
      minH={0}
      onDragOver={(event) => event.dataTransfer.types.includes("Files") && event.preventDefault()}
      onDrop={(event) => {
        const [file] = event.dataTransfer.files;
        if (!file) return;
        event.preventDefault();
        event.stopPropagation();
        void takeFile(file);
      }}
    >
      <chakra.h1 srOnly>{`${text.stages.brief}: ${info.process.name}`}</chakra.h1>
      <MarkBar editor={editor} onSuggest={suggest} onComment={comment} onFile={(file) => void takeFile(file)} />
      {status === "changed-elsewhere" && (
        <Flex
          role="alert"
          px={4}
          py={2}
          gap={3}
          align="center"
          bg="accentSoft"
          borderBottomWidth="1px"
          borderColor="accent"
        >
          <chakra.span flex="1">{problem}</chakra.span>
          <Button
            size="xs"
            variant="outline"
            bg="paper"
            onClick={() => useBrief.getState().resolve("take").catch(complain)}
          >
            {text.brief.takeTheirs}
          </Button>
          <Button
            size="xs"
            variant="outline"
            bg="paper"
            onClick={() => useBrief.getState().resolve("keep").catch(complain)}
          >
            {text.brief.keepMine}
          </Button>
        </Flex>
      )}
      {(status === "failed" || status === "waiting") && (
        <chakra.p role="alert" px={4} py={1} color="attention">
          {status === "waiting" ? text.brief.notSaved : problem}
        </chakra.p>
      )}
      <Flex flex="1" minH={0} position="relative">
        <BriefPage
          editor={editor}
          told={told}
          onMark={(mark) => editor && showMark(editor, mark)}
          onBadge={(sentence, at) => setBadge({ sentence, at })}
          onQuestion={(id) => focusQuestion(id)}
        />
        <WholePanel
          editor={editor}
          told={told}
          building={building}
          onSuggest={suggest}
          onBuild={(frames) => void look(frames)}
          onNextOpen={nextOpen}
        />
      </Flex>
      {badge && editor && (
        <BelongsMenu
          editor={editor}
          told={told}
          sentence={badge.sentence}
          at={badge.at}
          onClose={() => setBadge(null)}
        />
      )}
      {growth && (
        <GrowthDialog
          told={growth.told}
          onClose={() => setGrowth(undefined)}
          onBuild={(chosen) => void build(growth.frames, chosen)}
        />
      )}
      <chakra.span srOnly role="status" data-testid="brief-state">
        {status}
      </chakra.span>
    </Flex>
  );
}
