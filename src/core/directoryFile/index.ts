export { type FiledEntry, readDirectoryFile, writeDirectoryCsv, writeDirectoryJson } from "./directoryFile";
