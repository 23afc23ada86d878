import type { Result } from "../model";
import type { Description, DescriptionFile } from "./description";
import { readOpenApi } from "./openApi";
import { readWsdl } from "./wsdl";

/** Reads a description of services: WSDL where it is XML, else OpenAPI. */
export function readDescription(file: DescriptionFile): Result<Description> {
  const start = String.fromCharCode(...file.bytes.subarray(0, 400));
  const isXml = /^(?:\u00ef\u00bb\u00bf|\u00ff\u00fe|\u00fe\u00ff)?[\s\0]*</.test(start);
  return isXml ? readWsdl(file) : readOpenApi(file);
}
