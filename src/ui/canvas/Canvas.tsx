"use client";
import { Box } from "@chakra-ui/react";
import {
  type PointerEvent as ReactPointerEvent,
  type Ref,
  useEffect,
  useImperativeHandle,
  useMemo,
  useRef,
  useState,
} from "react";
import { canHoldBoundaryEvents, withWhatHangsOnThem } from "@/core/commands";
import type { Figure, Scene } from "@/core/drawing";
import { boundsAround } from "@/core/layout";
import {
  connectionBetween,
  type Id,
  isConnection,
  isFlowNode,
  isSubProcess,
  type Model,
  type Point,
} from "@/core/model";
import { reasons, text } from "../messages";
import { dropKind } from "../version/actions";
import { useDiagram } from "../version/diagramStore";
import { useVersionStore } from "../version/VersionContext";
import { BandNames } from "./BandNames";
import { endGesture } from "./endGesture";
import { Figures } from "./FigureView";
import { bent, type Corner, type Gesture, resized, snapped } from "./gestures";
import { figureUnder, flowUnder, holderUnder, poolBandUnder } from "./hits";
import { Layer } from "./Layer";
import { Marks } from "./marks/Marks";
import type { Mark } from "./marks/mark";
import { NameEditor } from "./NameEditor";
import { Overlay } from "./Overlay";
import { useFiguresBehindNaming } from "./useFiguresBehindNaming";
import { useLettering } from "./useLettering";
import { useViewport, type Viewport } from "./useViewport";
import { useVisibleFigures } from "./useVisibleFigures";

export interface CanvasHandle {
  readonly viewport: Viewport;
  readonly centre: () => Point;
}

interface CanvasProps {
  readonly model: Model;
  readonly diagram: Id;
  readonly scene: Scene;
  readonly marks: readonly Mark[];
  readonly onOpen: (element: Id) => void;
  readonly onContextKey: (event: React.KeyboardEvent) => void;
  /** What the strip shows under a letter is added while a name is being written. */
  readonly onLetter: (letter: string) => void;
  readonly handle: Ref<CanvasHandle>;
}

/** The drawing surface: the scene in one layer, gestures over it. It knows no rules; it asks core and sends commands. */
export function Canvas({ model, diagram, scene, marks, onOpen, onContextKey, onLetter, handle }: CanvasProps) {
  const frame = useRef<HTMLDivElement>(null);
  const layer = useRef<HTMLDivElement>(null);
  const store = useVersionStore();
  const selection = useDiagram((state) => state.selection);
  const naming = useDiagram((state) => state.naming);
  const carrying = useDiagram((state) => state.carrying);
  const tool = useDiagram((state) => state.tool);
  const { select, toggle, set } = useDiagram.getState();
  const [gesture, setGesture] = useState<Gesture | null>(null);
  const live = useRef<Gesture | null>(null);
  live.current = gesture;

  // Where the pointer was pressed: once it is captured, the target does not tell.
  const onGround = useRef(false);
  const viewport = useViewport(frame, layer, (event) => {
    if (event.type === "wheel") return true;
    const pointer = event as MouseEvent;
    if (pointer.button === 1) return true;
    const target = event.target as Element;
    return (
      pointer.button === 0 &&
      !pointer.shiftKey &&
      !useDiagram.getState().carrying &&
      useDiagram.getState().tool === null &&
      target.closest("[data-id], [data-handle]") === null
    );
  });
  const { toPage, open, hold } = viewport;
  useImperativeHandle(handle, () => ({
    viewport,
    centre: () => {
      const box = frame.current?.getBoundingClientRect();
      return toPage({
        clientX: (box?.left ?? 0) + (box?.width ?? 0) / 2,
        clientY: (box?.top ?? 0) + (box?.height ?? 0) / 2,
      });
    },
  }));

  const sceneNow = useRef(scene);
  sceneNow.current = scene;
  // A page is fitted once, when it is opened.
  useEffect(() => {
    if (diagram) open(sceneNow.current.bounds);
  }, [diagram, open]);

  const visible = useFiguresBehindNaming(useVisibleFigures(scene, viewport), naming);
  // Marks go with what is drawn: where that is still as it was, so are they.
  const drawn = useMemo(() => new Map(visible.map((figure) => [figure.id, figure])), [visible]);
  const lettering = useLettering(scene.figures.length);
  const figures = useMemo(() => new Map(scene.figures.map((figure) => [figure.id, figure])), [scene]);

  const begin = (event: ReactPointerEvent, next: Gesture) => {
    event.stopPropagation();
    hold(true);
    frame.current?.setPointerCapture(event.pointerId);
    setGesture(next);
  };

  const onPointerDown = (event: ReactPointerEvent) => {
    if (event.button !== 0 || carrying) return;
    frame.current?.focus({ preventScroll: true });
    const target = event.target as globalThis.Element;
    const at = toPage(event);
    if (tool === "room") return begin(event, { kind: "room", from: at, to: at });
    onGround.current = false;
    const onHandle = target.closest<SVGElement>("[data-handle]");
    if (onHandle) return startHandle(event, onHandle.dataset, at);
    const id = target.closest<SVGElement>("[data-id]")?.dataset.id;
    onGround.current = !id;
    if (!id) {
      if (event.shiftKey) begin(event, { kind: "marquee", from: at, to: at });
      else {
        // Spares the browser a search through all figures on each move of a pan.
        frame.current?.setPointerCapture(event.pointerId);
        if (selection.length > 0) select();
      }
      return;
    }
    const figure = figures.get(id);
    if (event.shiftKey || event.ctrlKey || event.metaKey) {
      toggle(id);
      return;
    }
    if (!selection.includes(id)) select(id);
    if (!figure) return;
    if ((target as SVGElement).dataset.label === "true" && figure.label) {
      begin(event, { kind: "label", id, from: at, start: figure.label.bounds, by: { x: 0, y: 0 } });
    } else if (!figure.line) {
      const chosen = selection.includes(id) ? selection : [id];
      begin(event, {
        kind: "move",
        ids: chosen.filter((one) => !isConnection(model.elements.get(one)?.type)),
        from: at,
        by: { x: 0, y: 0 },
        guides: [],
      });
    }
  };

  const startHandle = (event: ReactPointerEvent, data: DOMStringMap, at: Point) => {
    const id = data.of as string;
    const figure = figures.get(id);
    if (!figure) return;
    switch (data.handle) {
      case "connect":
        return begin(event, { kind: "connect", source: id, start: at, to: at });
      case "corner":
        return begin(event, {
          kind: "resize",
          id,
          corner: data.corner as Corner,
          start: figure.bounds,
          bounds: figure.bounds,
        });
      case "segment":
        return begin(event, {
          kind: "bend",
          id,
          segment: Number(data.segment),
          start: figure.line ?? [],
          points: figure.line ?? [],
        });
      case "end": {
        const line = figure.line ?? [];
        const fixed = data.end === "source" ? line.at(-1) : line[0];
        if (fixed) begin(event, { kind: "reattach", id, end: data.end as "source" | "target", fixed, to: at });
      }
    }
  };

  const onPointerMove = (event: ReactPointerEvent) => {
    if (carrying) {
      const to = toPage(event);
      const onEdge =
        carrying.type === "boundaryEvent" || carrying.type === "intermediateCatchEvent"
          ? figureUnder(scene, to, (figure) => {
              const host = model.elements.get(figure.id);
              return host !== undefined && canHoldBoundaryEvents(host);
            })?.id
          : undefined;
      setGesture({
        kind: "place",
        to,
        ...(onEdge ? { onEdge } : isFlowNode(carrying.type) && { onFlow: flowUnder(scene, to) }),
      });
      return;
    }
    const now = live.current;
    if (!now) return;
    const at = toPage(event);
    switch (now.kind) {
      case "move": {
        const raw = { x: at.x - now.from.x, y: at.y - now.from.y };
        const chosen = new Set(now.ids);
        const boxes = now.ids.flatMap((id) => figures.get(id)?.bounds ?? []);
        const box = boundsAround(boxes);
        const others = scene.figures
          .filter((figure) => !figure.line && !chosen.has(figure.id) && isFlowNode(figure.type as never))
          .map((figure) => figure.bounds);
        if (box) setGesture({ ...now, ...(event.altKey ? { by: raw, guides: [] } : snapped(box, raw, others)) });
        return;
      }
      case "connect": {
        const over =
          figureUnder(
            scene,
            at,
            (figure) =>
              figure.type !== "lane" &&
              !(figure.type === "participant" && figure.bounds.height > 60) &&
              figure.id !== now.source,
          )?.id ?? poolBandUnder(scene, at);
        const answer = over ? connectionBetween(model, now.source, over) : undefined;
        setGesture({
          kind: "connect",
          source: now.source,
          start: now.start,
          to: at,
          ...(over && { over }),
          ...(answer && !answer.ok && { refusal: reasons(answer.problems.slice(0, 1)) }),
        });
        return;
      }
      case "resize": {
        const isBig = ["participant", "lane"].includes(model.elements.get(now.id)?.type ?? "");
        return setGesture({
          ...now,
          bounds: resized(now.start, now.corner, at, isBig ? { width: 120, height: 36 } : { width: 48, height: 32 }),
        });
      }
      case "bend":
        return setGesture({ ...now, points: bent(now.start, now.segment, at) });
      case "reattach":
        return setGesture({
          ...now,
          to: at,
          over:
            figureUnder(
              scene,
              at,
              (figure) => figure.type !== "lane" && !(figure.type === "participant" && figure.bounds.height > 60),
            )?.id ?? poolBandUnder(scene, at),
        });
      case "label":
        return setGesture({ ...now, by: { x: Math.round(at.x - now.from.x), y: Math.round(at.y - now.from.y) } });
      case "marquee":
      case "room":
        return setGesture({ ...now, to: at });
    }
  };

  const onPointerUp = (event: ReactPointerEvent) => {
    try {
      letGo(event);
    } finally {
      // Only now, so that what moves the view finds everything where it has come to lie.
      hold(false);
    }
  };

  const letGo = (event: ReactPointerEvent) => {
    const now = live.current;
    setGesture(null);
    if (carrying) {
      const at = toPage(event);
      const kind = carrying;
      set({ carrying: null });
      if (now?.kind === "place" && (event.target as globalThis.Element).closest("[data-canvas]"))
        dropKind(store, diagram, kind, at, now.onFlow, now.onEdge);
      return;
    }
    if (now) endGesture(now, toPage(event), { store, diagram, scene });
  };

  // Everything that moves along is drawn shifted, by the browser alone, until the gesture ends.
  const shifted = useMemo(
    () => (gesture?.kind === "move" ? withWhatHangsOnThem(model, diagram, gesture.ids) : undefined),
    [gesture?.kind, gesture?.kind === "move" ? gesture.ids : null, model, diagram],
  );
  useEffect(() => {
    if (!shifted || gesture?.kind !== "move") return;
    const moved = [...shifted].flatMap((id) => document.getElementById(`figure-${id}`) ?? []);
    for (const element of moved) element.setAttribute("transform", `translate(${gesture.by.x} ${gesture.by.y})`);
    return () => {
      for (const element of moved) element.removeAttribute("transform");
    };
  }, [shifted, gesture]);

  const only = selection.length === 1 ? figures.get(selection[0] as Id) : undefined;
  return (
    <Box
      ref={frame}
      data-canvas="true"
      data-testid="canvas"
      role="application"
      aria-label={text.diagram.canvas}
      aria-activedescendant={only ? `figure-${only.id}` : undefined}
      tabIndex={0}
      position="relative"
      flex="1"
      minH={0}
      overflow="clip"
      bg="ground"
      backgroundImage="radial-gradient(circle, var(--chakra-colors-dots) 1px, transparent 1px)"
      backgroundSize="20px 20px"
      cursor={carrying ? "copy" : tool === "room" ? "crosshair" : "default"}
      touchAction="none"
      userSelect="none"
      outline="none"
      _focusVisible={{ boxShadow: "inset 0 0 0 1px var(--chakra-colors-accent)" }}
      onPointerDown={onPointerDown}
      onPointerMove={onPointerMove}
      onPointerUp={onPointerUp}
      onPointerCancel={() => {
        setGesture(null);
        hold(false);
      }}
      onKeyDown={onContextKey}
      onClick={(event) => {
        // A click into what holds steps, beside all of them, means the lane itself; a drag there moved the page.
        if (carrying || tool || event.shiftKey || !onGround.current) return;
        const held = holderUnder(scene, toPage(event));
        if (held) select(held);
      }}
      onDoubleClick={(event) => {
        const id = (event.target as globalThis.Element).closest<SVGElement>("[data-id]")?.dataset.id;
        const element = id ? model.elements.get(id) : undefined;
        if (!id || !element) return;
        if ((isSubProcess(element.type) || element.type === "callActivity") && event.altKey) onOpen(id);
        else set({ naming: id });
      }}
    >
      <Layer layer={layer}>
        <Figures figures={visible} lettering={lettering} />
        <Marks marks={marks} figures={drawn} />
        <Overlay model={model} figures={figures} selection={selection} gesture={gesture} shifted={shifted} />
      </Layer>
      <BandNames model={model} diagram={diagram} scene={scene} viewport={viewport} />
      {naming && figures.get(naming) && (
        <NameEditor
          key={naming}
          figure={figures.get(naming) as Figure}
          element={model.elements.get(naming)}
          transform={viewport.transform.current}
          onAdd={onLetter}
        />
      )}
      {gesture?.kind === "connect" && gesture.refusal && (
        <Box
          position="absolute"
          left="50%"
          bottom="12px"
          transform="translateX(-50%)"
          bg="paper"
          borderWidth="1px"
          borderColor="trouble"
          borderRadius="6px"
          px={3}
          py={1.5}
          maxW="70ch"
          role="status"
        >
          {gesture.refusal}
        </Box>
      )}
    </Box>
  );
}
