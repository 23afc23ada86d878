import { z } from "zod";
import { type Edit, editSchema, invertAll, type Model, ok, type Result } from "../model";
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
} from "./assign";
import { callInstead, callInsteadSchema } from "./callInstead";
import { Change, Refusal } from "./change";
import { bend, bendSchema, connect, connectSchema, reconnect, reconnectSchema } from "./connect";
import {
  append,
  appendSchema,
  attach,
  attachSchema,
  insertOnFlow,
  insertOnFlowSchema,
  place,
  placeSchema,
} from "./create";
import { setDataState, setDataStateSchema, setMultiplicity, setMultiplicitySchema } from "./dataState";
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
} from "./details";
import {
  describeIn,
  describeInSchema,
  setCalled,
  setCalledSchema,
  setCalledVersion,
  setCalledVersionSchema,
  setLinks,
  setLinksSchema,
} from "./documents";
import { collapse, collapseSchema, expand, expandSchema } from "./expand";
import { labelOf } from "./labelOf";
import { moveLane, moveLaneSchema, splitLane, splitLaneSchema, swapLanes, swapLanesSchema } from "./laneOrder";
import { addLane, addLaneSchema } from "./lanes";
import { align, alignSchema, distribute, distributeSchema, sameSize, sameSizeSchema } from "./lineUp";
import { linkWords, linkWordsSchema, unlinkWords, unlinkWordsSchema } from "./linkWords";
import { mergeEntry, mergeEntrySchema } from "./mergeEntry";
import { move, moveLabel, moveLabelSchema, moveSchema, resize, resizeSchema } from "./move";
import { moveToLane, moveToLaneSchema, moveToNeighbourLane, moveToNeighbourLaneSchema } from "./moveToLane";
import { paste, pasteSchema } from "./paste";
import { addPage, addPageSchema } from "./pools";
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
} from "./properties";
import { deleteSchema, remove } from "./remove";
import { replace, replaceSchema } from "./replace";
import { makeRoom, makeRoomSchema } from "./room";
import { setEstimate, setEstimateSchema } from "./setEstimate";
import { straighten, straightenSchema } from "./straighten";
import { tidy, tidySchema } from "./tidy";
import { unwrap, unwrapSchema } from "./unwrap";
import { wrap, wrapSchema } from "./wrap";

/** Edits made elsewhere, under a name of their own: undo, redo, a repair, a restored revision. */
const editsSchema = z.object({
  type: z.literal("edits"),
  label: z.string().max(100_000),
  edits: z.array(editSchema).max(400_000),
});

/** What a person or a stage asks for, as data. */
export const commandSchema = z.discriminatedUnion("type", [
  placeSchema,
  appendSchema,
  insertOnFlowSchema,
  attachSchema,
  connectSchema,
  reconnectSchema,
  bendSchema,
  renameSchema,
  retypeSchema,
  setFieldSchema,
  describeSchema,
  setConditionSchema,
  setTimerSchema,
  setRepetitionSchema,
  moveSchema,
  moveToNeighbourLaneSchema,
  moveToLaneSchema,
  resizeSchema,
  moveLabelSchema,
  deleteSchema,
  addLaneSchema,
  addPageSchema,
  assignRoleSchema,
  unassignRoleSchema,
  tieLaneSchema,
  useSystemSchema,
  dropSystemSchema,
  giveDocumentSchema,
  renameEntrySchema,
  pasteSchema,
  setEstimateSchema,
  linkWordsSchema,
  unlinkWordsSchema,
  tidySchema,
  replaceSchema,
  alignSchema,
  distributeSchema,
  sameSizeSchema,
  straightenSchema,
  makeRoomSchema,
  swapLanesSchema,
  splitLaneSchema,
  expandSchema,
  collapseSchema,
  wrapSchema,
  unwrapSchema,
  callInsteadSchema,
  setDataStateSchema,
  setMultiplicitySchema,
  nameReferenceSchema,
  setAttributeSchema,
  setCounterpartsSchema,
  sayTimerSchema,
  setRepetitionDetailSchema,
  moveLaneSchema,
  mergeEntrySchema,
  describeInSchema,
  setLinksSchema,
  setCalledVersionSchema,
  setCalledSchema,
  editsSchema,
]);
export type Command = z.infer<typeof commandSchema>;

export interface Performed {
  readonly model: Model;
  readonly edits: readonly Edit[];
  /** What the undo menu and the history call it: "move Inspect on site". */
  readonly label: string;
  /** What a person ought to be told besides. */
  readonly remarks: readonly string[];
}

/**
 * Turns a command into edits on a given model, or says why not. Pure: the same command on the same model gives the same
 * edits, in the browser and on the server.
 * @param isRough for one of many commands that end with tidying the page: flows are drawn without looking for a way
 */
export function perform(
  model: Model,
  command: Command,
  { isRough = false }: { readonly isRough?: boolean } = {},
): Result<Performed> {
  const change = new Change(model, isRough);
  try {
    carryOut(change, command);
  } catch (error) {
    if (error instanceof Refusal) return { ok: false, problems: error.problems };
    throw error;
  }
  return ok({
    model: change.model,
    edits: change.edits,
    label: labelOf(model, change.model, command),
    remarks: change.remarks,
  });
}

function carryOut(change: Change, command: Command): void {
  switch (command.type) {
    case "place":
      return command.kind.type === "lane" ? addLane(change, laneAt(change, command)) : place(change, command);
    case "append":
      return append(change, command);
    case "insertOnFlow":
      return insertOnFlow(change, command);
    case "attach":
      return attach(change, command);
    case "connect":
      return connect(change, command);
    case "reconnect":
      return reconnect(change, command);
    case "bend":
      return bend(change, command);
    case "rename":
      return rename(change, command);
    case "retype":
      return retype(change, command);
    case "setField":
      return setField(change, command);
    case "describe":
      return describe(change, command);
    case "setCondition":
      return setCondition(change, command);
    case "setTimer":
      return setTimer(change, command);
    case "setRepetition":
      return setRepetition(change, command);
    case "move":
      return move(change, command);
    case "moveToNeighbourLane":
      return moveToNeighbourLane(change, command);
    case "moveToLane":
      return moveToLane(change, command);
    case "resize":
      return resize(change, command);
    case "moveLabel":
      return moveLabel(change, command);
    case "delete":
      return remove(change, command);
    case "addLane":
      return addLane(change, command);
    case "addPage":
      return addPage(change, command);
    case "assignRole":
      return assignRole(change, command);
    case "unassignRole":
      return unassignRole(change, command);
    case "tieLane":
      return tieLane(change, command);
    case "useSystem":
      return useSystem(change, command);
    case "dropSystem":
      return dropSystem(change, command);
    case "giveDocument":
      return giveDocument(change, command);
    case "renameEntry":
      return renameEntry(change, command);
    case "paste":
      return paste(change, command);
    case "setEstimate":
      return setEstimate(change, command);
    case "linkWords":
      return linkWords(change, command);
    case "unlinkWords":
      return unlinkWords(change, command);
    case "tidy":
      return tidy(change, command);
    case "replace":
      return replace(change, command);
    case "align":
      return align(change, command);
    case "distribute":
      return distribute(change, command);
    case "sameSize":
      return sameSize(change, command);
    case "straighten":
      return straighten(change, command);
    case "makeRoom":
      return makeRoom(change, command);
    case "swapLanes":
      return swapLanes(change, command);
    case "splitLane":
      return splitLane(change, command);
    case "expand":
      return expand(change, command);
    case "collapse":
      return collapse(change, command);
    case "wrap":
      return wrap(change, command);
    case "unwrap":
      return unwrap(change, command);
    case "callInstead":
      return callInstead(change, command);
    case "setDataState":
      return setDataState(change, command);
    case "setMultiplicity":
      return setMultiplicity(change, command);
    case "nameReference":
      return nameReference(change, command);
    case "setAttribute":
      return setAttribute(change, command);
    case "setCounterparts":
      return setCounterparts(change, command);
    case "sayTimer":
      return sayTimer(change, command);
    case "setRepetitionDetail":
      return setRepetitionDetail(change, command);
    case "moveLane":
      return moveLane(change, command);
    case "mergeEntry":
      return mergeEntry(change, command);
    case "describeIn":
      return describeIn(change, command);
    case "setLinks":
      return setLinks(change, command);
    case "setCalled":
      return setCalled(change, command);
    case "setCalledVersion":
      return setCalledVersion(change, command);
    case "edits":
      return change.admit(command.edits as readonly Edit[]);
  }
}

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
  if (!beside) throw new Refusal([{ code: "outside-pool", message: "A lane is part of a pool; place it inside one." }]);
  return {
    type: "addLane",
    diagram: command.diagram,
    id: command.id,
    beside: beside.id,
    ...(command.name && { name: command.name }),
  };
}

/** The command that takes back what was performed. */
export function undoOf(performed: Pick<Performed, "edits" | "label">): Command {
  return { type: "edits", label: performed.label, edits: invertAll(performed.edits) as never };
}
