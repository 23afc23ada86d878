import { say } from "../../messages";
import { isEvent } from "../../model";
import type { Rule } from "../finding";
import { readsAsOrder } from "../orders";

/** Common practice: events are named by what has happened, steps by what is to be done. */
export const eventState: Rule = {
  id: "event-names-a-state",
  group: "names",
  severity: "advice",
  wants: say`An event is named by what has happened.`,
  find: (model) =>
    [...model.elements].flatMap((event) => {
      const name = event.name?.trim() ?? "";
      if (!isEvent(event.type) || !readsAsOrder(name)) return [];
      return [
        {
          elements: [event.id],
          message: say`“${name}” reads like something to do, but an event is something that has happened. Say it so: “Application received” instead of “Receive application”.`,
        },
      ];
    }),
};
