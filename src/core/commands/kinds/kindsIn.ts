import type { Scene } from "../../drawing";
import type { Model } from "../../model";
import { type KindGroup, kindWords } from "./everyKind";
import { kindOf } from "./kinds";

/** The kinds of nodes that a scene shows, each once, in the order of their words: what a legend explains. O(figures). */
export function kindsIn(model: Model, scene: Scene): KindGroup["kinds"] {
  const kinds = new Map<string, KindGroup["kinds"][number]>();
  for (const figure of scene.figures) {
    const element = model.elements.get(figure.id);
    if (!element || figure.line || ["participant", "lane"].includes(element.type)) continue;
    const kind = kindOf(model, element);
    kinds.set(kindWords(kind), kind);
  }
  return [...kinds].sort(([a], [b]) => (a < b ? -1 : 1)).map(([, kind]) => kind);
}
