export { decodeXml } from "./decode";
export { fileLimits, readBpmn } from "./read";
export { writeBpmn } from "./write";
