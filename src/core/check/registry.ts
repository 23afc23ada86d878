import type { Rule } from "./finding";
import { answerUnnamed } from "./rules/answerUnnamed";
import { behaviourUnknown, deadElement, deadlock, lackOfSynchronization, livelock } from "./rules/behaviour";
import { boundaryHost } from "./rules/boundaryHost";
import { calledProcessMissing } from "./rules/calledProcessMissing";
import { conditionMissing } from "./rules/conditionMissing";
import { danglingReference } from "./rules/danglingReference";
import { decisionUnnamed } from "./rules/decisionUnnamed";
import { defaultFlow } from "./rules/defaultFlow";
import { defaultMissing } from "./rules/defaultMissing";
import { duplicateId } from "./rules/duplicateId";
import { emptyLane } from "./rules/emptyLane";
import { emptySubProcess } from "./rules/emptySubProcess";
import { endMissing } from "./rules/endMissing";
import { endUnnamed } from "./rules/endUnnamed";
import { eventGatewayBranches } from "./rules/eventGatewayBranches";
import { eventPosition } from "./rules/eventPosition";
import { fileNotes } from "./rules/fileNotes";
import { flowWithoutEnd } from "./rules/flowWithoutEnd";
import { messageFlowRules } from "./rules/messageFlowRules";
import { needlessGateway } from "./rules/needlessGateway";
import { notDrawn } from "./rules/notDrawn";
import { noWayIn } from "./rules/noWayIn";
import { noWayOut } from "./rules/noWayOut";
import { poolWithoutFlows } from "./rules/poolWithoutFlows";
import { questionMark } from "./rules/questionMark";
import { responsibleMissing } from "./rules/responsibleMissing";
import { sameName } from "./rules/sameName";
import { sequenceFlowRules } from "./rules/sequenceFlowRules";
import { severalStarts } from "./rules/severalStarts";
import { shapesOverlap } from "./rules/shapesOverlap";
import { splitAndJoin } from "./rules/splitAndJoin";
import { startMissing } from "./rules/startMissing";
import { startUnnamed } from "./rules/startUnnamed";
import { stepUnnamed } from "./rules/stepUnnamed";
import { timerEmpty } from "./rules/timerEmpty";
import { tooLarge } from "./rules/tooLarge";
import { verbObject } from "./rules/verbObject";

/** Every rule of the check, in the order in which findings are listed. */
export const rules: readonly Rule[] = [
  deadlock,
  lackOfSynchronization,
  livelock,
  deadElement,
  sequenceFlowRules,
  messageFlowRules,
  flowWithoutEnd,
  danglingReference,
  duplicateId,
  fileNotes,
  eventPosition,
  boundaryHost,
  eventGatewayBranches,
  defaultFlow,
  poolWithoutFlows,
  startMissing,
  endMissing,
  noWayIn,
  noWayOut,
  responsibleMissing,
  defaultMissing,
  conditionMissing,
  timerEmpty,
  calledProcessMissing,
  emptySubProcess,
  emptyLane,
  stepUnnamed,
  decisionUnnamed,
  answerUnnamed,
  questionMark,
  endUnnamed,
  startUnnamed,
  verbObject,
  sameName,
  needlessGateway,
  splitAndJoin,
  severalStarts,
  tooLarge,
  shapesOverlap,
  notDrawn,
  behaviourUnknown,
];
