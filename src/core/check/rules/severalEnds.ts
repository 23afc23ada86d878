import { say } from "../../messages";
import { flowNodesIn, nameOf, processesOf } from "../../model";
import type { Rule } from "../finding";

/** Source: Mendling, Reijers, van der Aalst (2010), guideline G3: use one start and one end event. */
export const severalEnds: Rule = {
  id: "ends-alike",
  group: "guidelines",
  severity: "advice",
  wants: say`A process has one end for each outcome.`,
  find: (model) =>
    processesOf(model).flatMap((process) => {
      const ends = flowNodesIn(model, process.id).filter((node) => node.type === "endEvent");
      const byName = new Map<string, string[]>();
      for (const end of ends) {
        const name = nameOf(model, end.id).trim().toLowerCase();
        byName.set(name, [...(byName.get(name) ?? []), end.id]);
      }
      return [...byName].flatMap(([name, alike]) =>
        name === "" || alike.length < 2
          ? []
          : [
              {
                elements: alike,
                message: say`${alike.length} end events are named “${nameOf(model, alike[0] as string)}”. One outcome has one end; lead the paths to it together.`,
              },
            ],
      );
    }),
};
