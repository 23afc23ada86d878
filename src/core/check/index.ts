export {
  type CheckOptions,
  checkModel,
  type ProcessVerdict,
  processVerdicts,
} from "./check";
export { type Party, partiesOf } from "./collaboration/parties";
export { type Finding, keyOf, newFindings, type Repair, type Rule, type RuleGroup, type Severity } from "./finding";
export { type Measure, type MeasureId, measurable, measuresOf } from "./measures";
export {
  type Adaption,
  adaptionSchema,
  type Level,
  levelOf,
  levelSchema,
  type ProfileName,
  profileNames,
  shippedLevel,
} from "./profiles";
export { rules } from "./registry";
export { type SignedContent, signedContent } from "./signed";
export { behaviourOf, type ProcessBehaviour } from "./soundness";
export type { Summary } from "./summary";
export { type Verdict, verdictOf, type Waiver, waiverFor } from "./verdict";
