export { fragmentOfFile, fragmentToFile, looksLikeBpmn } from "./fragmentFile";
