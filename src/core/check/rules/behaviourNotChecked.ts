import { flowNodesIn, nameOf, processesOf } from "../../model";
import type { Rule } from "../finding";

export const behaviourNotChecked: Rule = {
  id: "behaviour-not-checked",
  group: "behaviour",
  severity: "advice",
  wants: "Behaviour is checked: no case gets stuck, nothing runs twice.",
  find: (model) =>
    processesOf(model)
      .filter((process) => flowNodesIn(model, process.id).length > 0)
      .map((process) => ({
        elements: [process.id],
        message: `Whether a case of ${nameOf(model, process.id) || "this process"} can get stuck or run a step twice is not checked by this release. Play the branches through with a colleague before you rely on it.`,
      })),
};
