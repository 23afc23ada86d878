import { say } from "../messages";
import { failure, ok, type Result } from "../model";

/** Present in browsers, workers and Node alike, but not part of the language library core is compiled against. */
declare class TextDecoder {
  constructor(label: string, options: { fatal: boolean; ignoreBOM: boolean });
  decode(bytes: Uint8Array): string;
}
declare class TextEncoder {
  encode(text: string): Uint8Array;
}

/** Encodings a process file may declare; what else there is would hardly be tested by anybody. */
const encodings = new Map([
  ["utf-8", "utf-8"],
  ["utf8", "utf-8"],
  ["utf-16", "utf-16le"],
  ["utf-16le", "utf-16le"],
  ["utf-16be", "utf-16be"],
  ["us-ascii", "windows-1252"],
  ["iso-8859-1", "windows-1252"],
  ["windows-1252", "windows-1252"],
]);

type Encoding = { readonly encoding: string; readonly start: number };

/**
 * How an XML file is written: by its byte-order mark, else by the shape of its first bytes, else by its own declaration, else UTF-8.
 * Source: XML 1.0, appendix F "Autodetection of Character Encodings".
 */
function encodingOf(bytes: Uint8Array): Encoding | { readonly unknown: string } {
  const [first, second, third] = bytes;
  if (first === 0xef && second === 0xbb && third === 0xbf) return { encoding: "utf-8", start: 3 };
  if (first === 0xff && second === 0xfe) return { encoding: "utf-16le", start: 2 };
  if (first === 0xfe && second === 0xff) return { encoding: "utf-16be", start: 2 };
  if (first === 0x3c && second === 0x00) return { encoding: "utf-16le", start: 0 };
  if (first === 0x00 && second === 0x3c) return { encoding: "utf-16be", start: 0 };
  const declared = /^\s*<\?xml[^>]*?encoding\s*=\s*["']([A-Za-z0-9._-]+)["']/.exec(
    String.fromCharCode(...bytes.subarray(0, 200)),
  )?.[1];
  if (declared === undefined) return { encoding: "utf-8", start: 0 };
  const known = encodings.get(declared.toLowerCase());
  if (!known) return { unknown: declared };
  // A file that declares UTF-16 in single bytes is not UTF-16; it is then UTF-8, as everything else is by default.
  return { encoding: known.startsWith("utf-16") ? "utf-8" : known, start: 0 };
}

/** Text of an XML file, without its byte-order mark. */
export function decodeXml(bytes: Uint8Array): Result<string> {
  const found = encodingOf(bytes);
  if ("unknown" in found) {
    return failure({
      code: "encoding",
      message: say`The file says it is written in "${found.unknown}", which cannot be read here. Save it as UTF-8.`,
      line: 1,
      column: 1,
    });
  }
  const { encoding, start } = found;
  try {
    return ok(new TextDecoder(encoding, { fatal: true, ignoreBOM: true }).decode(bytes.subarray(start)));
  } catch {
    return failure({
      code: "encoding",
      message: say`The file is not valid ${encoding.toUpperCase()} text. Save it as UTF-8 and open it again.`,
      line: 1,
      column: 1,
    });
  }
}

/** Bytes of a text in the encoding of the file it goes back to, byte-order mark included; what that cannot write stands as references. */
export function encodeXmlLike(file: Uint8Array, text: string): Uint8Array {
  const found = encodingOf(file);
  const { encoding, start } = "unknown" in found ? { encoding: "utf-8", start: 0 } : found;
  const mark = [...file.subarray(0, start)];
  if (encoding === "utf-8") return joined(mark, new TextEncoder().encode(text));
  if (encoding.startsWith("utf-16")) {
    const bytes = new Uint8Array(text.length * 2);
    const high = encoding === "utf-16be" ? 0 : 1;
    for (let at = 0; at < text.length; at++) {
      const unit = text.charCodeAt(at);
      bytes[at * 2 + high] = unit >> 8;
      bytes[at * 2 + 1 - high] = unit & 0xff;
    }
    return joined(mark, bytes);
  }
  const all = new TextDecoder(encoding, { fatal: false, ignoreBOM: true }).decode(
    Uint8Array.from({ length: 256 }, (_, at) => at),
  );
  const byteOf = new Map([...all].map((character, at) => [character, at]));
  const written = [...text].map((character) => (byteOf.has(character) ? character : `&#${character.codePointAt(0)};`));
  return joined(mark, Uint8Array.from([...written.join("")].map((character) => byteOf.get(character) as number)));
}

function joined(start: readonly number[], rest: Uint8Array): Uint8Array {
  const bytes = new Uint8Array(start.length + rest.length);
  bytes.set(start);
  bytes.set(rest, start.length);
  return bytes;
}
