import { say } from "../../messages";
import { edgesOf, incomingOf, isGateway, outgoingOf } from "../../model";
import { type Rule, saidOf } from "../finding";

export const needlessGateway: Rule = {
  id: "needless-gateway",
  group: "layout",
  severity: "advice",
  wants: say`A gateway splits or joins.`,
  find: (model) =>
    [...model.elements].flatMap((gateway) => {
      if (!isGateway(gateway.type)) return [];
      const before = incomingOf(model, gateway.id);
      const after = outgoingOf(model, gateway.id);
      const [into] = before;
      const [out] = after;
      if (before.length !== 1 || after.length !== 1 || !into || !out) return [];
      const diagram = edgesOf(model, into.id)[0]?.diagram;
      return [
        {
          elements: [gateway.id],
          message: say`${saidOf(model, gateway)} has one flow in and one out, so it neither splits nor joins. Readers look for the other branch. Add the branch, or take the gateway out.`,
          ...(diagram !== undefined && {
            repairs: [
              {
                label: say`Take the gateway out`,
                commands: [
                  {
                    type: "reconnect" as const,
                    diagram,
                    connection: into.id,
                    end: "target" as const,
                    to: out.targetRef ?? "",
                  },
                  { type: "delete" as const, ids: [gateway.id] },
                ],
              },
            ],
          }),
        },
      ];
    }),
};
