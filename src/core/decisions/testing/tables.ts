import { escapeText } from "../../xml";

/** DMN files for tests, written short. */
export const dmn = (inside: string, version = "20191111") =>
  `<?xml version="1.0"?><definitions xmlns="https://www.omg.org/spec/DMN/${version}/MODEL/" id="d" name="D" namespace="urn:quillmere">${inside}</definitions>`;

export const inputData = (name: string, type = "") =>
  `<inputData id="in-${name.replace(/\W+/g, "-")}" name="${name}"><variable name="${name}"${type && ` typeRef="${type}"`}/></inputData>`;

const value = (tag: string, text: string) => `<${tag}><text>${escapeText(text)}</text></${tag}>`;

/** A table: inputs as "name: type = allowed", outputs as "name: type = allowed | default", rules as "cell; cell -> output; output". */
export function table(
  inputs: readonly string[],
  outputs: readonly string[],
  rules: readonly string[],
  attributes = "",
): string {
  const head = (said: string) => {
    const [, name = "", type = "", allowed = "", usual = ""] =
      /^(.*?)(?:: ?([^=|]+?))?(?: ?= ?(.*?))?(?: ?\| ?(.*))?$/.exec(said) ?? [];
    return { name, type, allowed, usual };
  };
  const typed = (type: string) => (type === "" ? "" : ` typeRef="${type}"`);
  const ins = inputs
    .map(head)
    .map(
      ({ name, type, allowed }) =>
        `<input><inputExpression${typed(type)}><text>${escapeText(name)}</text></inputExpression>${allowed === "" ? "" : value("inputValues", allowed)}</input>`,
    );
  const outs = outputs
    .map(head)
    .map(
      ({ name, type, allowed, usual }) =>
        `<output${name === "" ? "" : ` name="${name}"`}${typed(type)}>${allowed === "" ? "" : value("outputValues", allowed)}${usual === "" ? "" : value("defaultOutputEntry", usual)}</output>`,
    );
  const rows = rules.map((rule) => {
    const [left = "", right = ""] = rule.split("->");
    const cells = (text: string, tag: string) =>
      text
        .split(";")
        .map((cell) => value(tag, cell.trim()))
        .join("");
    return `<rule>${inputs.length === 0 ? "" : cells(left, "inputEntry")}${cells(right, "outputEntry")}</rule>`;
  });
  return `<decisionTable ${attributes}>${ins.join("")}${outs.join("")}${rows.join("")}</decisionTable>`;
}

export const decision = (id: string, logic: string, requires = "", name = id) =>
  `<decision id="${id}" name="${name}"><variable name="${name}"/>${requires}${logic}</decision>`;
export const needsDecision = (id: string) =>
  `<informationRequirement><requiredDecision href="#${id}"/></informationRequirement>`;
export const needsInput = (name: string) =>
  `<informationRequirement><requiredInput href="#in-${name.replace(/\W+/g, "-")}"/></informationRequirement>`;
export const needsKnowledge = (id: string) =>
  `<knowledgeRequirement><requiredKnowledge href="#${id}"/></knowledgeRequirement>`;
export const literal = (text: string) => `<literalExpression><text>${escapeText(text)}</text></literalExpression>`;
