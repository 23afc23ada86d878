import type { Scene } from "@/core/drawing";
import type { Id, Point } from "@/core/model";
import { connectTo, newId } from "../version/actions";
import { useDiagram } from "../version/diagramStore";
import type { VersionStore } from "../version/versionStore";
import { type Gesture, roomOf } from "./gestures";

interface Place {
  readonly store: VersionStore;
  readonly diagram: Id;
  readonly scene: Scene;
}

/** What a gesture comes to when the pointer is let go: one command, or another choice. */
export function endGesture(now: Gesture, at: Point, { store, diagram, scene }: Place): void {
  const { dispatch } = store.getState();
  const { select, set } = useDiagram.getState();
  switch (now.kind) {
    case "move":
      if (now.ids.length > 0 && (now.by.x !== 0 || now.by.y !== 0))
        dispatch({ type: "move", diagram, ids: [...now.ids], by: now.by });
      return;
    case "connect": {
      if (now.over) connectTo(store, diagram, now.source, now.over);
      else if (Math.hypot(at.x - now.start.x, at.y - now.start.y) > 24) {
        const id = newId("task");
        if (
          dispatch({ type: "append", diagram, from: now.source, id, flow: newId("flow"), kind: { type: "task" }, at })
        ) {
          select(id);
          set({ naming: id });
        }
      }
      return;
    }
    case "resize":
      if (now.bounds !== now.start) dispatch({ type: "resize", diagram, id: now.id, bounds: now.bounds });
      return;
    case "bend":
      if (now.points !== now.start)
        dispatch({ type: "bend", diagram, connection: now.id, waypoints: now.points.map(({ x, y }) => ({ x, y })) });
      return;
    case "reattach":
      if (now.over) dispatch({ type: "reconnect", diagram, connection: now.id, end: now.end, to: now.over });
      return;
    case "label":
      if (now.by.x !== 0 || now.by.y !== 0)
        dispatch({
          type: "moveLabel",
          diagram,
          id: now.id,
          bounds: { ...now.start, x: now.start.x + now.by.x, y: now.start.y + now.by.y },
        });
      return;
    case "room": {
      const room = roomOf(now.from, at);
      if (room.by > 0) dispatch({ type: "makeRoom", diagram, ...room });
      set({ tool: null });
      return;
    }
    case "marquee": {
      const box = {
        x: Math.min(now.from.x, now.to.x),
        y: Math.min(now.from.y, now.to.y),
        width: Math.abs(now.from.x - now.to.x),
        height: Math.abs(now.from.y - now.to.y),
      };
      const inside = scene.figures.filter(
        (figure) =>
          figure.type !== "lane" &&
          figure.type !== "participant" &&
          figure.bounds.x >= box.x &&
          figure.bounds.y >= box.y &&
          figure.bounds.x + figure.bounds.width <= box.x + box.width &&
          figure.bounds.y + figure.bounds.height <= box.y + box.height,
      );
      select(...inside.map((figure) => figure.id));
    }
  }
}
