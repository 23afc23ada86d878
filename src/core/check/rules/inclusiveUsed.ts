import { say } from "../../messages";
import { elementsOfType, outgoingOf } from "../../model";
import { type Rule, saidOf } from "../finding";

/** Source: Mendling, Reijers, van der Aalst (2010), guideline G5: avoid OR routing elements. */
export const inclusiveUsed: Rule = {
  id: "inclusive-gateway",
  group: "guidelines",
  severity: "advice",
  wants: say`Exclusive and parallel gateways are enough.`,
  find: (model) =>
    elementsOfType(model, "inclusiveGateway").flatMap((gateway) =>
      outgoingOf(model, gateway.id).length < 2
        ? []
        : [
            {
              elements: [gateway.id],
              message: say`${saidOf(model, gateway)} takes any number of its ways, which readers often misunderstand. See whether exclusive and parallel gateways say the same.`,
            },
          ],
    ),
};
