import type { Chosen, Moment } from "@/core/forecast";
import { type Id, isActivity, isGateway, type Model, nameOf } from "@/core/model";
import { modelsOf, type World } from "@/core/tokens";
import { text, typeWord } from "../../messages";

const words = text.forecast.oneCase;

/** The model of a world that has an element. */
export const modelWith = (world: World, id: Id): Model =>
  modelsOf(world).find((one) => one.elements.has(id)) ?? world.model;

export function nameIn(world: World, id: Id): string {
  const model = modelWith(world, id);
  return nameOf(model, id) || typeWord(model.elements.get(id)?.type ?? "") || id;
}

/** A way a case can go, by the answers on it, or by where it leads. */
export function wayWords(world: World, node: Id, { does, flows }: Chosen): string {
  if (does === "again") return words.again;
  const model = modelWith(world, node);
  const named = flows.map((flow) => {
    const one = model.elements.get(flow);
    const target = one?.targetRef;
    // An event at the edge of what was asked is what happens.
    if (does === "fire" && typeof one?.sourceRef === "string") return nameIn(world, one.sourceRef);
    return nameOf(model, flow) || (typeof target === "string" ? nameIn(world, target) : flow);
  });
  return named.length > 0 ? named.join(" + ") : words.on;
}

/** What happened at a moment; undefined where nobody would tell it: a token that only goes through. */
export function momentText(world: World, { what }: Moment): string | undefined {
  const typeOf = (id: Id) => modelWith(world, id).elements.get(id)?.type ?? "";
  if (what.kind === "waits") {
    const name = nameIn(world, what.element);
    if (what.for.length > 0) return words.waitsFor(name, what.for.map((id) => nameIn(world, id)).join(", "));
    const type = typeOf(what.element);
    return isActivity(type) && type !== "receiveTask" ? words.waitsBefore(name) : words.waitsUntil(name);
  }
  if (what.kind === "works")
    return words.works(nameIn(world, what.element), what.by.map((id) => nameIn(world, id)).join(", "));
  const { node } = what.act;
  const type = typeOf(node);
  if (what.choice && what.choice.ways.length > 1)
    return words.chose(nameIn(world, what.choice.node), wayWords(world, node, what.act));
  if (isGateway(type)) return undefined;
  if (!isActivity(type)) return nameIn(world, node);
  if (what.act.does !== "begin") return words.done(nameIn(world, node));
  // That a task begins is told by who waits or works.
  return /task$/i.test(type) ? undefined : words.begins(nameIn(world, node));
}
