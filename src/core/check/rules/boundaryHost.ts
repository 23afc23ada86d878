import { say } from "../../messages";
import { elementsOfType, isActivity } from "../../model";
import { type Rule, saidOf } from "../finding";

export const boundaryHost: Rule = {
  id: "boundary-host",
  group: "connections",
  severity: "error",
  wants: say`An event at an edge sits on an activity of the same process.`,
  find: (model) =>
    elementsOfType(model, "boundaryEvent").flatMap((event) => {
      const host = model.elements.get(event.attachedToRef ?? "");
      if (host && isActivity(host.type) && host.parent === event.parent) return [];
      return [
        {
          elements: [event.id],
          message: say`${saidOf(model, event)} is an event at an edge, but it sits on no activity of its process, so nothing can set it off. Delete it and attach one to the activity it belongs to.`,
          repairs: [{ label: say`Delete this event`, commands: [{ type: "delete" as const, ids: [event.id] }] }],
        },
      ];
    }),
};
