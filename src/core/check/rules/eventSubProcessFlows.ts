import { say } from "../../messages";
import { incomingOf, outgoingOf } from "../../model";
import { type Rule, saidOf } from "../finding";

/** BPMN 2.0, 10.3.5: an event sub-process has no incoming or outgoing sequence flows. */
export const eventSubProcessFlows: Rule = {
  id: "event-sub-process-flows",
  group: "connections",
  severity: "error",
  wants: say`No flow leads into or out of an event sub-process.`,
  find: (model) =>
    [...model.elements].flatMap((sub) => {
      if (sub.triggeredByEvent !== true) return [];
      const flows = [...incomingOf(model, sub.id), ...outgoingOf(model, sub.id)];
      if (flows.length === 0) return [];
      return [
        {
          elements: [sub.id, ...flows.map((flow) => flow.id)],
          message: say`${saidOf(model, sub)} begins when its event happens, so no flow may lead into it or out of it. Take the flows away, or make it a sub-process in the flow.`,
          repairs: [
            {
              label: say`Take the flows away`,
              commands: [{ type: "delete" as const, ids: flows.map((flow) => flow.id) }],
            },
          ],
        },
      ];
    }),
};
