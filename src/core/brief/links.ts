import { type Id, isFlowNode, type Model, wordsOf } from "../model";

/** Which elements were taken from which marks. */
export function linksOf(model: Model): Map<string, Id[]> {
  const links = new Map<string, Id[]>();
  for (const element of model.elements)
    for (const mark of wordsOf(element)) links.set(mark, [...(links.get(mark) ?? []), element.id]);
  return links;
}

/** The step, wait or decision a mark became, where that is still there. */
export function nodeOf(model: Model, links: ReadonlyMap<string, readonly Id[]>, mark: string): Id | undefined {
  return links.get(mark)?.find((id) => {
    const element = model.elements.get(id);
    return element !== undefined && isFlowNode(element.type);
  });
}

/** The mark a key was made from: what was built for a turn of phrase ("m5:if") stands for the words of its mark. */
export const markOfKey = (key: string): string => key.replace(/:(?:if|wait|when|until|both|count|end|back)$/, "");
