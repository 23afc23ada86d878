import { unzlibSync } from "fflate";

/**
 * Unpacks a WOFF 1.0 font into the OpenType file it was made from.
 * Source: W3C Recommendation "WOFF File Format 1.0" (2012), sections 3 to 5: a header of 44 bytes, then 20 bytes for each table
 * (tag, offset, packed length, length, checksum); a table is packed with zlib where that made it shorter.
 * @throws Error for anything else than a WOFF 1.0 file
 */
export function unpackWoff(woff: Uint8Array): Uint8Array {
  const from = new DataView(woff.buffer, woff.byteOffset, woff.byteLength);
  if (woff.byteLength < 44 || from.getUint32(0) !== 0x774f4646) throw new Error("This is no WOFF 1.0 font.");
  const count = from.getUint16(12);
  const tables = Array.from({ length: count }, (_, at) => {
    const entry = 44 + at * 20;
    const [offset, packed, length] = [entry + 4, entry + 8, entry + 12].map((place) => from.getUint32(place)) as [
      number,
      number,
      number,
    ];
    const bytes = woff.subarray(offset, offset + packed);
    const data = packed < length ? unzlibSync(bytes) : bytes;
    return { tag: from.getUint32(entry), checksum: from.getUint32(entry + 16), data };
  });
  const padded = (length: number) => (length + 3) & ~3;
  const start = 12 + count * 16;
  const font = new Uint8Array(start + tables.reduce((sum, { data }) => sum + padded(data.length), 0));
  const to = new DataView(font.buffer);
  // The header of an OpenType file: flavour, number of tables, and three numbers for searching them by halves.
  const power = 2 ** Math.floor(Math.log2(Math.max(1, count)));
  to.setUint32(0, from.getUint32(4));
  to.setUint16(4, count);
  to.setUint16(6, power * 16);
  to.setUint16(8, Math.log2(power));
  to.setUint16(10, count * 16 - power * 16);
  let place = start;
  tables.forEach(({ tag, checksum, data }, at) => {
    const entry = 12 + at * 16;
    to.setUint32(entry, tag);
    to.setUint32(entry + 4, checksum);
    to.setUint32(entry + 8, place);
    to.setUint32(entry + 12, data.length);
    font.set(data, place);
    place += padded(data.length);
  });
  return font;
}
