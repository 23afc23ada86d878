import { readBpmn } from "../bpmn";
import type { Model } from "../model";
import { expectOk } from "./models";

const types: { readonly [sign: string]: string } = {
  "(": "startEvent",
  ")": "endEvent",
  "+": "parallelGateway",
  x: "exclusiveGateway",
  o: "inclusiveGateway",
};

/**
 * A process from lines such as "(start > check > x1 > book > )end" and "x1 > decline > )end". An id that begins with "(" is a start,
 * with ")" an end, with "+", "x" or "o" and a digit a gateway; all others are user tasks, named as their id with spaces for dashes.
 * A flow's id is made of its ends'. `lanes` lists which nodes each lane holds.
 */
export function flowChart(lines: readonly string[], lanes: { readonly [lane: string]: readonly string[] } = {}): Model {
  const nodes = new Map<string, string>();
  const flows: string[] = [];
  const idOf = (text: string) => text.replace("(", "start-").replace(")", "end-").replace("+", "and-");
  for (const line of lines) {
    const ids = line.split(">").map((part) => part.trim());
    for (const text of ids) {
      const sign = /^[()+]/.test(text) ? text.charAt(0) : /^[xo]\d/.test(text) ? text.charAt(0) : "";
      const name = sign ? "" : ` name="${(text.charAt(0).toUpperCase() + text.slice(1)).replaceAll("-", " ")}"`;
      nodes.set(idOf(text), `<${types[sign] ?? "userTask"} id="${idOf(text)}"${name}/>`);
    }
    for (let at = 1; at < ids.length; at++) {
      const [source, target] = [idOf(ids[at - 1] as string), idOf(ids[at] as string)];
      flows.push(`<sequenceFlow id="${source}.${target}" sourceRef="${source}" targetRef="${target}"/>`);
    }
  }
  const laneSet = Object.entries(lanes).map(
    ([lane, held]) =>
      `<lane id="lane-${lane.replaceAll(" ", "-")}" name="${lane}">${held.map((id) => `<flowNodeRef>${id}</flowNodeRef>`).join("")}</lane>`,
  );
  return expectOk(
    readBpmn(
      `<definitions xmlns="http://www.omg.org/spec/BPMN/20100524/MODEL" id="definitions" targetNamespace="urn:demo"><process id="process">${
        laneSet.length > 0 ? `<laneSet id="lanes">${laneSet.join("")}</laneSet>` : ""
      }${[...nodes.values()].join("")}${flows.join("")}</process></definitions>`,
    ),
  );
}
