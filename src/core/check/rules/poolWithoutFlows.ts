import { say } from "../../messages";
import { connectionsOf, participantsOf } from "../../model";
import { type Rule, saidOf } from "../finding";

export const poolWithoutFlows: Rule = {
  id: "pool-without-messages",
  group: "connections",
  severity: "advice",
  wants: say`A pool of an outside party has message flows with the process.`,
  find: (model) =>
    participantsOf(model).flatMap((pool) => {
      if (pool.processRef !== undefined || connectionsOf(model, pool.id).length > 0) return [];
      return [
        {
          elements: [pool.id],
          message: say`${saidOf(model, pool)} is drawn as an outside party, but sends and receives nothing. Readers will ask what it is there for. Draw its messages, or delete the pool.`,
          repairs: [{ label: say`Delete this pool`, commands: [{ type: "delete" as const, ids: [pool.id] }] }],
        },
      ];
    }),
};
