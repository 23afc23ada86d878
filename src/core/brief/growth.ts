import { plan } from "../capture";
import {
  type Element,
  flowNodesIn,
  type Id,
  isFlowNode,
  laneOf,
  type Model,
  nameOf,
  processesOf,
  wordsOf,
} from "../model";
import { buildFrame } from "./build";
import type { BuildContext } from "./buildGround";
import type { BriefContent } from "./document";
import type { Frame, FrameItem } from "./frames";
import { linksOf, markOfKey, nodeOf } from "./links";
import type { BriefReading } from "./sentences";

/** What building a process again would do to it, each to be taken or left. */
export interface Growth {
  readonly added: readonly {
    readonly mark: string;
    readonly type: Element["type"];
    readonly name: string;
    readonly lane: string;
  }[];
  /** Called otherwise in the text since; "now" is what it is called in the model. */
  readonly renamed: readonly {
    readonly mark: string;
    readonly element: Id;
    readonly now: string;
    readonly to: string;
  }[];
  /** Elements whose words are not in the text any more. */
  readonly lost: readonly { readonly element: Id; readonly type: Element["type"]; readonly name: string }[];
  /** Why it cannot be built. */
  readonly refused: string | undefined;
}

/**
 * What building a frame into a model again would change there. Nothing is changed. O(steps²), as building.
 * @param built marks built before
 */
export function growthOf(
  frame: Frame,
  model: Model,
  told: { readonly reading: BriefReading; readonly content: BriefContent; readonly built: ReadonlySet<string> },
): Growth {
  const names = new Map(stepNames(frame.items));
  const links = linksOf(model);
  const renamed = [...names].flatMap(([mark, to]) => {
    const element = nodeOf(model, links, mark);
    const was = told.content.named?.[mark];
    const now = element === undefined ? "" : nameOf(model, element);
    // Where it is not known what it was called, nobody can say that the text changed.
    return element !== undefined && was !== undefined && was !== to && now !== to ? [{ mark, element, now, to }] : [];
  });
  const there = new Set(told.reading.marks.map((mark) => mark.id));
  const [process] = processesOf(model);
  const lost = process
    ? [...model.elements]
        .filter((element) => isFlowNode(element.type))
        .filter((element) => {
          const words = wordsOf(element);
          return words.length > 0 && words.every((word) => !there.has(markOfKey(word)));
        })
        .map((element) => ({ element: element.id, type: element.type, name: nameOf(model, element.id) }))
    : [];
  let count = 0;
  const made = plan(
    model,
    (of) => `${of}+${++count}`,
    (draft) => {
      buildFrame(draft, frame, { ...dryContext, built: told.built });
      return undefined;
    },
    true,
  );
  if (!made.ok) return { added: [], renamed, lost, refused: made.problems.map((problem) => problem.message).join(" ") };
  const before = new Set(nodesOf(model).map((node) => node.id));
  const after = made.value.model;
  const added = nodesOf(after)
    .filter((node) => !before.has(node.id) && node.name !== undefined)
    .flatMap((node) => {
      const [mark] = wordsOf(node);
      const lane = laneOf(after, node.id);
      return mark === undefined
        ? []
        : [{ mark, type: node.type, name: node.name ?? "", lane: lane ? nameOf(after, lane.id) : "" }];
    });
  return { added, renamed, lost, refused: undefined };
}

const dryContext: Omit<BuildContext, "built"> = {
  organisation: "",
  resolve: (kind, name) => ({ entry: `${kind}-${name}`, name }),
  calledProcess: () => undefined,
};

function nodesOf(model: Model): Element[] {
  const [process] = processesOf(model);
  const inside = (scope: Id): Element[] =>
    flowNodesIn(model, scope).flatMap((node) => [node, ...(node.type === "subProcess" ? inside(node.id) : [])]);
  return process ? inside(process.id) : [];
}

/** The names the text gives to steps, waits and decisions, by mark. */
export function stepNames(items: readonly FrameItem[]): [string, string][] {
  return items.flatMap((item): [string, string][] => {
    switch (item.kind) {
      case "step":
        return [[item.mark, item.name], ...stepNames(item.deadline?.path.items ?? [])];
      case "decision":
        return [[item.mark, item.question], ...item.paths.flatMap((path) => stepNames(path.items))];
      case "parallel":
        return item.branches.flatMap(stepNames);
      case "part":
        return stepNames(item.items);
      default:
        return [[item.mark, item.name]];
    }
  });
}
