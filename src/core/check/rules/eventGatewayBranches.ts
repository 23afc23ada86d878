import { say } from "../../messages";
import { elementsOfType, incomingOf, outgoingOf } from "../../model";
import { type Rule, saidOf } from "../finding";

export const eventGatewayBranches: Rule = {
  id: "event-gateway-branches",
  group: "connections",
  severity: "error",
  wants: say`An event-based gateway waits for two events or more, each reached only through it.`,
  find: (model) =>
    elementsOfType(model, "eventBasedGateway").flatMap((gateway) => {
      const branches = outgoingOf(model, gateway.id);
      if (branches.length < 2) {
        return [
          {
            elements: [gateway.id],
            message: say`${saidOf(model, gateway)} waits for what happens first, but has ${branches.length === 0 ? say`nothing` : say`only one event`} to wait for. Add the other events behind it, or use a single event instead.`,
          },
        ];
      }
      return branches.flatMap((flow) => {
        const others = incomingOf(model, flow.targetRef ?? "").filter((other) => other.sourceRef !== gateway.id);
        return others.length === 0
          ? []
          : [
              {
                elements: [flow.targetRef ?? "", ...others.map((other) => other.id)],
                message: say`An event behind an event-based gateway may be reached only from there, but another flow leads to it too. Lead that flow to the gateway itself.`,
              },
            ];
      });
    }),
};
