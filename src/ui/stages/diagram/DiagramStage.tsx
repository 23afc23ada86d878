"use client";
import { Box, chakra, Flex } from "@chakra-ui/react";
import dynamic from "next/dynamic";
import { useRouter, useSearchParams } from "next/navigation";
import { useCallback, useEffect, useMemo, useRef } from "react";
import { comments } from "@/contract";
import { type Kind, kindsThatMayFollow } from "@/core/commands";
import { type Handover, handoversOf } from "@/core/directory";
import { pageOf } from "@/core/drawing";
import { type Bounds, type Id, isSubProcess, nameOf, shapeOn, shapesOf } from "@/core/model";
import { Canvas, type CanvasHandle } from "../../canvas/Canvas";
import { findingMarks, runMarks } from "../../canvas/marks/findingMarks";
import { useScene } from "../../canvas/useScene";
import { FootTools } from "../../controls/Foot";
import { useAsked } from "../../kernel/queries";
import { text } from "../../messages";
import { usePalette } from "../../shell/paletteStore";
import { addKind, newId, tidyChosen } from "../../version/actions";
import { useDiagram } from "../../version/diagramStore";
import { useFindings } from "../../version/findings";
import { offerRoles } from "../../version/laneRoles";
import { useShownLenses } from "../../version/lenses/useLenses";
import { usePresence } from "../../version/presence/store";
import { useVersion, useVersionStore } from "../../version/VersionContext";
import { CanvasButtons } from "./CanvasButtons";
import { copyChosen, pasteHere } from "./clipboard";
import { commentMarks } from "./commentMarks";
import { type Gesture, gesturesFor } from "./gestureList";
import { handleKey } from "./keys";
import { keyOfKind } from "./kindKeys";
import { LensLegend } from "./lenses/LensLegend";
import { lensMarks } from "./lenses/lensMarks";
import { askMarks, handoverMarks } from "./marks";
import { NextStrip } from "./NextStrip";
import { Outline } from "./Outline";
import { useOthersHere } from "./othersHere";
import { PageTrail } from "./PageTrail";
import { ShownNote } from "./ShownNote";
import { Tray } from "./Tray";
import { TrayHandle } from "./TrayHandle";
import { useShownTray, useUncovered } from "./trayRoom";
import { useKindsToFollow } from "./useKindsToFollow";
import { useKnownElements } from "./useKnownElements";
import { usePageHistory } from "./usePageHistory";
import { useSettled } from "./useSettled";

// Shown only when asked for, and loaded then.
const questions = () => import("./Questions");
const Questions = dynamic(() => questions().then((file) => file.Questions), { loading: () => null });
const Peek = dynamic(() => import("./Peek").then((file) => file.Peek), { loading: () => null });
const Legend = dynamic(() => import("../../canvas/marks/Legend").then((file) => file.Legend), { loading: () => null });
const Matrix = dynamic(() => import("./Matrix").then((file) => file.Matrix), { loading: () => null });
const LensDialog = dynamic(() => import("./lenses/LensDialog").then((file) => file.LensDialog), {
  loading: () => null,
});
const KeySheet = dynamic(() => import("./KeySheet").then((file) => file.KeySheet), { loading: () => null });

const noHandovers: readonly Handover[] = [];
const noGestures: readonly Gesture[] = [];

/** Whether something lies in the lower half of what is to be seen of the page. */
function liesLow(canvas: CanvasHandle | null, bounds: Bounds | undefined): boolean {
  return canvas !== null && bounds !== undefined && bounds.y + bounds.height / 2 > canvas.centre().y;
}

/** The stage where one draws: canvas over its whole width, next strip, tray. */
export function DiagramStage() {
  const store = useVersionStore();
  const model = useVersion((state) => state.model);
  const info = useVersion((state) => state.info);
  const {
    selection,
    page,
    trayOpen,
    aboutOpen,
    outlineOpen,
    keysOpen,
    lensesOpen,
    matrixOpen,
    naming,
    asking,
    peek,
    tool,
  } = useDiagram();
  const { select, set } = useDiagram.getState();
  const { model: settled, selection: settledSelection } = useSettled(model, selection);
  const canvas = useRef<CanvasHandle>(null);
  const { findings } = useFindings();
  const { data: talk } = useAsked(comments.listThreads, { version: info.version.id }, { keepsLast: true });
  const known = useKnownElements(model, selection);
  const router = useRouter();
  const wanted = useSearchParams().get("element");

  const pages = useMemo(() => [...model.diagrams].sort((a, b) => a.order - b.order), [model.diagrams]);
  const diagram = pages.find((candidate) => candidate.id === page) ?? pages[0];
  const diagramId = diagram?.id ?? "";

  const scene = useScene(model, diagram);
  const sceneNow = useRef(scene);
  sceneNow.current = scene;
  const run = useDiagram((state) => state.run);
  const shownHandovers = useDiagram((state) => state.handovers);
  const handovers = useMemo(
    () =>
      shownHandovers
        ? handoversOf(settled, shownHandovers.between).filter(
            ({ from, to }) =>
              shownHandovers.from === undefined || (from === shownHandovers.from && to === shownHandovers.to),
          )
        : noHandovers,
    [settled, shownHandovers],
  );
  const lensesShown = useShownLenses();
  const { marks: chosenByOthers, followed } = useOthersHere(canvas, diagramId, scene);
  const followedPage = followed?.page;
  useEffect(() => {
    if (!followedPage) return;
    const follow = () => set({ page: followedPage });
    if (canvas.current) return canvas.current.viewport.whenFree(follow);
    follow();
  }, [followedPage, set]);
  const marks = useMemo(
    () => [
      ...lensMarks(scene, lensesShown),
      ...chosenByOthers,
      ...(run ? runMarks(run, model) : []),
      ...handoverMarks(handovers),
      ...askMarks(info.brief?.asks ?? [], model),
      ...findingMarks(findings.filter(({ elements }) => elements.every(known))),
      ...commentMarks(talk?.threads ?? []),
    ],
    [run, model, handovers, findings, info.brief, known, talk, scene, lensesShown, chosenByOthers],
  );

  // What was selected may be gone, by undo or by somebody else.
  useEffect(() => {
    const left = selection.filter((id) => model.elements.has(id));
    if (left.length !== selection.length) select(...left);
  }, [model, selection, select]);

  const reveal = useCallback(
    (id: Id) => {
      const at =
        shapesOf(store.getState().model, id)[0]?.diagram ??
        [...store.getState().model.edges].find((edge) => edge.element === id)?.diagram;
      if (at && at !== diagram?.id) set({ page: at });
      select(id);
      const shape = at && shapeOn(store.getState().model, at, id);
      if (shape) requestAnimationFrame(() => canvas.current?.viewport.show(shape.bounds));
    },
    [store, diagram?.id, select, set],
  );
  // Once for each address: whoever turns to another page afterwards stays there.
  const revealed = useRef<string | null>(null);
  useEffect(() => {
    if (revealed.current === wanted) return;
    revealed.current = wanted;
    if (wanted && store.getState().model.elements.has(wanted)) reveal(wanted);
  }, [wanted, store, reveal]);

  const trayShown = useShownTray(settledSelection.length > 0 ? trayOpen : aboutOpen);
  useUncovered(store, diagramId, canvas, settledSelection, trayShown);

  const openPage = useCallback(
    (id: Id) => {
      const now = store.getState().model;
      const element = now.elements.get(id);
      if (!element || !isSubProcess(element.type)) return;
      const existing = pageOf(now, id);
      if (!existing) {
        const made = newId("page");
        if (!store.getState().dispatch({ type: "addPage", id: made, element: id })) return;
        set({ page: made });
      } else set({ page: existing.id });
      select();
    },
    [store, select, set],
  );

  const selected = selection.length === 1 ? model.elements.get(selection[0] as Id) : undefined;
  const kinds = useKindsToFollow(model, selected, selection.length > 1);
  const add = useCallback(
    (kind: Kind) => {
      const [only, another] = useDiagram.getState().selection;
      const from = only !== undefined && another === undefined ? store.getState().model.elements.get(only) : undefined;
      if (diagramId) addKind(store, diagramId, from, kind, undefined, canvas.current?.centre());
      requestAnimationFrame(() => {
        const [id] = useDiagram.getState().selection;
        const shape = id && shapeOn(store.getState().model, diagramId, id);
        if (shape) canvas.current?.viewport.show(shape.bounds);
      });
    },
    [store, diagramId],
  );

  const turnTo = useCallback(
    (id: Id) => {
      set({ page: id });
      select();
    },
    [set, select],
  );
  const fit = useCallback(() => canvas.current?.viewport.fit(sceneNow.current.bounds), []);
  const tidy = useCallback(() => {
    if (diagramId) tidyChosen(store, diagramId);
  }, [store, diagramId]);
  const moveLane = useCallback(
    (lane: Id, to: Id) => {
      const page = shapesOf(store.getState().model, lane)[0]?.diagram;
      if (page) store.getState().dispatch({ type: "moveLane", diagram: page, lane, to });
    },
    [store],
  );
  const openVersion = useCallback(
    (version: string) => router.push(`/v/${encodeURIComponent(version)}/diagram`),
    [router],
  );

  const goBack = usePageHistory();
  const gestures = useMemo(
    () => gesturesFor({ store, diagram: diagramId, model: settled, selection }),
    [store, diagramId, settled, selection],
  );
  const now = useRef({ gestures, kinds, add });
  now.current = { gestures, kinds, add };
  useEffect(
    () =>
      usePalette.getState().offer(() => [
        ...now.current.gestures.map(({ id, title, keys, run }) => ({
          id: `gesture-${id}`,
          title,
          run,
          ...(keys && { keys }),
        })),
        {
          id: "handovers",
          title: useDiagram.getState().handovers ? text.matrix.hideAll : text.matrix.showAll,
          run: () =>
            useDiagram.getState().set({ handovers: useDiagram.getState().handovers ? null : { between: "roles" } }),
        },
        { id: "matrix", title: text.matrix.open, run: () => useDiagram.getState().set({ matrixOpen: true }) },
        {
          id: "all-kinds",
          title: `${text.diagram.more} …`,
          keys: "Z",
          run: () => useDiagram.getState().set({ asking: "more" }),
        },
      ]),
    [],
  );

  const onKey = (event: React.KeyboardEvent) => {
    if (!diagram) return;
    const fresh = gesturesFor({ store, diagram: diagram.id, model: store.getState().model, selection });
    const context = { kinds, add, openPage, canvas: canvas.current, scene, model, gestures: fresh, goBack };
    handleKey(event, { store, diagram: diagram.id, ...context });
  };
  const onLetter = (letter: string) => {
    const [only, another] = useDiagram.getState().selection;
    const { model: renamed } = store.getState();
    const chosen = only !== undefined && another === undefined ? renamed.elements.get(only) : undefined;
    const kind = kindsThatMayFollow(renamed, chosen).find((one) => keyOfKind(one).key === letter);
    if (kind) add(kind);
  };
  const onClipboard = (event: React.ClipboardEvent) => {
    if (!diagram || !(event.target as HTMLElement).closest("[data-canvas]") || naming) return;
    if (event.type !== "paste") return void copyChosen(store, diagram.id, event.nativeEvent);
    event.preventDefault();
    const centre = canvas.current?.centre() ?? { x: 0, y: 0 };
    void pasteHere(store, diagram.id, centre, event.clipboardData.getData("text/plain"));
  };

  useEffect(() => offerRoles(store), [store]);
  // A fresh page is ready for the keyboard; what its keys open is loaded before it is asked for.
  useEffect(() => {
    const timer = setTimeout(() => void questions(), 3000);
    return () => clearTimeout(timer);
  }, []);
  useEffect(() => {
    document.querySelector<HTMLElement>("[data-canvas]")?.focus({ preventScroll: true });
  }, []);

  return (
    <>
      <chakra.h1 srOnly>{`${info.process.name}, ${info.version.name}`}</chakra.h1>
      <Flex
        flex="1"
        minH={0}
        position="relative"
        direction="column"
        onCopy={onClipboard}
        onCut={onClipboard}
        onPaste={onClipboard}
      >
        <Canvas
          model={model}
          diagram={diagram?.id ?? ""}
          scene={scene}
          marks={marks}
          onOpen={openPage}
          onContextKey={onKey}
          onLetter={onLetter}
          handle={canvas}
        />
        {scene.figures.length === 0 && (
          <chakra.p position="absolute" top="40%" insetX={0} textAlign="center" color="quiet" pointerEvents="none">
            {text.diagram.empty}
          </chakra.p>
        )}
        <LensLegend shown={lensesShown} />
        {(run || shownHandovers) && <Legend marks={marks} />}
        {run && (
          <ShownNote words={text.check.run(run.length)} hide={text.check.hideRun} onHide={() => set({ run: null })} />
        )}
        {followed && (
          <ShownNote
            words={text.presence.following(followed.name)}
            hide={text.presence.stopShort}
            onHide={() => usePresence.getState().set({ following: null })}
          />
        )}
        {shownHandovers && (
          <ShownNote
            words={text.matrix.drawn(handovers.length, shownHandovers.between, shownHandovers.from, shownHandovers.to)}
            hide={text.matrix.hide}
            onHide={() => set({ handovers: null })}
          />
        )}
        {tool === "room" && (
          <chakra.p
            position="absolute"
            left="14px"
            top="12px"
            px={3}
            py={1}
            bg="paper"
            borderWidth="1px"
            borderColor="accent"
            borderRadius="6px"
            pointerEvents="none"
          >
            {text.diagram.roomHint}
          </chakra.p>
        )}
        {peek && model.elements.has(peek) && (
          <Peek
            model={model}
            element={peek}
            side={liesLow(canvas.current, diagram && shapeOn(model, diagram.id, peek)?.bounds) ? "top" : "bottom"}
            onClose={() => {
              set({ peek: null });
              document.querySelector<HTMLElement>("[data-canvas]")?.focus();
            }}
            onOpen={openPage}
          />
        )}
        {matrixOpen && (
          <Matrix
            model={model}
            onClose={() => {
              set({ matrixOpen: false });
              document.querySelector<HTMLElement>("[data-canvas]")?.focus();
            }}
            onShow={(which, ids) => {
              set({ matrixOpen: false, handovers: which });
              select(...ids);
              document.querySelector<HTMLElement>("[data-canvas]")?.focus();
            }}
          />
        )}
        {outlineOpen && (
          <Outline model={model} onChoose={reveal} onClose={() => set({ outlineOpen: false })} onMoveLane={moveLane} />
        )}
      </Flex>
      <NextStrip
        chosen={selection.length}
        onFlow={selected?.type === "sequenceFlow"}
        kinds={kinds}
        gestures={selection.length > 1 ? gestures : noGestures}
        onAdd={add}
        onTidy={tidy}
      />
      {diagram && trayShown && (
        <>
          <TrayHandle />
          <Tray
            model={settled}
            diagram={diagram.id}
            selection={settledSelection}
            onGo={reveal}
            onOpenPage={openPage}
            onVersion={openVersion}
          />
        </>
      )}
      <FootTools>
        <PageTrail model={settled} diagram={diagram?.id} pages={pages} onPage={turnTo} />
        <CanvasButtons canvas={canvas} onFit={fit} />
      </FootTools>
      {asking && diagram && <Questions model={model} diagram={diagram.id} selected={selected} onAdd={add} />}
      {lensesOpen && <LensDialog onClose={() => set({ lensesOpen: false })} />}
      {keysOpen && <KeySheet onClose={() => set({ keysOpen: false })} />}
      <chakra.div srOnly role="status">
        {naming ? "" : selected ? `${nameOf(model, selected.id) || selected.type}` : ""}
      </chakra.div>
      <Box hidden data-testid="version-name">
        {info.version.name}
      </Box>
    </>
  );
}
