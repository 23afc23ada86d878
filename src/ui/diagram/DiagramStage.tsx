"use client";
import { Box, Button, chakra, Flex, NativeSelect } from "@chakra-ui/react";
import { PanelBottomClose, PanelBottomOpen } from "lucide-react";
import { useRouter, useSearchParams } from "next/navigation";
import { useCallback, useEffect, useMemo, useRef, useState } from "react";
import { kindsThatMayFollow } from "@/core/commands";
import { roleOfLane } from "@/core/directory";
import { pageOf, sceneOf } from "@/core/drawing";
import {
  ancestorsOf,
  type Element,
  type Id,
  isFlowNode,
  isSubProcess,
  type Model,
  nameOf,
  shapeOn,
  shapesOf,
} from "@/core/model";
import { Canvas, type CanvasHandle } from "../canvas/Canvas";
import { Keycap } from "../controls/Keycap";
import { useEntries } from "../directory/entries";
import { text } from "../messages";
import { useFindings } from "../version/findings";
import { useVersion, useVersionStore } from "../version/VersionContext";
import { addKind, newId } from "./actions";
import { useDiagram } from "./diagramStore";
import { KeySheet } from "./KeySheet";
import { handleKey } from "./keys";
import { NextStrip } from "./NextStrip";
import { Outline } from "./Outline";
import { Tray } from "./Tray";

/** The stage where one draws: canvas over its whole width, next strip, tray. */
export function DiagramStage() {
  const store = useVersionStore();
  const model = useVersion((state) => state.model);
  const info = useVersion((state) => state.info);
  const { selection, page, trayOpen, outlineOpen, keysOpen, naming } = useDiagram();
  const { select, set } = useDiagram.getState();
  const canvas = useRef<CanvasHandle>(null);
  const [zoomShown, setZoomShown] = useState(1);
  const { entries } = useEntries();
  const { findings } = useFindings();
  const router = useRouter();
  const wanted = useSearchParams().get("element");

  const pages = useMemo(() => [...model.diagrams].sort((a, b) => a.order - b.order), [model.diagrams]);
  const diagram = pages.find((candidate) => candidate.id === page) ?? pages[0];

  const hues = useMemo(
    () =>
      new Map(
        entries.filter((entry) => entry.kind === "role" && entry.hue).map((entry) => [entry.id, entry.hue as string]),
      ),
    [entries],
  );
  const scene = useMemo(
    () =>
      diagram
        ? sceneOf(model, diagram, { hueOf: (lane) => hues.get(roleOfLane(model, lane)?.entry ?? "") })
        : { figures: [], bounds: { x: 0, y: 0, width: 0, height: 0 } },
    [model, diagram, hues],
  );
  const signs = useMemo(() => {
    const found = new Map<Id, "error" | "warning">();
    for (const finding of findings) {
      if (finding.severity === "advice") continue;
      for (const id of finding.elements) if (found.get(id) !== "error") found.set(id, finding.severity);
    }
    return found;
  }, [findings]);

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
  useEffect(() => {
    if (wanted && store.getState().model.elements.has(wanted)) reveal(wanted);
  }, [wanted, store, reveal]);

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
  const kinds = useMemo(
    () => (selection.length > 1 ? [] : kindsThatMayFollow(model, selected)),
    [model, selected, selection.length],
  );
  const add = useCallback(
    (kind: (typeof kinds)[number]) => {
      if (diagram) addKind(store, diagram.id, selected, kind, undefined, canvas.current?.centre());
      requestAnimationFrame(() => {
        const [id] = useDiagram.getState().selection;
        const shape = id && diagram && shapeOn(store.getState().model, diagram.id, id);
        if (shape) canvas.current?.viewport.show(shape.bounds);
      });
    },
    [store, diagram, selected],
  );

  const onKey = (event: React.KeyboardEvent) => {
    if (!diagram) return;
    handleKey(event, { store, diagram: diagram.id, kinds, add, openPage, canvas: canvas.current, scene, model });
  };

  // Undo and redo reach the whole page, the canvas' other keys only the canvas.
  useEffect(() => {
    const onWindowKey = (event: KeyboardEvent) => {
      const target = event.target as HTMLElement;
      if (target.closest("input, textarea, [contenteditable], [role=dialog], [data-canvas]")) return;
      if (!(event.ctrlKey || event.metaKey)) return;
      if (event.key.toLowerCase() === "z") {
        event.preventDefault();
        event.shiftKey ? store.getState().redo() : store.getState().undo();
      }
    };
    window.addEventListener("keydown", onWindowKey);
    return () => window.removeEventListener("keydown", onWindowKey);
  }, [store]);

  // A fresh page is ready for the keyboard.
  useEffect(() => {
    document.querySelector<HTMLElement>("[data-canvas]")?.focus({ preventScroll: true });
  }, []);

  useEffect(() => {
    const timer = setInterval(() => setZoomShown(canvas.current?.viewport.transform.current.k ?? 1), 250);
    return () => clearInterval(timer);
  }, []);

  return (
    <>
      <chakra.h1 srOnly>{`${info.process.name}, ${info.version.name}`}</chakra.h1>
      <Flex flex="1" minH={0} position="relative" direction="column">
        <Canvas
          model={model}
          diagram={diagram?.id ?? ""}
          scene={scene}
          signs={signs}
          onOpen={openPage}
          onContextKey={onKey}
          handle={canvas}
        />
        {scene.figures.length === 0 && (
          <chakra.p position="absolute" top="40%" insetX={0} textAlign="center" color="quiet" pointerEvents="none">
            {text.diagram.empty}
          </chakra.p>
        )}
        <PageTrail
          model={model}
          diagram={diagram?.id}
          pages={pages}
          onPage={(id) => {
            set({ page: id });
            select();
          }}
        />
        <Flex position="absolute" right="14px" bottom="12px" gap={1.5}>
          <Button
            size="xs"
            variant="outline"
            bg="paper"
            borderColor="line"
            onClick={() => canvas.current?.viewport.fit(scene.bounds)}
          >
            {text.diagram.fit} <Keycap>0</Keycap>
          </Button>
          <Button
            size="xs"
            variant="outline"
            bg="paper"
            borderColor="line"
            aria-label={text.diagram.zoom}
            onClick={() => canvas.current?.viewport.zoomTo(1)}
          >
            {Math.round(zoomShown * 100)} %
          </Button>
          <Button
            size="xs"
            variant="outline"
            bg="paper"
            borderColor="line"
            aria-expanded={outlineOpen}
            onClick={() => set({ outlineOpen: !outlineOpen })}
          >
            {text.diagram.outline} <Keycap>O</Keycap>
          </Button>
          <Button size="xs" variant="outline" bg="paper" borderColor="line" onClick={() => set({ keysOpen: true })}>
            {text.shell.keys} <Keycap>?</Keycap>
          </Button>
        </Flex>
        {outlineOpen && <Outline model={model} onChoose={reveal} onClose={() => set({ outlineOpen: false })} />}
      </Flex>
      <NextStrip
        model={model}
        selection={selection}
        kinds={kinds}
        onAdd={add}
        onCarry={(kind) => set({ carrying: kind })}
        onTidy={() => diagram && store.getState().dispatch({ type: "tidy", diagram: diagram.id })}
        end={
          <Button
            size="xs"
            variant="ghost"
            aria-label={trayOpen ? text.diagram.closeTray : text.diagram.openTray}
            onClick={() => set({ trayOpen: !trayOpen })}
          >
            {trayOpen ? <PanelBottomClose size={15} /> : <PanelBottomOpen size={15} />}
          </Button>
        }
      />
      {trayOpen && diagram && (
        <Tray
          model={model}
          diagram={diagram.id}
          selection={selection}
          onGo={reveal}
          onOpenPage={openPage}
          onVersion={(version) => router.push(`/v/${encodeURIComponent(version)}/diagram`)}
        />
      )}
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

/** Where a page stands within the others; the way back up from a sub-process. */
function PageTrail({
  model,
  diagram,
  pages,
  onPage,
}: {
  readonly model: Model;
  readonly diagram: Id | undefined;
  readonly pages: readonly { readonly id: Id; readonly name?: string; readonly element?: Id }[];
  readonly onPage: (id: Id) => void;
}) {
  if (pages.length < 2) return null;
  const label = (page: (typeof pages)[number]): string => {
    const element: Element | undefined = page.element === undefined ? undefined : model.elements.get(page.element);
    if (!element) return page.name ?? page.id;
    if (element.type === "collaboration") return text.diagram.whole;
    const path = ancestorsOf(model, element.id)
      .filter((step) => isFlowNode(step.type))
      .reverse();
    return path.map((step) => nameOf(model, step.id)).join(" / ") || nameOf(model, element.id) || text.diagram.whole;
  };
  return (
    <Box position="absolute" left="14px" bottom="12px">
      <NativeSelect.Root size="xs" bg="paper" borderRadius="6px" w="auto">
        <NativeSelect.Field
          aria-label={text.diagram.pages}
          value={diagram}
          onChange={(event) => onPage(event.target.value)}
          borderColor="line"
          pe={8}
        >
          {pages.map((page) => (
            <option key={page.id} value={page.id}>
              {label(page)}
            </option>
          ))}
        </NativeSelect.Field>
        <NativeSelect.Indicator />
      </NativeSelect.Root>
    </Box>
  );
}
