export { type NetNode, type NodeKind, type ScopeNet, scopeNetOf } from "./scopeNet";
export { afterMove, initialStates, isOver, keyOfState, type Move, movesOf, type ScopeState } from "./scopeState";
export { type WalkChoices, type Walked, type WalkStep, walk } from "./walk";
