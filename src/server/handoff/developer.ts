import { readBpmn, writeBpmn } from "@/core/bpmn";
import { type Command, perform } from "@/core/commands";
import { type Element, incomingOf, isTask, type Model, nameOf } from "@/core/model";
import { reviseText, sourceTree } from "@/core/xml";
import { UseCaseError } from "../kernel/useCase";

/** The developers' namespace in the demo; nobody else's. */
const rig = "urn:quillmere:rig:1";

/** What the simulated developer does to a file: technical attributes, a service task, a way out when that fails. */
export function developed(text: string): { readonly text: string; readonly message: string } {
  const read = readBpmn(text);
  if (!read.ok) throw new UseCaseError("cannot-be-read", "The developer cannot read the file either.", 409);
  const before = read.value;
  const after = withTechnicalData(withServiceTask(before));
  return {
    text: reviseText(text, sourceTree(writeBpmn(before)), sourceTree(writeBpmn(after))),
    message: "Add retries, the audit record and what happens when it fails",
  };
}

function withServiceTask(model: Model): Model {
  const [diagram] = [...model.diagrams];
  const end = [...model.elements].find(({ id, type }) => type === "endEvent" && incomingOf(model, id).length > 0);
  const [flow] = end ? incomingOf(model, end.id) : [];
  if (!diagram || !flow) return model;
  const id = free(model, "audit");
  const commands: Command[] = [
    { type: "insertOnFlow", diagram: diagram.id, onFlow: flow.id, id, flow: `${id}.on`, kind: { type: "serviceTask" } },
    { type: "rename", id, name: "Write audit record" },
    {
      type: "attach",
      diagram: diagram.id,
      host: id,
      id: `${id}.failed`,
      kind: { type: "boundaryEvent", trigger: "errorEventDefinition" },
    } as Command,
    { type: "rename", id: `${id}.failed`, name: "Record cannot be written" },
    {
      type: "append",
      diagram: diagram.id,
      from: `${id}.failed`,
      id: `${id}.end`,
      flow: `${id}.away`,
      kind: { type: "endEvent" },
      name: "Record is missing",
    },
  ];
  return commands.reduce((at, command) => {
    const done = perform(at, command);
    return done.ok ? done.value.model : at;
  }, model);
}

/** Attributes of the developers on the first tasks that have none yet, and an element of theirs on the first of all. */
function withTechnicalData(model: Model): Model {
  const prefix = model.form.prefixes.find(([, uri]) => uri === rig)?.[0] ?? "rig";
  const changed = new Map<string, Element>();
  const tasks = [...model.elements].filter(
    (element) => isTask(element.type) && !element.foreignAttributes?.some(([name]) => name === `${prefix}:queue`),
  );
  for (const [at, task] of tasks.slice(0, 2).entries()) {
    const queue =
      nameOf(model, task.id)
        .toLowerCase()
        .replace(/[^a-z0-9]+/g, "-") || task.id;
    const attributes = [
      ...(task.foreignAttributes ?? []),
      [`${prefix}:queue`, queue],
      [`${prefix}:retries`, "3"],
    ] as const;
    const retry = {
      element: { name: `${prefix}:retry`, uri: rig, attributes: [["wait", "PT5M"]] as const, children: [] },
    };
    changed.set(task.id, {
      ...task,
      foreignAttributes: attributes as Element["foreignAttributes"],
      ...(at === 0 && { extension: [...(task.extension ?? []), retry] }),
    } as Element);
  }
  const root = model.elements.get(model.root) as Element;
  const isDeclared = model.form.prefixes.some(([, uri]) => uri === rig);
  const declared = root.foreignAttributes?.some(([name]) => name === `xmlns:${prefix}`);
  if (!isDeclared && !declared)
    changed.set(root.id, {
      ...root,
      foreignAttributes: [...(root.foreignAttributes ?? []), [`xmlns:${prefix}`, rig]],
    } as Element);
  return { ...model, elements: model.elements.with(changed) };
}

function free(model: Model, wish: string): string {
  let id = wish;
  for (let at = 2; model.elements.has(id); at++) id = `${wish}${at}`;
  return id;
}
