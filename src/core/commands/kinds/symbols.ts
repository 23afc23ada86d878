import { type Scene, sceneOf, sceneOfSome } from "../../drawing";
import { emptyModel, type Model } from "../../model";
import { type Command, perform } from "../kernel/command";
import { everyKind, kindWords } from "./everyKind";
import type { Kind } from "./kinds";
import { modelOfKind } from "./pictureOfKind";

export interface BpmnSymbol {
  readonly name: string;
  readonly scene: Scene;
}

export interface SymbolGroup {
  readonly title: string;
  readonly symbols: readonly BpmnSymbol[];
}

const diagram = "page";

/** Every symbol that is drawn, with its name: all kinds of nodes, then markers, flows and the variants of data, pools and lanes. */
export function allSymbols(): readonly SymbolGroup[] {
  const kinds = everyKind.map(({ title, kinds: all }) => ({
    title,
    symbols: all.map((kind) => ({
      name: kindWords(kind),
      scene: drawn(modelOfKind(kind, true), kind.type === "lane" ? undefined : ["kind"]),
    })),
  }));
  return [
    ...kinds,
    { title: "Markers", symbols: markers() },
    { title: "Flows", symbols: flows() },
    { title: "Variants", symbols: variants() },
  ];
}

function drawn(model: Model, ids?: readonly string[]): Scene {
  const page = model.diagrams.get(diagram);
  if (!page) throw new Error("The model has no page.");
  const scene = sceneOf(model, page);
  return ids ? sceneOfSome(scene, new Set(ids)) : scene;
}

function made(...commands: readonly Command[]): Model {
  const start = emptyModel({ definitions: "definitions", process: "process", diagram }, "Symbols");
  return commands.reduce<Model>((model, command) => {
    const done = perform(model, command);
    if (!done.ok) throw new Error(`A symbol cannot be drawn: ${done.problems[0]?.message}`);
    return done.value.model;
  }, start);
}

const place = (id: string, kind: Kind, x: number, y = 200): Command => ({
  type: "place",
  diagram,
  id,
  kind,
  at: { x, y },
});
const set = (id: string, field: string, value: boolean | string): Command => ({ type: "setField", id, field, value });
const task = (...more: readonly Command[]) => drawn(made(place("kind", { type: "task" }, 300), ...more), ["kind"]);

function markers(): BpmnSymbol[] {
  const repeat = (repetition: "loop" | "parallel" | "sequential"): Command => ({
    type: "setRepetition",
    activity: "kind",
    id: "repeat",
    repetition,
  });
  return [
    { name: "loop", scene: task(repeat("loop")) },
    { name: "multi-instance, parallel", scene: task(repeat("parallel")) },
    { name: "multi-instance, sequential", scene: task(repeat("sequential")) },
    { name: "compensation", scene: task(set("kind", "isForCompensation", true)) },
    { name: "loop and compensation", scene: task(repeat("loop"), set("kind", "isForCompensation", true)) },
    {
      name: "ad-hoc, multi-instance, closed",
      scene: drawn(made(place("kind", { type: "adHocSubProcess" }, 300), repeat("parallel")), ["kind"]),
    },
  ];
}

function flows(): BpmnSymbol[] {
  const size = (id: string, x: number, y: number, width: number, height: number): Command => ({
    type: "resize",
    diagram,
    id,
    bounds: { x, y, width, height },
  });
  // Small ends leave the flow between them to be looked at.
  const two = [
    place("a", { type: "task" }, 120),
    size("a", 100, 180, 48, 40),
    place("b", { type: "task" }, 330),
    size("b", 222, 180, 48, 40),
  ];
  const flow: Command = { type: "connect", diagram, id: "flow", source: "a", target: "b" };
  const pools = [
    place("p", { type: "participant", closed: true }, 300, 100),
    place("q", { type: "participant", closed: true }, 300, 300),
    size("p", 100, 100, 120, 36),
    size("q", 100, 196, 120, 36),
    { type: "connect", diagram, id: "flow", source: "p", target: "q" } as Command,
  ];
  const note = [
    place("a", { type: "task" }, 120),
    size("a", 100, 180, 48, 40),
    { ...place("n", { type: "textAnnotation" }, 250, 200), name: "note" } as Command,
    { type: "connect", diagram, id: "flow", source: "n", target: "a" } as Command,
  ];
  const data = (source: string, target: string) => [
    place("a", { type: "task" }, 300, 300),
    place("d", { type: "dataObjectReference" }, 300, 200),
    { type: "connect", diagram, id: "flow", source, target } as Command,
  ];
  return [
    { name: "sequence flow", scene: drawn(made(...two, flow)) },
    {
      name: "conditional sequence flow",
      scene: drawn(made(...two, flow, { type: "setCondition", flow: "flow", text: "amount > 10" })),
    },
    { name: "default sequence flow", scene: drawn(made(...two, flow, set("a", "default", "flow"))) },
    { name: "message flow", scene: drawn(made(...pools)) },
    { name: "association", scene: drawn(made(...note)) },
    { name: "association, one way", scene: drawn(made(...note, set("flow", "associationDirection", "One"))) },
    { name: "association, both ways", scene: drawn(made(...note, set("flow", "associationDirection", "Both"))) },
    { name: "data input", scene: drawn(made(...data("d", "a"))) },
    { name: "data output", scene: drawn(made(...data("a", "d"))) },
  ];
}

function variants(): BpmnSymbol[] {
  const plain = made(place("kind", { type: "exclusiveGateway" }, 300));
  const shape = [...plain.shapes][0];
  const unmarked = made(place("kind", { type: "exclusiveGateway" }, 300), {
    type: "edits",
    label: "unmarked",
    edits: [{ kind: "set", table: "shapes", id: shape?.id ?? "", field: "isMarkerVisible", from: true, to: false }],
  });
  const pool: Command[] = [
    place("kind", { type: "participant" }, 300),
    set("kind", "name", "Cooperative"),
    { type: "resize", diagram, id: "kind", bounds: { x: 0, y: 0, width: 240, height: 120 } },
  ];
  const upright = made(...pool);
  const poolShape = [...upright.shapes][0];
  const turned = made(...pool, {
    type: "edits",
    label: "upright",
    edits: [
      { kind: "set", table: "shapes", id: poolShape?.id ?? "", field: "isHorizontal", from: true, to: false },
      {
        kind: "set",
        table: "shapes",
        id: poolShape?.id ?? "",
        field: "bounds",
        from: { ...poolShape?.bounds } as never,
        to: { x: 0, y: 0, width: 200, height: 260 },
      },
    ],
  });
  return [
    { name: "exclusive gateway without its marker", scene: drawn(unmarked, ["kind"]) },
    {
      name: "data object, collection",
      scene: drawn(
        made(place("kind", { type: "dataObjectReference" }, 300), set("kind.object", "isCollection", true)),
        ["kind"],
      ),
    },
    {
      name: "data object with a state",
      scene: drawn(
        made(place("kind", { type: "dataObjectReference" }, 300), set("kind", "name", "Application"), {
          type: "setDataState",
          id: "kind",
          state: "checked",
        }),
        ["kind"],
      ),
    },
    {
      name: "pool of several participants",
      scene: drawn(made(...pool, { type: "setMultiplicity", id: "kind", isMultiple: true }), ["kind"]),
    },
    { name: "upright pool, as a file may have it", scene: drawn(turned, ["kind"]) },
  ];
}
