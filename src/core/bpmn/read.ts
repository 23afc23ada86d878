import { type Said, say } from "../messages";
import { failure, type Model, ok, type Problem, problem, type Result } from "../model";
import { decodeXml } from "./decode";
import { parseFile } from "./fileParser";
import { ModelBuilder } from "./modelBuilder";

/** Bounds on what is read, so that no file fills memory or the stack. */
export const fileLimits = { bytes: 64 * 1024 * 1024, depth: 256, elements: 400_000 } as const;

class Unreadable extends Error {
  constructor(readonly problem: Problem) {
    super(problem.message);
  }
}

/**
 * Reads a BPMN 2.0 file. What is well-formed BPMN opens, whatever else is wrong with it (see `model.notes` and the checks);
 * what is not gives problems with line and column. Document types and entities are refused: a process file needs neither, and
 * they are how XML is made to run or to fill memory.
 * @param input the file's bytes, or its text
 * O(size of the file).
 */
export function readBpmn(input: Uint8Array | string): Result<Model> {
  const size = input.length;
  if (size > fileLimits.bytes) {
    return failure({
      code: "too-large",
      message: say`The file is ${Math.round(size / 1e6)} MB; files of up to ${fileLimits.bytes / 1024 / 1024} MB are read.`,
    });
  }
  const decoded = typeof input === "string" ? ok(input) : decodeXml(input);
  if (!decoded.ok) return decoded;
  const text = decoded.value.charCodeAt(0) === 0xfeff ? decoded.value.slice(1) : decoded.value;
  if (text.trim() === "") return failure({ code: "empty", message: say`The file is empty.`, line: 1, column: 1 });

  let builder: ModelBuilder | undefined;
  let depth = 0;
  let elements = 0;
  try {
    parseFile(text, (place) => {
      const refuse = (code: string, message: Said): never => {
        throw new Unreadable(problem({ code, message, line: place.line, column: place.column + 1 }));
      };
      builder = new ModelBuilder(() => place.line, refuse);
      return {
        builder,
        refuse,
        onOpen: () => {
          if (++depth > fileLimits.depth)
            refuse("too-deep", say`The file is nested more than ${fileLimits.depth} levels deep.`);
          if (++elements > fileLimits.elements)
            refuse("too-many", say`The file has more than ${fileLimits.elements} elements.`);
        },
        onClose: () => {
          depth--;
        },
      };
    });
    return ok((builder as unknown as ModelBuilder).finish());
  } catch (error) {
    if (error instanceof Unreadable) return failure(error.problem);
    throw error;
  }
}
