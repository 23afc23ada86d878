import { type Said, say } from "../messages";
import { failure, ok, type Result } from "../model";
import {
  type Description,
  type DescriptionFile,
  descriptionLimits,
  type Field,
  type Operation,
  pathBeside,
} from "./description";
import { keyOf, parseXml, type QualifiedName, type XmlPart } from "./xmlDocument";
import { schemaNamespace, XmlSchemas } from "./xmlSchema";

const wsdlNamespace = "http://schemas.xmlsoap.org/wsdl/";
const soapNamespaces = new Set(["http://schemas.xmlsoap.org/wsdl/soap/", "http://schemas.xmlsoap.org/wsdl/soap12/"]);

type Style = "document" | "rpc";

/**
 * Reads a WSDL 1.1 description with its schemas: a port type is an interface. Imports within its folder are followed; what lies
 * elsewhere is named, and never asked for.
 * Source: Web Services Description Language 1.1 (W3C note, 2001), sections 2 and 3; XML Schema 1.0, part 1 (from memory).
 * O(size of all files).
 */
export function readWsdl(file: DescriptionFile): Result<Description> {
  const parsed = parseXml(file.bytes);
  if (!parsed.ok) return parsed;
  const root = parsed.value;
  if (root.local !== "definitions" || root.uri !== wsdlNamespace)
    return failure({
      code: "no-description",
      message: say`This is no WSDL 1.1 description: it begins with <${root.local}> of the namespace "${root.uri}".`,
      line: 1,
      column: 1,
    });
  const reader = new Reader(file);
  reader.take(root, file.name);
  return ok({ format: "WSDL 1.1", version: "", interfaces: reader.interfaces(), problems: reader.problems });
}

class Reader {
  readonly problems: Said[] = [];
  readonly #schemas = new XmlSchemas();
  readonly #messages = new Map<string, XmlPart>();
  readonly #portTypes: { readonly part: XmlPart; readonly key: string }[] = [];
  readonly #bindings: XmlPart[] = [];
  readonly #read = new Set<string>();
  readonly #told = new Set<string>();

  constructor(readonly file: DescriptionFile) {
    this.#read.add(file.name);
  }

  /** Takes a document's parts in, and those it imports. */
  take(document: XmlPart, path: string, as?: string): void {
    if (document.uri === schemaNamespace) return this.#schema(document, path, as);
    if (document.uri !== wsdlNamespace) return;
    const namespace = document.attributes.get("targetNamespace") ?? "";
    for (const part of document.children) {
      if (part.uri !== wsdlNamespace) continue;
      const name = part.attributes.get("name") ?? "";
      const key = keyOf({ uri: namespace, local: name });
      if (part.local === "message") this.#messages.set(key, part);
      else if (part.local === "portType") this.#portTypes.push({ part, key });
      else if (part.local === "binding") this.#bindings.push(part);
      else if (part.local === "types")
        for (const schema of part.children) if (schema.uri === schemaNamespace) this.#schema(schema, path);
    }
    for (const part of document.children)
      if (part.uri === wsdlNamespace && part.local === "import") this.#import(part.attributes.get("location"), path);
  }

  interfaces() {
    return this.#portTypes.map(({ part, key }) => ({
      name: part.attributes.get("name") ?? "",
      operations: part.children
        .filter(({ uri, local }) => uri === wsdlNamespace && local === "operation")
        .map((operation) => this.#operation(operation, key)),
    }));
  }

  #schema(schema: XmlPart, path: string, as?: string): void {
    this.#schemas.add(schema, as);
    const namespace = schema.attributes.get("targetNamespace") ?? as;
    for (const part of schema.children)
      if (part.uri === schemaNamespace && ["import", "include", "redefine"].includes(part.local))
        this.#import(part.attributes.get("schemaLocation"), path, part.local === "import" ? undefined : namespace);
  }

  #import(location: string | undefined, from: string, as?: string): void {
    // An import without a place says that a namespace is used; it is found among the schemas at hand.
    if (location === undefined) return;
    const path = pathBeside(from, location);
    if (path === undefined)
      return this.#tell(say`The import ${location} leads out of the description's folder and was not followed.`);
    const known = as === undefined ? path : `${path} ${as}`;
    if (this.#read.has(known)) return;
    this.#read.add(known);
    if (this.#read.size > descriptionLimits.files)
      return this.#tell(
        say`The description refers to more than ${descriptionLimits.files} files; the others were not read.`,
      );
    const bytes = this.file.beside?.(path);
    if (!bytes) return this.#tell(say`The file ${path}, which the description imports, is not there.`);
    const parsed = parseXml(bytes);
    if (!parsed.ok) return this.#tell(say`The file ${path} cannot be read: ${parsed.problems[0]?.message ?? ""}`);
    this.take(parsed.value, path, as);
  }

  #operation(operation: XmlPart, portType: string): Operation {
    const name = operation.attributes.get("name") ?? "";
    const style = this.#style(portType, name);
    const child = (local: string) =>
      operation.children.filter((part) => part.uri === wsdlNamespace && part.local === local);
    const fields = (part: XmlPart | undefined) => (part ? this.#fields(part, style) : []);
    return {
      name,
      in: fields(child("input")[0]),
      out: fields(child("output")[0]),
      errors: child("fault").map((fault) => fault.attributes.get("name") ?? ""),
      address: style ?? "",
      documentation: child("documentation")[0]?.text.trim() ?? "",
    };
  }

  /** The style of a binding's operation, else of the binding, else document (section 3.3); undefined without a binding. */
  #style(portType: string, operation: string): Style | undefined {
    const bound = this.#bindings.filter(
      (binding) => keyOf(binding.resolve(binding.attributes.get("type") ?? "")) === portType,
    );
    const soap = (part: XmlPart, local: string) =>
      part.children.find((child) => soapNamespaces.has(child.uri) && child.local === local);
    for (const binding of bound) {
      const whole = soap(binding, "binding");
      if (!whole) continue;
      const own = binding.children.find(
        (part) => part.uri === wsdlNamespace && part.local === "operation" && part.attributes.get("name") === operation,
      );
      const style = (own && soap(own, "operation")?.attributes.get("style")) ?? whole.attributes.get("style");
      return style === "rpc" ? "rpc" : "document";
    }
    return undefined;
  }

  #fields(of: XmlPart, style: Style | undefined): Field[] {
    const name = of.resolve(of.attributes.get("message") ?? "");
    const message = this.#messages.get(keyOf(name));
    if (!message) {
      this.#tell(say`The message ${name.local} is not described.`);
      return [];
    }
    const parts = message.children.filter(({ uri, local }) => uri === wsdlNamespace && local === "part");
    return parts.flatMap((part) => {
      const element = part.attributes.get("element");
      const type = part.attributes.get("type");
      const own: Field = {
        name: part.attributes.get("name") ?? "",
        type: part.resolve(element ?? type ?? "").local,
        isRequired: true,
      };
      const isDocument = style === undefined ? element !== undefined : style === "document";
      return isDocument && element !== undefined ? this.#wrapped(part.resolve(element), own) : [own];
    });
  }

  #wrapped(element: QualifiedName, own: Field): Field[] {
    const fields = this.#schemas.fieldsOf(element);
    if (fields) return fields;
    this.#tell(say`The element ${element.local} of a message is not described.`);
    return [{ ...own, name: element.local }];
  }

  #tell(said: Said): void {
    if (this.#told.has(said.text)) return;
    this.#told.add(said.text);
    this.problems.push(said);
  }
}
