import { say } from "../messages";
import { failure, ok, type Result } from "../model";

/** Present in browsers, workers and Node alike, but not part of the language library core is compiled against. */
declare class TextDecoder {
  constructor(label: string, options: { fatal: boolean; ignoreBOM: boolean });
  decode(bytes: Uint8Array): string;
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

/**
 * Text of an XML file: by its byte-order mark, else by the shape of its first bytes, else by its own declaration, else UTF-8.
 * Source: XML 1.0, appendix F "Autodetection of Character Encodings".
 */
export function decodeXml(bytes: Uint8Array): Result<string> {
  const [first, second, third] = bytes;
  let encoding = "utf-8";
  let start = 0;
  if (first === 0xef && second === 0xbb && third === 0xbf) start = 3;
  else if (first === 0xff && second === 0xfe) [encoding, start] = ["utf-16le", 2];
  else if (first === 0xfe && second === 0xff) [encoding, start] = ["utf-16be", 2];
  else if (first === 0x3c && second === 0x00) encoding = "utf-16le";
  else if (first === 0x00 && second === 0x3c) encoding = "utf-16be";
  else {
    const declared = /^\s*<\?xml[^>]*?encoding\s*=\s*["']([A-Za-z0-9._-]+)["']/.exec(
      String.fromCharCode(...bytes.subarray(0, 200)),
    );
    if (declared) {
      const known = encodings.get((declared[1] as string).toLowerCase());
      if (!known) {
        return failure({
          code: "encoding",
          message: say`The file says it is written in "${declared[1] ?? ""}", which cannot be read here. Save it as UTF-8.`,
          line: 1,
          column: 1,
        });
      }
      // A file that declares UTF-16 in single bytes is not UTF-16; it is then UTF-8, as everything else is by default.
      if (!known.startsWith("utf-16")) encoding = known;
    }
  }
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
