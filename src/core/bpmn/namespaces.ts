/** Which namespace a prefix stands for, element by element, as a file is read or written. */
export interface Scope {
  readonly outer: Scope | null;
  readonly prefixes: ReadonlyMap<string, string>;
  /** Names resolved in this scope, so that each is split once. */
  readonly names: Map<string, ResolvedName>;
}

export interface ResolvedName {
  readonly prefix: string;
  readonly local: string;
  /** "" where the prefix is not declared. */
  readonly uri: string;
}

const xmlNamespace = "http://www.w3.org/XML/1998/namespace";

export const outermostScope: Scope = { outer: null, prefixes: new Map([["xml", xmlNamespace]]), names: new Map() };

export function innerScope(outer: Scope, declared: ReadonlyMap<string, string>): Scope {
  return { outer, prefixes: declared, names: new Map() };
}

export function uriOf(scope: Scope, prefix: string): string {
  for (let at: Scope | null = scope; at; at = at.outer) {
    const uri = at.prefixes.get(prefix);
    if (uri !== undefined) return uri;
  }
  return "";
}

export function resolveName(scope: Scope, name: string): ResolvedName {
  let resolved = scope.names.get(name);
  if (!resolved) {
    const colon = name.indexOf(":");
    const prefix = colon < 0 ? "" : name.slice(0, colon);
    resolved = { prefix, local: colon < 0 ? name : name.slice(colon + 1), uri: uriOf(scope, prefix) };
    scope.names.set(name, resolved);
  }
  return resolved;
}

/** The prefix an attribute such as `xmlns:a` declares, "" for `xmlns`; undefined for every other attribute. */
export function declaredPrefix(attribute: string): string | undefined {
  if (!attribute.startsWith("xmlns")) return undefined;
  if (attribute.length === 5) return "";
  return attribute.charCodeAt(5) === 58 ? attribute.slice(6) : undefined;
}
