import { say } from "../../messages";
import { called, elementsOfType, eventDefinitionsOf, flowNodesIn, processOf } from "../../model";
import { type Rule, saidOf } from "../finding";
import { behaviourOf, deadNodesOf } from "../soundness";

/** Between pools: a message that is waited for in the flow has to be sent by somebody. */
export const messageNeverSent: Rule = {
  id: "message-never-sent",
  group: "behaviour",
  severity: "warning",
  wants: say`A message that is waited for is sent by another pool.`,
  find: (model) => {
    const flows = elementsOfType(model, "messageFlow");
    // Where nothing is said of messages at all, they are simply not drawn.
    if (flows.length === 0) return [];
    const dead = new Set(
      behaviourOf(model).flatMap(({ scopes }) =>
        scopes.flatMap((scope) => deadNodesOf(model, scope).map((node) => node.id)),
      ),
    );
    return [...model.elements].flatMap((element) => {
      const waits =
        element.type === "receiveTask" ||
        (element.type === "intermediateCatchEvent" &&
          eventDefinitionsOf(model, element.id).some((one) => one.type === "messageEventDefinition"));
      if (!waits) return [];
      const incoming = flows.filter((flow) => flow.targetRef === element.id);
      if (incoming.length === 0)
        return [
          {
            elements: [element.id],
            message: say`${saidOf(model, element)} waits for a message, but no message flow says who sends it. Lead one to it from the pool it comes from.`,
          },
        ];
      const senders = incoming.map((flow) => model.elements.get(flow.sourceRef ?? ""));
      const canSend = senders.some((sender) => sender && !dead.has(sender.id));
      if (canSend) return [];
      const [sender] = senders;
      const process = sender && processOf(model, sender.id);
      return [
        {
          elements: [element.id, ...(sender ? [sender.id] : [])],
          message: say`${saidOf(model, element)} waits for a message that is never sent: no case of ${process && flowNodesIn(model, process.id).length > 0 ? say`the other pool` : say`its sender`} comes to ${sender ? called(model, sender) : say`what sends it`}. Mend the way that leads there.`,
        },
      ];
    });
  },
};
