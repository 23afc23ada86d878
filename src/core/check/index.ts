export { checkModel, type ProcessVerdict, processVerdicts, type Verdict, verdictOf, type Waiver } from "./check";
export { type Finding, keyOf, type Rule, type RuleGroup, type Severity } from "./finding";
export { rules } from "./registry";
export { type SignedContent, signedContent } from "./signed";
export { behaviourOf, type ProcessBehaviour } from "./soundness";
