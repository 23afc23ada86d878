export { behaviourOf, deadNodesOf, type ProcessBehaviour, type ScopeBehaviour } from "./soundness";
