import { say } from "../messages";
import { failure, ok, type Result } from "../model";
import type { Description, DescriptionFile, Field, Operation } from "./description";
import { isMap, JsonDocuments, own, type Placed, parseJsonOrYaml, textOf } from "./jsonDocuments";

/** Source: OpenAPI 3.1.1, "Path Item Object" (from memory). */
const methods = new Set(["get", "put", "post", "delete", "options", "head", "patch", "trace"]);

/**
 * Reads an OpenAPI 3.0 or 3.1 description, JSON or YAML: its title is the interface, each method of a path an operation.
 * References within the file and to files beside or below it are followed; what lies elsewhere is named, and never asked for.
 * Source: OpenAPI Specification 3.0.3 and 3.1.1 (from memory). O(size of all files).
 */
export function readOpenApi(file: DescriptionFile): Result<Description> {
  const parsed = parseJsonOrYaml(file.bytes);
  if (!parsed.ok) return parsed;
  const said = versionIn(own(parsed.value, "openapi"));
  const [, number] = /^(3\.[01])(?:\.|$)/.exec(said) ?? [];
  if (!number) {
    const what = said || versionIn(own(parsed.value, "swagger"));
    return failure({
      code: "no-description",
      message: what
        ? say`This describes itself as version ${what}; OpenAPI 3.0 and 3.1 are read.`
        : say`This is no OpenAPI description: it has no "openapi" with a version.`,
      line: 1,
      column: 1,
    });
  }
  const documents = new JsonDocuments(file, parsed.value);
  const reader = new Reader(documents);
  const info = own(parsed.value, "info");
  const name = textOf(own(info, "title"));
  if (name === "") documents.tell(say`The description has no title, so its interface is called after the file.`);
  const operations = reader.operations();
  documents.lookAtAll();
  return ok({
    format: number === "3.0" ? "OpenAPI 3.0" : "OpenAPI 3.1",
    version: String(own(info, "version") ?? ""),
    interfaces: [{ name: name || file.name.replace(/\.\w+$/, ""), operations }],
    problems: documents.problems,
  });
}

/** A version as it is meant: unquoted in YAML, 3.0 is a number. */
const versionIn = (value: unknown): string => (typeof value === "number" ? value.toFixed(1) : textOf(value));

class Reader {
  constructor(readonly documents: JsonDocuments) {}

  operations(): Operation[] {
    const { root, file } = this.documents;
    const paths = this.#at({ value: root, file: file.name }, "paths");
    return Object.keys(isMap(paths?.value) ? paths.value : {}).flatMap((path) => {
      const item = paths && path.startsWith("/") ? this.#at(paths, path) : undefined;
      if (!item || !isMap(item.value)) return [];
      return Object.keys(item.value)
        .filter((method) => methods.has(method))
        .flatMap((method) => {
          const operation = this.#at(item, method);
          return operation && isMap(operation.value) ? [this.#operation(path, method, item, operation)] : [];
        });
    });
  }

  #operation(path: string, method: string, item: Placed, operation: Placed): Operation {
    const address = `${method.toUpperCase()} ${path}`;
    const parameters = new Map<string, Field>();
    // Those of the path hold for each of its methods; a method may say one anew.
    for (const owner of [item, operation])
      for (const parameter of this.#list(owner, "parameters")) {
        const name = textOf(own(parameter.value, "name"));
        if (name === "") continue;
        const schema = this.#at(parameter, "schema");
        parameters.set(`${textOf(own(parameter.value, "in"))} ${name}`, {
          name,
          type: schema ? this.#typeOf(schema) : "",
          isRequired: own(parameter.value, "required") === true,
        });
      }
    const body = this.#at(operation, "requestBody");
    const media = body && this.#json(body);
    const sent = media && this.#at(media, "schema");
    const isAsked = own(body?.value, "required") === true;
    const fields = (sent ? this.#fields(sent) : []).map((field) => ({
      ...field,
      isRequired: field.isRequired && isAsked,
    }));
    const responses = this.#at(operation, "responses");
    const codes = Object.keys(isMap(responses?.value) ? responses.value : {}).filter((code) => !code.startsWith("x-"));
    const isDone = (code: string) => /^2(\d\d|XX)$/i.test(code);
    const answered = codes
      .filter(isDone)
      .sort((a, b) => (a.toUpperCase() < b.toUpperCase() ? -1 : 1))
      .map((code) => responses && this.#at(responses, code))
      .map((response) => response && this.#json(response))
      .find((media) => media !== undefined);
    const given = answered && this.#at(answered, "schema");
    return {
      name: textOf(own(operation.value, "operationId")) || address,
      in: onceEach([...parameters.values(), ...fields]),
      out: given ? this.#fields(given) : [],
      errors: codes.filter((code) => !isDone(code)),
      address,
      documentation:
        textOf(own(operation.value, "summary")) || textOf(own(operation.value, "description")).slice(0, 2_000),
    };
  }

  /** A part of something, with references followed. */
  #at(of: Placed, key: string): Placed | undefined {
    const value = own(of.value, key);
    return value === undefined ? undefined : this.documents.follow({ value, file: of.file });
  }

  #list(of: Placed, key: string): Placed[] {
    const list = this.#at(of, key);
    if (!Array.isArray(list?.value)) return [];
    return list.value.flatMap((value) => this.documents.follow({ value, file: list.file }) ?? []);
  }

  /** The first JSON there is in a body or an answer. Source: RFC 6839, section 3.1 (+json). */
  #json(of: Placed): Placed | undefined {
    const content = this.#at(of, "content");
    const type = Object.keys(isMap(content?.value) ? content.value : {}).find((name) =>
      /^\s*(application\/json|[^;\s]+\+json)\s*(;|$)/i.test(name),
    );
    return content && type !== undefined ? this.#at(content, type) : undefined;
  }

  /** The top properties of a schema, of its items where it is a list; those of what it is put together from included. */
  #fields(schema: Placed): Field[] {
    const found = new Map<string, { placed: Placed; isRequired: boolean }>();
    const required = new Set<string>();
    const seen = new Set<unknown>();
    const collect = (at: Placed | undefined): void => {
      if (!at || !isMap(at.value) || seen.has(at.value)) return;
      seen.add(at.value);
      const names = own(at.value, "required");
      if (Array.isArray(names)) for (const name of names) if (typeof name === "string") required.add(name);
      const properties = this.#at(at, "properties");
      for (const name of Object.keys(isMap(properties?.value) ? properties.value : {}))
        if (properties && !found.has(name))
          found.set(name, { placed: { value: own(properties.value, name), file: properties.file }, isRequired: false });
      for (const key of ["allOf", "oneOf", "anyOf"]) for (const part of this.#list(at, key)) collect(part);
      // What stands beside a reference holds as well (3.1).
      if (own(at.value, "items") !== undefined && !isMap(own(at.value, "properties"))) collect(this.#at(at, "items"));
    };
    collect(this.documents.follow(schema));
    return [...found].map(([name, { placed }]) => ({
      name,
      type: this.#typeOf(placed),
      isRequired: required.has(name),
    }));
  }

  /** A schema's type in words; one that is referred to goes by its name. */
  #typeOf(placed: Placed, depth = 0): string {
    const reference = own(placed.value, "$ref");
    if (typeof reference === "string") {
      const target = this.documents.follow(placed);
      const kind =
        target && depth < 8 && !isMap(own(target.value, "properties")) ? this.#typeOf(target, depth + 1) : "";
      const name = reference.slice(reference.lastIndexOf("/") + 1);
      return kind !== "" && kind !== "object" ? kind : name;
    }
    const type = own(placed.value, "type");
    if (type === "array") {
      const items = own(placed.value, "items");
      return `list of ${items === undefined || depth > 8 ? "anything" : this.#typeOf({ value: items, file: placed.file }, depth + 1)}`;
    }
    const format = textOf(own(placed.value, "format"));
    if (format !== "") return format;
    return Array.isArray(type) ? type.filter((one) => one !== "null").join(" or ") : textOf(type);
  }
}

function onceEach(fields: readonly Field[]): Field[] {
  return fields.filter(({ name }, at) => fields.findIndex((other) => other.name === name) === at);
}
