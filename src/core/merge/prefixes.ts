import { type Element, instanceNamespace, type Model, sameJson, type Table } from "../model";

type Prefixes = Map<string, string>;

/**
 * A model whose names from other namespaces are spelled with the prefixes of another model, so that the two can be compared and their
 * parts put together: what is the same is spelled the same, and no name stands under a prefix that means something else, or nothing,
 * where it comes to. Namespaces the other does not declare become declarations on the definitions.
 * Source: Namespaces in XML 1.0: a prefix is a stand-in, the namespace counts. O(size of the model).
 */
export function spelledLike(model: Model, like: Model): Model {
  const own = declarationsOf(model);
  const others = declarationsOf(like);
  const declared: Prefixes = new Map(others);
  const [forElements, forAttributes, added]: [Prefixes, Prefixes, Prefixes] = [new Map(), new Map(), new Map()];
  for (const [prefix, uri] of own) {
    if (declared.get(prefix) === uri) continue;
    const known = others.filter(([, other]) => other === uri).map(([other]) => other);
    const named = known.find((other) => other !== "");
    const element = known[0] ?? freePrefix(prefix, declared, added, uri);
    forElements.set(prefix, element);
    forAttributes.set(prefix, named ?? (element === "" ? freePrefix(prefix, declared, added, uri) : element));
  }
  const root = model.elements.get(model.root) as Element;
  const atRoot = [...others, ...added].filter(
    ([prefix, uri]) =>
      !like.form.prefixes.some(([known]) => known === prefix) &&
      (added.has(prefix) || own.some(([, one]) => one === uri)),
  );
  const told = withDeclarations(root, atRoot);
  if (forElements.size === 0 && told === root && sameJson(model.form.prefixes, like.form.prefixes)) return model;
  const based = told === root ? model.elements : model.elements.with(new Map([[root.id, told]]));
  const form = { ...model.form, prefixes: like.form.prefixes };
  if (forElements.size === 0) return { ...model, form, elements: based };
  const typed = others.filter(([, uri]) => uri === instanceNamespace).map(([prefix]) => `${prefix}:type`);
  const spell = new Speller(forElements, forAttributes, new Set(typed));
  return {
    ...model,
    form,
    elements: respelled(based, spell),
    diagrams: respelled(model.diagrams, spell),
    shapes: respelled(model.shapes, spell),
    edges: respelled(model.edges, spell),
  };
}

type Declarations = readonly (readonly [prefix: string, uri: string])[];
const isDeclaration = ([name]: readonly [string, string]) => name.startsWith("xmlns:");

/** What a model's file declares at its root: as its form says, and what came to it since. */
function declarationsOf(model: Model): Declarations {
  const root = model.elements.get(model.root);
  const since = (root?.foreignAttributes ?? [])
    .filter(isDeclaration)
    .map(([name, uri]) => [name.slice(6), uri] as const);
  return [...model.form.prefixes, ...since];
}

function withDeclarations(root: Element, declarations: Declarations): Element {
  const rest = (root.foreignAttributes ?? []).filter((attribute) => !isDeclaration(attribute));
  const next = [...rest, ...declarations.map(([prefix, uri]) => [`xmlns:${prefix}`, uri] as const)];
  if (sameJson(next, root.foreignAttributes ?? [])) return root;
  if (next.length > 0) return { ...root, foreignAttributes: next };
  const { foreignAttributes: _, ...without } = root;
  return without as Element;
}

function respelled<Value extends { readonly id: string }>(table: Table<Value>, spell: Speller): Table<Value> {
  const changed = new Map<string, Value>();
  for (const record of table) {
    const other = spell.value(record, "") as Value;
    if (other !== record) changed.set(record.id, other);
  }
  return changed.size > 0 ? table.with(changed) : table;
}

function freePrefix(wish: string, declared: Prefixes, added: Prefixes, uri: string): string {
  for (const [prefix, known] of added) if (known === uri) return prefix;
  let prefix = wish === "" ? "ns" : wish;
  for (let at = 1; declared.has(prefix) || added.has(prefix); at++) prefix = `${wish === "" ? "ns" : wish}${at}`;
  added.set(prefix, uri);
  return prefix;
}

const attributeLists = new Set(["foreignAttributes", "extensionAttributes", "attributes"]);

/** Spells the names inside records, wherever they keep what came with a file; shares what stays. */
class Speller {
  constructor(
    readonly forElements: ReadonlyMap<string, string>,
    readonly forAttributes: ReadonlyMap<string, string>,
    /** Attributes whose values are names as well: xsi:type. */
    readonly typed: ReadonlySet<string>,
  ) {}

  value(value: unknown, field: string): unknown {
    if (typeof value === "string") {
      if (field === "typeName") return this.#name(value, this.forElements);
      return field === "prefix" ? (this.forElements.get(value) ?? value) : value;
    }
    if (typeof value !== "object" || value === null) return value;
    if (Array.isArray(value)) {
      if (attributeLists.has(field)) return this.#attributes(value as (readonly [string, string])[]);
      const items = value.map((item) => this.value(item, ""));
      return items.some((item, at) => item !== value[at]) ? items : value;
    }
    let changed: { [field: string]: unknown } | undefined;
    for (const [key, inner] of Object.entries(value)) {
      const isTag = key === "name" && "uri" in value && "children" in value;
      const other = isTag ? this.#name(inner as string, this.forElements) : this.value(inner, key);
      if (other === inner) continue;
      changed ??= { ...value };
      changed[key] = other;
    }
    return changed ?? value;
  }

  #attributes(attributes: readonly (readonly [string, string])[]): readonly (readonly [string, string])[] {
    let isChanged = false;
    const spelled = attributes.map(([name, value]) => {
      const other = name.startsWith("xmlns") || !name.includes(":") ? name : this.#name(name, this.forAttributes);
      const type = this.typed.has(other) ? this.#name(value, this.forElements) : value;
      if (other === name && type === value) return [name, value] as const;
      isChanged = true;
      return [other, type] as const;
    });
    return isChanged ? spelled : attributes;
  }

  #name(name: string, prefixes: ReadonlyMap<string, string>): string {
    const colon = name.indexOf(":");
    const prefix = prefixes.get(colon < 0 ? "" : name.slice(0, colon));
    if (prefix === undefined) return name;
    const local = name.slice(colon + 1);
    return prefix === "" ? local : `${prefix}:${local}`;
  }
}
