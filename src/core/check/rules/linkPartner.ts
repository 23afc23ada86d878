import { say } from "../../messages";
import { type Element, elementsOfType, eventDefinitionsOf, type Model } from "../../model";
import { type Rule, saidOf } from "../finding";

const linkName = (model: Model, event: Element) => {
  const link = eventDefinitionsOf(model, event.id).find((one) => one.type === "linkEventDefinition");
  return link ? String(link.name ?? event.name ?? "").trim() : undefined;
};

/** BPMN 2.0, 10.5.1: a link joins sources to exactly one target within one process level. */
export const linkPartner: Rule = {
  id: "link-partner",
  group: "connections",
  severity: "error",
  wants: say`A link leads to exactly one other end of its name.`,
  find: (model) => {
    const links = [
      ...elementsOfType(model, "intermediateThrowEvent"),
      ...elementsOfType(model, "intermediateCatchEvent"),
    ].flatMap((event) => {
      const name = linkName(model, event);
      return name === undefined ? [] : [{ event, name, leaves: event.type === "intermediateThrowEvent" }];
    });
    return links.flatMap(({ event, name, leaves }) => {
      const others = links.filter(
        (other) => other.leaves !== leaves && other.name === name && other.event.parent === event.parent,
      );
      const twins = links.filter(
        (other) => !other.leaves && !leaves && other.name === name && other.event.parent === event.parent,
      );
      if (others.length === 0)
        return [
          {
            elements: [event.id],
            message: say`${saidOf(model, event)} is a link ${leaves ? say`that leads nowhere` : say`that nothing leads to`}: no other end on this page has the name “${name}”. Give both ends one name.`,
          },
        ];
      if (twins.length > 1 && twins[0]?.event === event)
        return [
          {
            elements: twins.map((twin) => twin.event.id),
            message: say`${twins.length} links named “${name}” can be led to, so nobody knows which is meant. Give each a name of its own.`,
          },
        ];
      return [];
    });
  },
};
