import type { Id } from "@/core/model";
import type { Mark } from "../marks/mark";
import { pageOfScope, type Standing } from "./standing";

/**
 * Where the case stands, where it has been, and the tokens moving on: on the page of the scope that is shown, and of other scopes that
 * are drawn on the same page.
 */
export function playedMarks({ now, places, shown }: Standing, breaks: ReadonlySet<Id>): Mark[] {
  const page = pageOfScope(shown)?.id;
  const here = places.filter(({ instance }) => instance.model === shown.model && pageOfScope(instance)?.id === page);
  const tokens = new Map<Id, { count: number; isAble: boolean }>();
  const ways = new Set<Id>();
  for (const { node, tokens: count, acts } of here) {
    const known = tokens.get(node) ?? { count: 0, isAble: false };
    tokens.set(node, { count: known.count + count, isAble: known.isAble || acts.length > 0 });
    const choices = acts.filter((act) => act.flows.length > 0);
    if (choices.length > 1) for (const act of choices) for (const flow of act.flows) ways.add(flow);
  }
  const passed = new Map<Id, number>();
  const moved = new Set<Id>();
  const add = (id: Id) => passed.set(id, (passed.get(id) ?? 0) + 1);
  for (const line of now.log) {
    if (!shown.model.elements.has(line.element)) continue;
    if (line.event !== "left") add(line.element);
    for (const flow of line.flows) {
      add(flow);
      if (line.step === now.step) moved.add(flow);
    }
  }
  const isFlow = (id: Id) => shown.model.elements.get(id)?.sourceRef !== undefined;
  const marks: Mark[] = [];
  for (const [on, times] of passed) {
    if (isFlow(on)) marks.push({ on, means: "walked", as: "ribbon", tone: "attention" });
    // On steps always, on flows from the second time.
    if (!isFlow(on) || times > 1)
      marks.push({ on, means: "walkedTimes", as: "label", text: `${times}×`, tone: "attention", at: "end" });
  }
  for (const on of ways) marks.push({ on, means: "way", as: "dashes" });
  for (const on of breaks) marks.push({ on, means: "break", as: "sign", sign: "break" });
  for (const [on, { count, isAble }] of tokens) {
    if (count === 0) continue;
    marks.push({ on, means: isAble ? "able" : "waiting", as: "frame", tone: "attention", isThin: !isAble });
    marks.push({ on, means: "token", as: "token", count });
  }
  for (const on of moved) marks.push({ on, means: "token", as: "motion", step: now.step });
  return marks;
}

/** What one looks at first: where the case can go on, else where it stands. */
export const placeToShow = (marks: readonly Mark[]): Id | undefined =>
  (marks.find(({ means }) => means === "able") ?? marks.find(({ as }) => as === "token"))?.on;
