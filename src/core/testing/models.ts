import fc from "fast-check";
import { type Command, perform } from "../commands";
import { emptyModel, isFlowNode, type Model, type Result } from "../model";

/** The value of a result that must be one. */
export function expectOk<Value>(result: Result<Value>): Value {
  if (!result.ok) throw new Error(result.problems.map((problem) => `${problem.code}: ${problem.message}`).join("\n"));
  return result.value;
}

export function startModel(): Model {
  return emptyModel({ definitions: "definitions", process: "process", diagram: "page" }, "Connect a plant");
}

/** Performs commands that must be accepted. */
export function performAll(model: Model, ...commands: Command[]): Model {
  return commands.reduce((current, command) => expectOk(perform(current, command)).model, model);
}

/** A pool with two lanes, and start → check → decide → (approve | reject) → ends. */
export function smallModel(): Model {
  const diagram = "page";
  const at = { x: 300, y: 100 };
  return performAll(
    startModel(),
    { type: "place", diagram, id: "pool", kind: { type: "participant" }, at: { x: 400, y: 200 }, name: "Cooperative" },
    { type: "addLane", diagram, id: "desk", beside: "pool", name: "Front desk" },
    { type: "addLane", diagram, id: "engineer", beside: "desk", name: "Network engineer" },
    {
      type: "place",
      diagram,
      id: "household",
      kind: { type: "participant", closed: true },
      at: { x: 400, y: -400 },
      name: "Household",
    },
    {
      type: "place",
      diagram,
      id: "start",
      kind: { type: "startEvent", trigger: "messageEventDefinition" },
      at: { x: 120, y: 200 },
      name: "Application received",
    },
    {
      type: "append",
      diagram,
      from: "start",
      id: "check",
      flow: "f1",
      kind: { type: "userTask" },
      name: "Check application",
    },
    {
      type: "append",
      diagram,
      from: "check",
      id: "decide",
      flow: "f2",
      kind: { type: "exclusiveGateway" },
      name: "Complete?",
    },
    {
      type: "append",
      diagram,
      from: "decide",
      id: "approve",
      flow: "f3",
      kind: { type: "userTask" },
      name: "Approve design",
    },
    {
      type: "append",
      diagram,
      from: "decide",
      id: "reject",
      flow: "f4",
      kind: { type: "sendTask" },
      name: "Reject application",
    },
    { type: "append", diagram, from: "approve", id: "done", flow: "f5", kind: { type: "endEvent" }, name: "Approved" },
    {
      type: "append",
      diagram,
      from: "reject",
      id: "refused",
      flow: "f6",
      kind: { type: "endEvent" },
      name: "Rejected",
    },
    {
      type: "attach",
      diagram,
      host: "check",
      id: "late",
      kind: { type: "boundaryEvent", trigger: "timerEventDefinition" },
    },
    {
      type: "append",
      diagram,
      from: "late",
      id: "remind",
      flow: "f7",
      kind: { type: "task" },
      name: "Remind household",
      at: { x: at.x, y: 330 },
    },
  );
}

/** A random command about whatever the model holds: sensible ones, and ones that must be refused. */
export function commandFor(model: Model, random: { pick: (count: number) => number; id: string }): Command {
  const { pick, id } = random;
  const diagram = "page";
  const elements = [...model.elements].map((element) => element.id);
  const nodes = [...model.elements].filter((element) => isFlowNode(element.type)).map((element) => element.id);
  const any = (list: readonly string[]) => list[pick(Math.max(1, list.length))] ?? "nothing";
  const node = any(nodes);
  const at = { x: pick(900) - 60, y: pick(500) - 60 };
  const types = [
    "task",
    "userTask",
    "exclusiveGateway",
    "parallelGateway",
    "endEvent",
    "subProcess",
    "eventBasedGateway",
    "textAnnotation",
    "dataObjectReference",
    "intermediateCatchEvent",
    "startEvent",
  ] as const;
  const type = types[pick(types.length)] as (typeof types)[number];
  const kind = type === "intermediateCatchEvent" ? { type, trigger: "timerEventDefinition" as const } : { type };
  const others = [node, any(nodes), any(nodes), any(nodes)];
  switch (pick(34)) {
    case 0:
      return { type: "place", diagram, id, kind, at };
    case 1:
    case 2:
    case 3:
      return { type: "append", diagram, from: node, id, flow: `${id}.in`, kind };
    case 4:
      return { type: "connect", diagram, id, source: any(elements), target: any(elements) };
    case 5:
      return { type: "connect", diagram, id, source: node, target: any(nodes) };
    case 6:
      return { type: "rename", id: any(elements), name: `Name ${id}` };
    case 7:
      return { type: "move", diagram, ids: [node], by: { x: pick(300) - 150, y: pick(300) - 150 } };
    case 8:
      return { type: "delete", ids: [any(elements)] };
    case 9:
      return {
        type: "insertOnFlow",
        diagram,
        onFlow: any(
          [...model.elements].filter((element) => element.type === "sequenceFlow").map((element) => element.id),
        ),
        id,
        flow: `${id}.out`,
        kind,
      };
    case 10:
      return {
        type: "attach",
        diagram,
        host: node,
        id,
        kind: { type: "boundaryEvent", trigger: "messageEventDefinition" },
      };
    case 11:
      return {
        type: "retype",
        id: node,
        to: any([
          "userTask",
          "serviceTask",
          "parallelGateway",
          "inclusiveGateway",
          "callActivity",
          "transaction",
        ]) as "userTask",
      };
    case 12:
      return {
        type: "assignRole",
        step: node,
        role: { entry: "role-desk", name: "Front desk" },
        part: "responsible",
        id,
      };
    case 13:
      return { type: "useSystem", step: node, system: { entry: "system-map", name: "Network map" }, use: "reads" };
    case 14:
      return {
        type: "giveDocument",
        diagram,
        step: node,
        document: { entry: "paper", name: "Form" },
        direction: pick(2) === 0 ? "in" : "out",
        id,
      };
    case 15:
      return { type: "moveToNeighbourLane", diagram, ids: [node], direction: pick(2) === 0 ? "up" : "down" };
    case 16:
      return { type: "addLane", diagram, id, beside: any(elements) };
    case 17:
      return {
        type: "align",
        diagram,
        ids: others,
        along: any(["left", "centre", "right", "top", "middle", "bottom"]) as "left",
      };
    case 18:
      return { type: "distribute", diagram, ids: others, axis: pick(2) === 0 ? "across" : "down" };
    case 19:
      return { type: "sameSize", diagram, ids: others };
    case 20:
      return { type: "straighten", diagram, connections: [any([...model.edges].map((edge) => edge.element))] };
    case 21:
      return {
        type: "makeRoom",
        diagram,
        direction: pick(2) === 0 ? "right" : "down",
        line: pick(700),
        by: 20 + pick(100),
      };
    case 22:
      return { type: "swapLanes", diagram, lane: any(elements), direction: pick(2) === 0 ? "up" : "down" };
    case 23: {
      const lanes = [...model.elements].filter((element) => element.type === "lane").map((element) => element.id);
      return { type: "splitLane", diagram, lane: any(lanes), ids: pick(2) === 0 ? [id] : [`${id}.a`, `${id}.b`] };
    }
    case 24:
      return { type: "wrap", diagram, ids: others.slice(0, 1 + pick(4)), id, page: `${id}.page` };
    case 25: {
      const subs = [...model.elements].filter((element) => element.type === "subProcess").map((element) => element.id);
      return { type: "unwrap", diagram, id: any(subs) };
    }
    case 26:
    case 27: {
      const subs = [...model.elements].filter((element) => element.type === "subProcess").map((element) => element.id);
      return pick(2) === 0
        ? { type: "expand", diagram, id: any(subs) }
        : { type: "collapse", diagram, id: any(subs), page: `${id}.page` };
    }
    case 28:
      return { type: "replace", diagram, id: node, kind };
    case 29:
      return { type: "moveLane", diagram, lane: any(elements), to: any(elements) };
    case 30:
      return {
        type: "mergeEntry",
        from: { entry: ["role-desk", "role-crew", "system-map"][pick(3)] as string, name: "Front desk" },
        into: { entry: ["role-crew", "role-office"][pick(2)] as string, name: "Office" },
      };
    case 31:
      return {
        type: "describeIn",
        id: any(elements),
        language: pick(2) === 0 ? null : "de",
        text: {
          type: "doc",
          content: [
            {
              type: "paragraph",
              content: [{ type: "text", text: `Text ${id}`, ...(pick(2) === 0 && { marks: [{ type: "bold" }] }) }],
            },
          ],
        },
      };
    case 32:
      return {
        type: "setLinks",
        id: any(elements),
        links: [{ kind: "page", title: id, href: "https://quillmere.example/form" }],
      };
    default:
      return { type: "resize", diagram, id: node, bounds: { ...at, width: 60 + pick(200), height: 40 + pick(120) } };
  }
}

/** A script of random commands, as numbers that pick among what each model holds. */
export const commandScript = (length: number) =>
  fc.array(fc.array(fc.nat(1_000_000), { minLength: 8, maxLength: 8 }), { minLength: 1, maxLength: length });

/** Runs a script; refused commands are skipped, as they are in life. `each` sees every accepted step. */
export function runScript(
  model: Model,
  script: readonly (readonly number[])[],
  each?: (before: Model, after: Model, edits: readonly import("../model").Edit[]) => void,
): Model {
  let current = model;
  script.forEach((numbers, step) => {
    let at = 0;
    const pick = (count: number) => (numbers[at++ % numbers.length] as number) % count;
    const done = perform(current, commandFor(current, { pick, id: `n${step}` }));
    if (!done.ok) return;
    each?.(current, done.value.model, done.value.edits);
    current = done.value.model;
  });
  return current;
}
