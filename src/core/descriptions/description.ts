import type { Said } from "../messages";

/** One piece of data that goes into an operation or comes out of it. */
export interface Field {
  readonly name: string;
  /** Its type as the description calls it: "string", "date", "Meter", "list of Meter"; "" where it does not say. */
  readonly type: string;
  readonly isRequired: boolean;
}

export interface Operation {
  readonly name: string;
  readonly in: readonly Field[];
  readonly out: readonly Field[];
  readonly errors: readonly string[];
  /** How it is reached: method and path, or style of the binding. */
  readonly address: string;
  readonly documentation: string;
}

export interface ServiceInterface {
  readonly name: string;
  readonly operations: readonly Operation[];
}

/** What a description of services that exist already says. */
export interface Description {
  readonly format: "OpenAPI 3.0" | "OpenAPI 3.1" | "WSDL 1.1";
  /** The version of what is described, by its author; "" where none is given. */
  readonly version: string;
  readonly interfaces: readonly ServiceInterface[];
  /** What could not be followed or understood, in words. */
  readonly problems: readonly Said[];
}

/** Bounds on what is read, so that no description fills memory or runs on. */
export const descriptionLimits = {
  bytes: 16 * 1024 * 1024,
  depth: 200,
  files: 100,
  aliases: 1_000,
  elements: 200_000,
} as const;

/**
 * A file beside the description, by its path from the description's folder ("types/meter.yaml"); undefined where there is none. It is
 * only asked for files in that folder or below.
 */
export type ReadBeside = (path: string) => Uint8Array | undefined;

/** A description with what it is called, which its references are relative to. */
export interface DescriptionFile {
  readonly name: string;
  readonly bytes: Uint8Array;
  readonly beside?: ReadBeside;
}

/**
 * Where a reference of a file leads, from the description's folder; undefined where that is elsewhere or on a network.
 * @param from path of the file that refers
 */
export function pathBeside(from: string, reference: string): string | undefined {
  let path = reference;
  try {
    path = decodeURIComponent(reference);
  } catch {
    // A lone percent sign is one.
  }
  if (/^[a-z][a-z0-9+.-]*:|^[/\\]/i.test(path) || path.includes("\0")) return undefined;
  const parts = from.split("/").slice(0, -1);
  for (const part of path.replaceAll("\\", "/").split("/")) {
    if (part === "" || part === ".") continue;
    if (part === "..") {
      if (parts.pop() === undefined) return undefined;
    } else parts.push(part);
  }
  return parts.join("/");
}
