import { say } from "../../messages";
import { incomingOf, isGateway, outgoingOf } from "../../model";
import { type Rule, saidOf } from "../finding";

/** Source: Mendling, Reijers, van der Aalst (2010), guideline G4: model as structured as possible. */
export const splitAndJoin: Rule = {
  id: "split-and-join",
  group: "guidelines",
  severity: "advice",
  wants: say`One gateway joins or splits, not both.`,
  find: (model) =>
    [...model.elements].flatMap((gateway) =>
      isGateway(gateway.type) && incomingOf(model, gateway.id).length > 1 && outgoingOf(model, gateway.id).length > 1
        ? [
            {
              elements: [gateway.id],
              message: say`${saidOf(model, gateway)} joins several flows and splits them again at once, which is easily misread. Use one gateway to join and another behind it to split.`,
            },
          ]
        : [],
    ),
};
