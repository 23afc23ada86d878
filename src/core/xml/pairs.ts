import type { SourceNode } from "./sourceTree";
import type { TreeKeys } from "./treeKeys";

/**
 * Which of some siblings are which of others: by id, else by equal content, else in their order among those of one name.
 * @returns pairs of one of the first and one of the second list. O(length of both).
 */
export function pairsOf(
  keys: TreeKeys,
  ones: readonly SourceNode[],
  others: readonly SourceNode[],
): readonly (readonly [SourceNode, SourceNode])[] {
  const pairs: (readonly [SourceNode, SourceNode])[] = [];
  let left = ones;
  let right = others;
  for (const nameOf of [known, (node: SourceNode) => `${keys.of(node)}`, kind]) {
    const waiting = new Map<string, SourceNode[]>();
    for (const node of right) {
      const name = nameOf(node);
      if (name === undefined) continue;
      const others = waiting.get(name);
      if (others) others.push(node);
      else waiting.set(name, [node]);
    }
    const taken = new Set<SourceNode>();
    left = left.filter((node) => {
      const name = nameOf(node);
      const other = name === undefined ? undefined : waiting.get(name)?.shift();
      if (!other) return true;
      pairs.push([node, other]);
      taken.add(other);
      return false;
    });
    right = right.filter((node) => !taken.has(node));
  }
  return pairs;
}

/** What an element is known by among its siblings: its id, or the element it shows. */
function known(node: SourceNode): string | undefined {
  if (node.kind !== "element") return undefined;
  const own = (name: string) => node.attributes.find(({ uri, local }) => uri === "" && local === name)?.value.trim();
  const [id, shown] = [own("id"), own("bpmnElement")];
  return id !== undefined ? `id ${id}` : shown !== undefined ? `shown ${node.local} ${shown}` : undefined;
}

/** Elements without an id are told apart by name; one with an id that nobody else has is no other's. */
function kind(node: SourceNode): string | undefined {
  if (node.kind !== "element" || known(node)) return undefined;
  return `${node.uri} ${node.local}`;
}
