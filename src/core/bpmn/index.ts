export { decodeXml, encodeXmlLike } from "./decode";
export { fileLimits, readBpmn } from "./read";
export { writeBpmn } from "./write";
