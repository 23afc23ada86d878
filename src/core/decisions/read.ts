import { parseXml, type XmlPart } from "../descriptions";
import {
  builtInNames,
  type Expression,
  FeelSyntaxError,
  parseExpression,
  parseUnaryTests,
  type UnaryTests,
} from "../feel/language";
import { say } from "../messages";
import { failure, ok, type Result } from "../model";
import type {
  Aggregator,
  Decision,
  DecisionModel,
  HitPolicy,
  InputData,
  ItemType,
  Knowledge,
  Logic,
  TableInput,
  TableOutput,
  Written,
} from "./model";

/** Namespaces of DMN 1.3, 1.4 and 1.5 (from memory). */
const namespaces = new Set([
  "https://www.omg.org/spec/DMN/20191111/MODEL/",
  "https://www.omg.org/spec/DMN/20211108/MODEL/",
  "https://www.omg.org/spec/DMN/20230324/MODEL/",
]);

const policies: readonly HitPolicy[] = ["UNIQUE", "FIRST", "PRIORITY", "ANY", "COLLECT", "RULE ORDER", "OUTPUT ORDER"];

/**
 * Reads the decisions of a DMN 1.3 to 1.5 file: decision tables, literal expressions, contexts, invocations, business knowledge models. An
 * expression that cannot be read is kept with its reason, which is told when it is needed. O(length × names).
 */
export function readDecisions(bytes: Uint8Array): Result<DecisionModel> {
  const parsed = parseXml(bytes);
  if (!parsed.ok) return parsed;
  const root = parsed.value;
  if (!isDecisionRoot(root))
    return failure({
      code: "no-decisions",
      message: say`This is no file of decisions: DMN 1.3, 1.4 and 1.5 are read, and its first element is "${root.local}" of "${root.uri}".`,
    });
  return ok(decisionsIn(root));
}

/** Whether an element is the first one of a file of decisions. */
export const isDecisionRoot = ({ local, uri }: XmlPart): boolean => local === "definitions" && namespaces.has(uri);

/** What the first element of a file of decisions says. */
export const decisionsIn = (root: XmlPart): DecisionModel => new Reader(root).model();

const childrenOf = (part: XmlPart, local: string) =>
  part.children.filter((child) => child.local === local && child.uri === part.uri);
const childOf = (part: XmlPart, local: string): XmlPart | undefined => childrenOf(part, local)[0];
const textIn = (part: XmlPart | undefined): string => (part ? (childOf(part, "text")?.text ?? "").trim() : "");
/** An attribute; blanks of any kind and number in a name are one. */
const named = (part: XmlPart, name: string): string | undefined =>
  name === "name" ? part.attributes.get(name)?.replace(/\s+/g, " ").trim() : part.attributes.get(name);
const hrefOf = (part: XmlPart | undefined): string => (part ? (named(part, "href") ?? "").replace(/^.*#/, "") : "");

class Reader {
  readonly #names: ReadonlySet<string>;

  constructor(readonly root: XmlPart) {
    const names = new Set(builtInNames);
    const visit = (part: XmlPart) => {
      const name = named(part, "name") ?? named(part, "iteratorVariable");
      if (name) names.add(name);
      for (const child of part.children) visit(child);
    };
    visit(root);
    this.#names = names;
  }

  model(): DecisionModel {
    const types = childrenOf(this.root, "itemDefinition").map((part) => this.#type(part));
    const inputs = childrenOf(this.root, "inputData").map((part): InputData => {
      const variable = childOf(part, "variable");
      return {
        id: named(part, "id") ?? "",
        name: (variable && named(variable, "name")) ?? named(part, "name") ?? "",
        type: variable && typeOf(variable),
      };
    });
    const decisions = childrenOf(this.root, "decision").map((part) => this.#decision(part));
    const knowledge = childrenOf(this.root, "businessKnowledgeModel").map((part) => this.#knowledge(part));
    const byId = <Of extends { readonly id: string }>(list: readonly Of[]) => new Map(list.map((one) => [one.id, one]));
    return {
      name: named(this.root, "name") ?? "",
      types: new Map(types.map((type) => [type.name, type])),
      inputs: byId(inputs),
      decisions: byId(decisions),
      knowledge: byId(knowledge),
    };
  }

  #type(part: XmlPart): ItemType {
    const allowed = textIn(childOf(part, "typeConstraint")) || textIn(childOf(part, "allowedValues"));
    return {
      name: named(part, "name") ?? "",
      base:
        childOf(part, "typeRef")
          ?.text.trim()
          .replace(/^feel[.:]/, "") || undefined,
      isCollection: named(part, "isCollection") === "true",
      allowed: allowed === "" ? undefined : this.#tests(allowed),
      parts: childrenOf(part, "itemComponent").map((one) => this.#type(one)),
    };
  }

  #decision(part: XmlPart): Decision {
    const variable = childOf(part, "variable");
    const name = named(part, "name") ?? "";
    const requires = (of: string, what: string) =>
      childrenOf(part, of).flatMap((one) => hrefOf(childOf(one, what)) || []);
    return {
      id: named(part, "id") ?? "",
      name,
      variable: (variable && named(variable, "name")) || name,
      type: variable && typeOf(variable),
      decisions: requires("informationRequirement", "requiredDecision"),
      inputs: requires("informationRequirement", "requiredInput"),
      knowledge: requires("knowledgeRequirement", "requiredKnowledge"),
      logic: this.#logicIn(part, name),
    };
  }

  #knowledge(part: XmlPart): Knowledge {
    const variable = childOf(part, "variable");
    const encapsulated = childOf(part, "encapsulatedLogic");
    const name = (variable && named(variable, "name")) || (named(part, "name") ?? "");
    return {
      id: named(part, "id") ?? "",
      name,
      knowledge: childrenOf(part, "knowledgeRequirement").flatMap(
        (one) => hrefOf(childOf(one, "requiredKnowledge")) || [],
      ),
      logic: encapsulated ? this.#function(encapsulated, name) : { kind: "none", what: name },
    };
  }

  #function(part: XmlPart, what: string): Logic {
    const kind = named(part, "kind") ?? "FEEL";
    if (kind !== "FEEL") return { kind: "none", what: `${what} (${kind})` };
    return {
      kind: "function",
      parameters: childrenOf(part, "formalParameter").map((one) => named(one, "name") ?? ""),
      body: this.#logicIn(part, what),
    };
  }

  #logicIn(part: XmlPart, what: string): Logic {
    for (const child of part.children) {
      const logic = child.uri === part.uri ? this.#logic(child, what) : undefined;
      if (logic) return logic;
    }
    return { kind: "none", what };
  }

  #logicOf(part: XmlPart, local: string, what: string): Logic {
    const child = childOf(part, local);
    return child ? this.#logicIn(child, what) : { kind: "none", what: `${what} (${local})` };
  }

  #logic(part: XmlPart, what: string): Logic | undefined {
    switch (part.local) {
      case "decisionTable":
        return this.#table(part, what);
      case "literalExpression":
        return { kind: "expression", expression: this.#expression(textIn(part)) };
      case "context":
        return {
          kind: "context",
          entries: childrenOf(part, "contextEntry").map((entry) => {
            const variable = childOf(entry, "variable");
            return { name: (variable && named(variable, "name")) ?? "", logic: this.#logicIn(entry, what) };
          }),
        };
      case "invocation":
        return {
          kind: "invocation",
          of: this.#logicIn(part, what),
          args: childrenOf(part, "binding").map((binding) => {
            const parameter = childOf(binding, "parameter");
            return { name: (parameter && named(parameter, "name")) ?? "", logic: this.#logicIn(binding, what) };
          }),
        };
      case "list":
        return { kind: "list", items: part.children.flatMap((child) => this.#logic(child, what) ?? []) };
      case "functionDefinition":
        return this.#function(part, what);
      case "relation": {
        const columns = childrenOf(part, "column").map((column) => named(column, "name") ?? "");
        const rows = childrenOf(part, "row").map((row) =>
          row.children.flatMap((cell) => (cell.uri === part.uri ? (this.#logic(cell, what) ?? []) : [])),
        );
        return { kind: "relation", columns, rows };
      }
      case "conditional":
        return {
          kind: "conditional",
          test: this.#logicOf(part, "if", what),
          so: this.#logicOf(part, "then", what),
          otherwise: this.#logicOf(part, "else", what),
        };
      case "filter":
        return { kind: "filter", of: this.#logicOf(part, "in", what), by: this.#logicOf(part, "match", what) };
      case "for":
      case "some":
      case "every":
        return {
          kind: "iteration",
          how: part.local,
          variable: named(part, "iteratorVariable") ?? "",
          over: this.#logicOf(part, "in", what),
          each: this.#logicOf(part, part.local === "for" ? "return" : "satisfies", what),
        };
      default:
        return undefined;
    }
  }

  #table(part: XmlPart, what: string): Logic {
    const outputs = childrenOf(part, "output");
    const inputs = childrenOf(part, "input").map((input): TableInput => {
      const expression = childOf(input, "inputExpression");
      const allowed = textIn(childOf(input, "inputValues"));
      return {
        expression: this.#expression(textIn(expression) || (named(input, "label") ?? "")),
        type: expression && typeOf(expression),
        allowed: allowed === "" ? undefined : this.#tests(allowed),
      };
    });
    const policy = (named(part, "hitPolicy") ?? "UNIQUE").toUpperCase() as HitPolicy;
    const aggregator = named(part, "aggregation") as Aggregator | undefined;
    return {
      kind: "table",
      inputs,
      outputs: outputs.map((output, at): TableOutput => {
        const allowed = textIn(childOf(output, "outputValues"));
        const usual = textIn(childOf(output, "defaultOutputEntry"));
        return {
          name: named(output, "name") || (outputs.length === 1 ? what : `output ${at + 1}`),
          type: typeOf(output),
          allowed: allowed === "" ? undefined : this.#tests(allowed),
          usual: usual === "" ? undefined : this.#expression(usual),
        };
      }),
      rules: childrenOf(part, "rule").map((rule) => ({
        inputs: inputs.map((_, at) => this.#tests(textIn(childrenOf(rule, "inputEntry")[at]))),
        outputs: outputs.map((_, at) => this.#expression(textIn(childrenOf(rule, "outputEntry")[at]))),
      })),
      hitPolicy: policies.includes(policy) ? policy : "UNIQUE",
      aggregator: policy === "COLLECT" ? aggregator : undefined,
    };
  }

  #expression(text: string): Written<Expression> {
    // Nothing said is nothing: null.
    return { text, read: readAs(() => parseExpression(text === "" || text === "-" ? "null" : text, this.#names)) };
  }
  #tests(text: string): Written<UnaryTests> {
    return { text, read: readAs(() => parseUnaryTests(text === "" ? "-" : text, this.#names)) };
  }
}

const typeOf = (part: XmlPart): string | undefined =>
  named(part, "typeRef")
    ?.trim()
    .replace(/^feel[.:]/, "") || undefined;

function readAs<Read>(read: () => Read): Read | FeelSyntaxError {
  try {
    return read();
  } catch (error) {
    if (error instanceof FeelSyntaxError) return error;
    throw error;
  }
}
