import { z } from "zod";
import { type Said, say } from "../../messages";
import { counted, type Edit, editSchema, termFor } from "../../model";
import { align, alignSchema, distribute, distributeSchema, sameSize, sameSizeSchema } from "../arrange/lineUp";
import { move, moveLabel, moveLabelSchema, moveSchema, resize, resizeSchema } from "../arrange/move";
import { makeRoom, makeRoomSchema } from "../arrange/room";
import { straighten, straightenSchema } from "../arrange/straighten";
import { tidy, tidySchema } from "../arrange/tidy";
import { bindOperation, bindOperationSchema, mapField, mapFieldSchema } from "../details/bindOperation";
import {
  addCandidateOperation,
  addCandidateOperationSchema,
  decideCandidate,
  decideCandidateSchema,
  dropCandidate,
  dropCandidateOperation,
  dropCandidateOperationSchema,
  dropCandidateSchema,
  keepCandidate,
  keepCandidateSchema,
  nameCandidates,
  nameCandidatesSchema,
  setCandidateFigure,
  setCandidateFigureSchema,
  setWeights,
  setWeightsSchema,
} from "../details/candidates";
import { setDataState, setDataStateSchema, setMultiplicity, setMultiplicitySchema } from "../details/dataState";
import { decideBy, decideBySchema, renewDecisions, renewDecisionsSchema } from "../details/decideBy";
import {
  nameReference,
  nameReferenceSchema,
  sayTimer,
  sayTimerSchema,
  setAttribute,
  setAttributeSchema,
  setCounterparts,
  setCounterpartsSchema,
  setRepetitionDetail,
  setRepetitionDetailSchema,
} from "../details/details";
import {
  describeIn,
  describeInSchema,
  setCalled,
  setCalledSchema,
  setCalledVersion,
  setCalledVersionSchema,
  setLinks,
  setLinksSchema,
} from "../details/documents";
import { setForm, setFormSchema } from "../details/forms";
import { linkWords, linkWordsSchema, unlinkWords, unlinkWordsSchema } from "../details/linkWords";
import {
  defineData,
  defineDataSchema,
  dropData,
  dropDataSchema,
  renameData,
  renameDataSchema,
  setDataUse,
  setDataUseSchema,
} from "../details/processData";
import {
  describe,
  describeSchema,
  rename,
  renameSchema,
  retype,
  retypeSchema,
  setCondition,
  setConditionSchema,
  setField,
  setFieldSchema,
  setRepetition,
  setRepetitionSchema,
  setTimer,
  setTimerSchema,
} from "../details/properties";
import {
  addScenario,
  addScenarioSchema,
  dropScenario,
  dropScenarioSchema,
  setAssumption,
  setAssumptionSchema,
  setCalendar,
  setCalendarSchema,
  setDrawn,
  setDrawnSchema,
  setScenario,
  setScenarioSchema,
  setSites,
  setSitesSchema,
} from "../details/scenarios";
import { setEstimate, setEstimateSchema } from "../details/setEstimate";
import { setTargets, setTargetsSchema } from "../details/targets";
import { nameIn, nameInSchema } from "../details/texts";
import {
  assignRole,
  assignRoleSchema,
  dropSystem,
  dropSystemSchema,
  giveDocument,
  giveDocumentSchema,
  renameEntry,
  renameEntrySchema,
  tieLane,
  tieLaneSchema,
  unassignRole,
  unassignRoleSchema,
  useSystem,
  useSystemSchema,
} from "../directory/assign";
import { mergeEntry, mergeEntrySchema } from "../directory/mergeEntry";
import { callInstead, callInsteadSchema } from "../flow/callInstead";
import { bend, bendSchema, connect, connectSchema, reconnect, reconnectSchema } from "../flow/connect";
import {
  append,
  appendSchema,
  attach,
  attachSchema,
  insertOnFlow,
  insertOnFlowSchema,
  place,
  placeSchema,
} from "../flow/create";
import { collapse, collapseSchema, expand, expandSchema } from "../flow/expand";
import { paste, pasteSchema } from "../flow/paste";
import { deleteSchema, remove } from "../flow/remove";
import { replace, replaceSchema } from "../flow/replace";
import { unwrap, unwrapSchema } from "../flow/unwrap";
import { wrap, wrapSchema } from "../flow/wrap";
import { moveLane, moveLaneSchema, splitLane, splitLaneSchema, swapLanes, swapLanesSchema } from "../lanes/laneOrder";
import { addLane, addLaneSchema } from "../lanes/lanes";
import { moveToLane, moveToLaneSchema, moveToNeighbourLane, moveToNeighbourLaneSchema } from "../lanes/moveToLane";
import { addPage, addPageSchema } from "../lanes/pools";
import { type Change, refuse } from "./change";

/** How a command speaks of what it was about. */
export interface Words {
  readonly called: (id: string) => Said;
  readonly several: (ids: readonly string[]) => Said;
  /** Where a move led to another lane, that is what it was about. */
  readonly landedIn: (ids: readonly string[]) => Said;
}

/** One command: what it is made of, what it does to a model, and what that is called: its undo step, its place in the history. */
interface Registered<Schema extends z.ZodType> {
  readonly schema: Schema;
  does(change: Change, command: z.output<Schema>): void;
  label(command: z.output<Schema>, words: Words): Said;
}
const command = <Schema extends z.ZodType>(
  schema: Schema,
  does: (change: Change, command: z.output<Schema>) => void,
  label: (command: z.output<Schema>, words: Words) => Said,
): Registered<Schema> => ({ schema, does, label });

/** Edits made elsewhere, under a name of their own: undo, redo, a repair, a restored revision. */
const editsSchema = z.object({
  type: z.literal("edits"),
  label: z.string().max(100_000),
  edits: z.array(editSchema).max(400_000),
});

/** A lane placed by hand goes below the lane under the point, or into the pool there. */
function laneAt(change: Change, command: z.infer<typeof placeSchema>): z.infer<typeof addLaneSchema> {
  let beside: { id: string; area: number } | undefined;
  for (const shape of change.model.shapes) {
    if (shape.diagram !== command.diagram) continue;
    const type = change.model.elements.get(shape.element)?.type;
    if (type !== "lane" && type !== "participant") continue;
    const { x, y, width, height } = shape.bounds;
    const inside = command.at.x >= x && command.at.x <= x + width && command.at.y >= y && command.at.y <= y + height;
    if (inside && (!beside || width * height < beside.area)) beside = { id: shape.element, area: width * height };
  }
  if (!beside) refuse("outside-pool", say`A lane is part of a pool; place it inside one.`);
  return {
    type: "addLane",
    diagram: command.diagram,
    id: command.id,
    beside: beside.id,
    ...(command.name && { name: command.name }),
  };
}

/** Every command there is. A command is made known here, and nowhere else. */
export const register = {
  place: command(
    placeSchema,
    (change, command) =>
      command.kind.type === "lane" ? addLane(change, laneAt(change, command)) : place(change, command),
    (command, { called }) => say`place ${called(command.id)}`,
  ),
  append: command(
    appendSchema,
    append,
    (command, { called }) => say`add ${called(command.id)} after ${called(command.from)}`,
  ),
  insertOnFlow: command(insertOnFlowSchema, insertOnFlow, (command, { called }) => say`insert ${called(command.id)}`),
  attach: command(
    attachSchema,
    attach,
    (command, { called }) => say`attach ${called(command.id)} to ${called(command.host)}`,
  ),
  connect: command(
    connectSchema,
    connect,
    (command, { called }) => say`connect ${called(command.source)} to ${called(command.target)}`,
  ),
  reconnect: command(
    reconnectSchema,
    reconnect,
    (command, { called }) => say`lead ${called(command.connection)} to ${called(command.to)}`,
  ),
  bend: command(bendSchema, bend, (command, { called }) => say`bend ${called(command.connection)}`),
  rename: command(renameSchema, rename, (command, { called }) => say`name ${called(command.id)}`),
  retype: command(
    retypeSchema,
    retype,
    (command, { called }) => say`make ${called(command.id)} a ${termFor(command.to)}`,
  ),
  setField: command(
    setFieldSchema,
    setField,
    (command, { called }) => say`set ${command.field} of ${called(command.id)}`,
  ),
  describe: command(describeSchema, describe, (command, { called }) => say`describe ${called(command.id)}`),
  setCondition: command(
    setConditionSchema,
    setCondition,
    (command, { called }) => say`set the condition of ${called(command.flow)}`,
  ),
  setTimer: command(setTimerSchema, setTimer, (command, { called }) => say`set the timer of ${called(command.event)}`),
  setRepetition: command(
    setRepetitionSchema,
    setRepetition,
    (command, { called }) => say`set how often ${called(command.activity)} is done`,
  ),
  move: command(
    moveSchema,
    move,
    (command, { several, landedIn }) => say`move ${several(command.ids)}${landedIn(command.ids)}`,
  ),
  moveToNeighbourLane: command(
    moveToNeighbourLaneSchema,
    moveToNeighbourLane,
    (command, { several, landedIn }) => say`move ${several(command.ids)}${landedIn(command.ids)}`,
  ),
  moveToLane: command(
    moveToLaneSchema,
    moveToLane,
    (command, { called, several }) => say`move ${several(command.ids)} to ${called(command.lane)}`,
  ),
  resize: command(resizeSchema, resize, (command, { called }) => say`resize ${called(command.id)}`),
  moveLabel: command(moveLabelSchema, moveLabel, (command, { called }) => say`move the label of ${called(command.id)}`),
  delete: command(deleteSchema, remove, (command, { several }) => say`delete ${several(command.ids)}`),
  addLane: command(addLaneSchema, addLane, (command, { called }) => say`add lane ${called(command.id)}`),
  addPage: command(addPageSchema, addPage, (command, { called }) => say`open a page for ${called(command.element)}`),
  assignRole: command(
    assignRoleSchema,
    assignRole,
    (command, { called }) => say`make ${command.role.name} ${command.part} for ${called(command.step)}`,
  ),
  unassignRole: command(unassignRoleSchema, unassignRole, () => say`take a role off a step`),
  tieLane: command(tieLaneSchema, tieLane, (command) =>
    command.role ? say`tie the lane to ${command.role.name}` : say`untie the lane from its role`,
  ),
  useSystem: command(
    useSystemSchema,
    useSystem,
    (command, { called }) => say`let ${called(command.step)} use ${command.system.name}`,
  ),
  dropSystem: command(
    dropSystemSchema,
    dropSystem,
    (command, { called }) => say`take a system off ${called(command.step)}`,
  ),
  giveDocument: command(
    giveDocumentSchema,
    giveDocument,
    (command, { called }) => say`give ${called(command.step)} ${command.document.name}`,
  ),
  renameEntry: command(renameEntrySchema, renameEntry, (command) => say`rename ${command.from} to ${command.name}`),
  paste: command(pasteSchema, paste, (command) => say`paste ${counted(command.fragment.roots.length, "element")}`),
  setEstimate: command(setEstimateSchema, setEstimate, (command, { called }) => say`estimate ${called(command.id)}`),
  setAssumption: command(
    setAssumptionSchema,
    setAssumption,
    (command, { called }) => say`say what a scenario assumes of ${called(command.element)}`,
  ),
  addScenario: command(addScenarioSchema, addScenario, (command) => say`add the scenario ${command.name}`),
  dropScenario: command(dropScenarioSchema, dropScenario, () => say`take a scenario away`),
  setScenario: command(setScenarioSchema, setScenario, () => say`say how a scenario is run`),
  setSites: command(setSitesSchema, setSites, ({ words }) =>
    "system" in words ? say`say where a system is` : say`say what lies between ${words.from} and ${words.to}`,
  ),
  setTargets: command(
    setTargetsSchema,
    setTargets,
    (command, { called }) => say`say what is to be kept of ${called(command.id)}`,
  ),
  nameIn: command(
    nameInSchema,
    nameIn,
    (command, { called }) => say`say what ${called(command.id)} is called in ${command.language}`,
  ),
  setDrawn: command(setDrawnSchema, setDrawn, ({ path }) => say`say how ${path} is spread over cases`),
  setCalendar: command(setCalendarSchema, setCalendar, (command) => say`set the hours ${command.name}`),
  linkWords: command(linkWordsSchema, linkWords, (command, { called }) => say`tie ${called(command.id)} to its words`),
  unlinkWords: command(
    unlinkWordsSchema,
    unlinkWords,
    (command, { called }) => say`untie ${called(command.id)} from its words`,
  ),
  tidy: command(tidySchema, tidy, (command, { several }) =>
    command.ids ? say`tidy ${several(command.ids)}` : say`tidy the page`,
  ),
  replace: command(
    replaceSchema,
    replace,
    (command, { called }) => say`make ${called(command.id)} a ${termFor(command.kind.type)}`,
  ),
  align: command(alignSchema, align, (command, { several }) => say`align ${several(command.ids)}`),
  distribute: command(distributeSchema, distribute, (command, { several }) => say`distribute ${several(command.ids)}`),
  sameSize: command(sameSizeSchema, sameSize, (command, { several }) => say`give ${several(command.ids)} one size`),
  straighten: command(straightenSchema, straighten, (command) =>
    command.connections.length === 1 ? say`straighten a flow` : say`straighten ${command.connections.length} flows`,
  ),
  makeRoom: command(makeRoomSchema, makeRoom, (command) =>
    command.direction === "right" ? say`make room to the right` : say`make room below`,
  ),
  swapLanes: command(
    swapLanesSchema,
    swapLanes,
    (command, { called }) => say`move the lane ${called(command.lane)} ${command.direction}`,
  ),
  splitLane: command(splitLaneSchema, splitLane, (command, { called }) => say`split the lane ${called(command.lane)}`),
  expand: command(expandSchema, expand, (command, { called }) => say`open ${called(command.id)} in place`),
  collapse: command(collapseSchema, collapse, (command, { called }) => say`close ${called(command.id)}`),
  wrap: command(
    wrapSchema,
    wrap,
    (command, { called, several }) => say`wrap ${several(command.ids)} into ${called(command.id)}`,
  ),
  unwrap: command(unwrapSchema, unwrap, (command, { called }) => say`dissolve ${called(command.id)}`),
  callInstead: command(
    callInsteadSchema,
    callInstead,
    (command, { several }) => say`take ${several(command.ids)} out into a process`,
  ),
  setDataState: command(setDataStateSchema, setDataState, (command, { called }) =>
    command.state
      ? say`say that ${called(command.id)} is ${command.state}`
      : say`take the state off ${called(command.id)}`,
  ),
  setMultiplicity: command(setMultiplicitySchema, setMultiplicity, (command, { called }) =>
    command.isMultiple ? say`make ${called(command.id)} several` : say`make ${called(command.id)} one`,
  ),
  nameReference: command(
    nameReferenceSchema,
    nameReference,
    (command, { called }) => say`say what ${called(command.id)} is about`,
  ),
  setAttribute: command(
    setAttributeSchema,
    setAttribute,
    (command, { called }) => say`set ${command.name} of ${called(command.id)}`,
  ),
  setCounterparts: command(
    setCounterpartsSchema,
    setCounterparts,
    (command, { called }) => say`set the counterparts of ${called(command.id)}`,
  ),
  sayTimer: command(sayTimerSchema, sayTimer, (command, { called }) => say`set the timer of ${called(command.event)}`),
  setRepetitionDetail: command(
    setRepetitionDetailSchema,
    setRepetitionDetail,
    (command, { called }) => say`set how often ${called(command.activity)} is done`,
  ),
  moveLane: command(moveLaneSchema, moveLane, (command, { called }) => say`move the lane ${called(command.lane)}`),
  mergeEntry: command(
    mergeEntrySchema,
    mergeEntry,
    (command) => say`make ${command.from.name} and ${command.into.name} one`,
  ),
  describeIn: command(describeInSchema, describeIn, (command, { called }) =>
    command.language ? say`describe ${called(command.id)} in ${command.language}` : say`describe ${called(command.id)}`,
  ),
  setLinks: command(setLinksSchema, setLinks, (command, { called }) => say`set the links of ${called(command.id)}`),
  setCalledVersion: command(
    setCalledVersionSchema,
    setCalledVersion,
    (command, { called }) => say`say which version ${called(command.id)} calls`,
  ),
  bindOperation: command(bindOperationSchema, bindOperation, (command, { called }) =>
    command.to
      ? say`bind ${called(command.id)} to the operation ${command.to.operation.name}`
      : say`bind ${called(command.id)} to no operation`,
  ),
  decideBy: command(decideBySchema, decideBy, (command, { called }) =>
    command.to
      ? say`let ${called(command.id)} decide by ${command.to.name}`
      : say`let ${called(command.id)} decide by nothing`,
  ),
  setForm: command(setFormSchema, setForm, (command, { called }) => say`arrange the form of ${called(command.id)}`),
  defineData: command(defineDataSchema, defineData, ({ name }) => say`say what ${name} holds`),
  dropData: command(dropDataSchema, dropData, (command, { called }) => say`take ${called(command.id)} out of the data`),
  renameData: command(renameDataSchema, renameData, ({ to }) => say`rename data to ${to}`),
  setDataUse: command(
    setDataUseSchema,
    setDataUse,
    (command, { called }) => say`say what ${called(command.step)} does with data`,
  ),
  renewDecisions: command(
    renewDecisionsSchema,
    renewDecisions,
    () => say`take over what decisions are called and answer`,
  ),
  mapField: command(
    mapFieldSchema,
    mapField,
    (command, { called }) => say`say what ${command.field} of ${called(command.id)} is`,
  ),
  keepCandidate: command(
    keepCandidateSchema,
    keepCandidate,
    (command, { called }) => say`keep the candidate service ${called(command.of)}`,
  ),
  dropCandidate: command(
    dropCandidateSchema,
    dropCandidate,
    (command, { called }) => say`drop the candidate service ${called(command.id)}`,
  ),
  nameCandidates: command(nameCandidatesSchema, nameCandidates, ({ names }) =>
    names.length === 1 && names[0]
      ? say`name ${names[0].name}`
      : say`name ${counted(names.length, "operation")} by rule`,
  ),
  addCandidateOperation: command(
    addCandidateOperationSchema,
    addCandidateOperation,
    (command, { called }) => say`add ${command.name} to ${called(command.candidate)}`,
  ),
  dropCandidateOperation: command(
    dropCandidateOperationSchema,
    dropCandidateOperation,
    (command, { called }) => say`leave out ${called(command.id)}`,
  ),
  decideCandidate: command(decideCandidateSchema, decideCandidate, (command, { called }) =>
    command.decision
      ? say`decide to ${command.decision.what} ${called(command.id)}`
      : say`take back what was decided of ${called(command.id)}`,
  ),
  setCandidateFigure: command(
    setCandidateFigureSchema,
    setCandidateFigure,
    (command, { called }) => say`say ${command.criterion} of ${called(command.id)}`,
  ),
  setWeights: command(setWeightsSchema, setWeights, () => say`weigh criteria of services`),
  setCalled: command(setCalledSchema, setCalled, (command, { called }) => say`say what ${called(command.id)} calls`),
  edits: command(
    editsSchema,
    (change, command) => change.admit(command.edits as readonly Edit[]),
    (command) => ({ code: "", text: command.label }),
  ),
} as const;

type Register = typeof register;
/** What a person or a stage asks for, as data. */
export type Command = { [Type in keyof Register]: z.output<Register[Type]["schema"]> }[keyof Register];
