export { type Bound, bindingOf, bindingsOf, boundTo } from "./bindings";
export { type Candidate, type CandidateOperation, candidateFrom, candidatesOf } from "./candidates";
export {
  type Description,
  type DescriptionFile,
  descriptionLimits,
  type Field,
  type Operation,
  type ReadBeside,
  type ServiceInterface,
} from "./description";
export { byRules, type CaseStyle, caseStyles, inCase, type NamingRules, type RuledName } from "./naming";
export { openApiOf } from "./openApiExport";
export { readDescription } from "./read";
