import { say } from "../../messages";
import { elementsOfType } from "../../model";
import { type Rule, saidOf } from "../finding";

const kinds = [
  "messageEventDefinition",
  "signalEventDefinition",
  "errorEventDefinition",
  "escalationEventDefinition",
] as const;
const refs = ["messageRef", "signalRef", "errorRef", "escalationRef"] as const;
const words = ["message", "signal", "error", "escalation"] as const;

/** An engine tells messages, signals, errors and escalations apart by what they name. */
export const messageUnnamed: Rule = {
  id: "trigger-unnamed",
  group: "automation",
  severity: "warning",
  wants: say`An event names its message, signal, error or escalation.`,
  find: (model) =>
    kinds.flatMap((kind, at) =>
      elementsOfType(model, kind).flatMap((definition) => {
        if (definition[refs[at] as (typeof refs)[number]]) return [];
        const event = model.elements.get(definition.parent ?? "");
        return event
          ? [
              {
                elements: [event.id],
                message: say`${saidOf(model, event)} does not say which ${words[at] ?? ""} it is about, so an engine cannot tell it from others. Name it in the tray.`,
              },
            ]
          : [];
      }),
    ),
};
