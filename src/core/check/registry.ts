import type { Rule } from "./finding";
import { adHocContent } from "./rules/adHocContent";
import { answerNotDecided } from "./rules/answerNotDecided";
import { answerUnnamed } from "./rules/answerUnnamed";
import { behaviourUnknown, deadElement, deadlock, lackOfSynchronization, livelock } from "./rules/behaviour";
import { boundaryHost } from "./rules/boundaryHost";
import { calledProcessMissing } from "./rules/calledProcessMissing";
import { cancelOutside } from "./rules/cancelOutside";
import { collaborationDeadlock, collaborationUnknown, messageNeverArrives } from "./rules/collaboration";
import { compensationHandler } from "./rules/compensationHandler";
import { conditionIgnored } from "./rules/conditionIgnored";
import { conditionMissing } from "./rules/conditionMissing";
import { conditionNotExecutable } from "./rules/conditionNotExecutable";
import { danglingReference } from "./rules/danglingReference";
import { dataNotRead, dataNotWritten } from "./rules/dataFlow";
import { decisionInputMissing } from "./rules/decisionInputMissing";
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
import { eventState } from "./rules/eventState";
import { eventSubProcessFlows } from "./rules/eventSubProcessFlows";
import { fileNotes } from "./rules/fileNotes";
import { flowBackwards } from "./rules/flowBackwards";
import { flowsCross } from "./rules/flowsCross";
import { flowWithoutEnd } from "./rules/flowWithoutEnd";
import { inclusiveUsed } from "./rules/inclusiveUsed";
import { instancesUncounted } from "./rules/instancesUncounted";
import { linkPartner } from "./rules/linkPartner";
import { messageFlowRules } from "./rules/messageFlowRules";
import { messageNeverSent } from "./rules/messageNeverSent";
import { messageUnnamed } from "./rules/messageUnnamed";
import { needlessGateway } from "./rules/needlessGateway";
import { notDrawn } from "./rules/notDrawn";
import { noWayIn } from "./rules/noWayIn";
import { noWayOut } from "./rules/noWayOut";
import { poolWithoutFlows } from "./rules/poolWithoutFlows";
import { questionMark } from "./rules/questionMark";
import { responsibleMissing } from "./rules/responsibleMissing";
import { sameName } from "./rules/sameName";
import { sequenceFlowRules } from "./rules/sequenceFlowRules";
import { serviceUnbound } from "./rules/serviceUnbound";
import { severalEnds } from "./rules/severalEnds";
import { severalStarts } from "./rules/severalStarts";
import { shapesOverlap } from "./rules/shapesOverlap";
import { similarNames } from "./rules/similarNames";
import { splitAndJoin } from "./rules/splitAndJoin";
import { startMissing } from "./rules/startMissing";
import { startUnnamed } from "./rules/startUnnamed";
import { stepUnnamed } from "./rules/stepUnnamed";
import { subProcessStart } from "./rules/subProcessStart";
import { throwCaught } from "./rules/throwCaught";
import { timerEmpty } from "./rules/timerEmpty";
import { timerNotExact } from "./rules/timerNotExact";
import { tooLarge } from "./rules/tooLarge";
import { verbObject } from "./rules/verbObject";

/** The rules of the check, in the order in which findings are listed. */
export const rules: readonly Rule[] = [
  deadlock,
  lackOfSynchronization,
  livelock,
  deadElement,
  collaborationDeadlock,
  messageNeverArrives,
  collaborationUnknown,
  messageNeverSent,
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
  linkPartner,
  subProcessStart,
  eventSubProcessFlows,
  cancelOutside,
  compensationHandler,
  adHocContent,
  conditionIgnored,
  throwCaught,
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
  conditionNotExecutable,
  timerNotExact,
  serviceUnbound,
  messageUnnamed,
  instancesUncounted,
  stepUnnamed,
  decisionUnnamed,
  answerUnnamed,
  answerNotDecided,
  decisionInputMissing,
  dataNotWritten,
  dataNotRead,
  questionMark,
  endUnnamed,
  startUnnamed,
  verbObject,
  eventState,
  sameName,
  similarNames,
  needlessGateway,
  splitAndJoin,
  severalStarts,
  severalEnds,
  inclusiveUsed,
  tooLarge,
  shapesOverlap,
  flowBackwards,
  flowsCross,
  notDrawn,
  behaviourUnknown,
];
