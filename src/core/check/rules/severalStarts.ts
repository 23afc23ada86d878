import { say } from "../../messages";
import { flowNodesIn, nameOf, processesOf } from "../../model";
import type { Rule } from "../finding";

/** Source: Mendling, Reijers, van der Aalst (2010), guideline G3: use one start and one end event. */
export const severalStarts: Rule = {
  id: "several-starts",
  group: "guidelines",
  severity: "advice",
  wants: say`A process has one start.`,
  find: (model) =>
    processesOf(model).flatMap((process) => {
      const starts = flowNodesIn(model, process.id).filter((node) => node.type === "startEvent");
      if (starts.length < 2) return [];
      return [
        {
          elements: starts.map((start) => start.id),
          message: say`${nameOf(model, process.id) || say`This process`} has ${starts.length} start events. Several triggers often mean several processes; see whether each deserves its own. If they are alternatives, this is fine.`,
        },
      ];
    }),
};
