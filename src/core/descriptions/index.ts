export {
  type Description,
  type DescriptionFile,
  descriptionLimits,
  type Field,
  type Operation,
  type ReadBeside,
  type ServiceInterface,
} from "./description";
export { readDescription } from "./read";
export { parseXml, type XmlPart } from "./xmlDocument";
