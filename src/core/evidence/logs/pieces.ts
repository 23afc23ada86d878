import { encodingOf } from "../../table";

/** Letters that are held at once. */
const pieceBytes = 4_000_000;

/**
 * The text of a log in pieces: in UTF-16 or UTF-8; what is neither is taken for windows-1252, as spreadsheets write it. Bytes come whole,
 * since the last one may be what tells.
 */
export function* textPieces(bytes: Uint8Array): Generator<string> {
  const told = encodingOf(bytes);
  const decoder = new TextDecoder(told === "utf-8" && !isUtf8(bytes) ? "windows-1252" : told);
  // Each as a part, the last too: of a whole one some platforms take windows-1252 for ISO 8859-1.
  for (let from = 0; from < bytes.length; from += pieceBytes)
    yield decoder.decode(bytes.subarray(from, from + pieceBytes), { stream: true });
  yield decoder.decode();
}

function isUtf8(bytes: Uint8Array): boolean {
  const decoder = new TextDecoder("utf-8", { fatal: true });
  try {
    for (let from = 0; from < bytes.length; from += pieceBytes)
      decoder.decode(bytes.subarray(from, from + pieceBytes), { stream: from + pieceBytes < bytes.length });
    return true;
  } catch {
    return false;
  }
}
