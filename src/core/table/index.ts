export { readTable, type TableRows, tableLimits, writeTable } from "./table";
