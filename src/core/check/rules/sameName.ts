import { say } from "../../messages";
import { flowNodesIn, isActivity, isScope, nameOf } from "../../model";
import type { Rule } from "../finding";

export const sameName: Rule = {
  id: "same-name-twice",
  group: "names",
  severity: "advice",
  wants: say`Two steps of one process have two names.`,
  find: (model) =>
    [...model.elements].flatMap((scope) => {
      if (!isScope(scope.type)) return [];
      const byName = new Map<string, string[]>();
      for (const node of flowNodesIn(model, scope.id)) {
        const name = nameOf(model, node.id).toLowerCase();
        if (!isActivity(node.type) || name === "" || node.type === "callActivity") continue;
        byName.set(name, [...(byName.get(name) ?? []), node.id]);
      }
      return [...byName.values()]
        .filter((ids) => ids.length > 1)
        .map((ids) => ({
          elements: ids,
          message: say`${ids.length} steps are called “${nameOf(model, ids[0] as string)}”. In lists and figures nobody can tell them apart. If they are the same work, make it a process of its own and call it; else say in the names how they differ.`,
        }));
    }),
};
