export { type Act, actsOf, type Deed } from "./acts";
export {
  beginCase,
  type CaseState,
  type Instance,
  instancesOf,
  isCaseOver,
  loopOf,
  standingAt,
  type World,
  worldWith,
} from "./caseState";
export { type FireChoice, flowsByData, type WalkChoices } from "./choices";
export { actWords, explain } from "./explain";
export { cardinalityOf, type Happened } from "./moving";
export { beginPlaying, leftAt, type Next, nextAct, outcomeOf, type Playing, played, type WalkStep } from "./playing";
export { type NetNode, type NodeKind, type ScopeNet, scopeNetOf } from "./scopeNet";
export { afterMove, initialStates, isOver, keyOfState, type Move, movesOf, type ScopeState } from "./scopeState";
export { step } from "./step";
export { type SuggestedWalk, type Suggestion, suggestWalks } from "./suggest";
export { type Walked, walk } from "./walk";
export { choicesOf, runWalkTest, testOf, type WalkTest, type WalkTestResult, walkTestSchema } from "./walkTest";
