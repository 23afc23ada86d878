export { type Bound, bindingOf, bindingsOf, boundTo } from "./bindings";
export { type Break, breaksOf } from "./breaks";
export { type Candidate, type CandidateOperation, candidateFrom, candidatesOf } from "./candidates";
export { byRules, type CaseStyle, caseStyles, inCase, type NamingRules, type RuledName } from "./naming";
export { type Offer, type Offered, offeredTo, offersOf } from "./offered";
export { openApiOf } from "./openApiExport";
