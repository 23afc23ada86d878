export { decodeText, encodingOf } from "./decodeText";
export { readTable, type TableRows, tableLimits, writeTable } from "./table";
