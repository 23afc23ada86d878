import { counted, laneOf, type Model, nameOf, wordFor } from "../model";
import type { Command } from "./command";

/** Where a move led to another lane, that is what it was about. */
function landedIn(before: Model, after: Model, ids: readonly string[]): string {
  const [lane, other] = new Set(
    ids.flatMap((id) => {
      const now = laneOf(after, id);
      return now && now.id !== laneOf(before, id)?.id ? [nameOf(after, now.id)] : [];
    }),
  );
  return lane && other === undefined ? ` to ${lane}` : "";
}

/** What a command did, in words: the name of its undo step and of its place in the history. */
export function labelOf(before: Model, after: Model, command: Command): string {
  const called = (id: string) =>
    nameOf(after, id) ||
    nameOf(before, id) ||
    wordFor(after.elements.get(id)?.type ?? before.elements.get(id)?.type ?? "element");
  const several = (ids: readonly string[]) => (ids.length === 1 ? called(ids[0] as string) : `${ids.length} elements`);
  switch (command.type) {
    case "place":
      return `place ${called(command.id)}`;
    case "append":
      return `add ${called(command.id)} after ${called(command.from)}`;
    case "insertOnFlow":
      return `insert ${called(command.id)}`;
    case "attach":
      return `attach ${called(command.id)} to ${called(command.host)}`;
    case "connect":
      return `connect ${called(command.source)} to ${called(command.target)}`;
    case "reconnect":
      return `lead ${called(command.connection)} to ${called(command.to)}`;
    case "bend":
      return `bend ${called(command.connection)}`;
    case "rename":
      return `name ${called(command.id)}`;
    case "retype":
      return `make ${called(command.id)} a ${wordFor(command.to)}`;
    case "setField":
      return `set ${command.field} of ${called(command.id)}`;
    case "describe":
      return `describe ${called(command.id)}`;
    case "setCondition":
      return `set the condition of ${called(command.flow)}`;
    case "setTimer":
      return `set the timer of ${called(command.event)}`;
    case "setRepetition":
      return `set how often ${called(command.activity)} is done`;
    case "move":
      return `move ${several(command.ids)}${landedIn(before, after, command.ids)}`;
    case "moveToNeighbourLane":
      return `move ${several(command.ids)}${landedIn(before, after, command.ids)}`;
    case "moveToLane":
      return `move ${several(command.ids)} to ${called(command.lane)}`;
    case "resize":
      return `resize ${called(command.id)}`;
    case "moveLabel":
      return `move the label of ${called(command.id)}`;
    case "delete":
      return `delete ${several(command.ids)}`;
    case "addLane":
      return `add lane ${called(command.id)}`;
    case "addPage":
      return `open a page for ${called(command.element)}`;
    case "assignRole":
      return `make ${command.role.name} ${command.part} for ${called(command.step)}`;
    case "unassignRole":
      return "take a role off a step";
    case "tieLane":
      return command.role ? `tie the lane to ${command.role.name}` : "untie the lane from its role";
    case "useSystem":
      return `let ${called(command.step)} use ${command.system.name}`;
    case "dropSystem":
      return `take a system off ${called(command.step)}`;
    case "giveDocument":
      return `give ${called(command.step)} ${command.document.name}`;
    case "renameEntry":
      return `rename ${command.from} to ${command.name}`;
    case "mergeEntry":
      return `make ${command.from.name} and ${command.into.name} one`;
    case "moveLane":
      return `move the lane ${called(command.lane)}`;
    case "describeIn":
      return command.language
        ? `describe ${called(command.id)} in ${command.language}`
        : `describe ${called(command.id)}`;
    case "setLinks":
      return `set the links of ${called(command.id)}`;
    case "setCalled":
      return `say what ${called(command.id)} calls`;
    case "setCalledVersion":
      return `say which version ${called(command.id)} calls`;
    case "paste":
      return `paste ${counted(command.fragment.roots.length, "element")}`;
    case "setEstimate":
      return `estimate ${called(command.id)}`;
    case "linkWords":
      return `tie ${called(command.id)} to its words`;
    case "unlinkWords":
      return `untie ${called(command.id)} from its words`;
    case "tidy":
      return command.ids ? `tidy ${several(command.ids)}` : "tidy the page";
    case "replace":
      return `make ${called(command.id)} a ${wordFor(command.kind.type)}`;
    case "align":
      return `align ${several(command.ids)}`;
    case "distribute":
      return `distribute ${several(command.ids)}`;
    case "sameSize":
      return `give ${several(command.ids)} one size`;
    case "straighten":
      return command.connections.length === 1 ? "straighten a flow" : `straighten ${command.connections.length} flows`;
    case "makeRoom":
      return command.direction === "right" ? "make room to the right" : "make room below";
    case "swapLanes":
      return `move the lane ${called(command.lane)} ${command.direction}`;
    case "splitLane":
      return `split the lane ${called(command.lane)}`;
    case "expand":
      return `open ${called(command.id)} in place`;
    case "collapse":
      return `close ${called(command.id)}`;
    case "wrap":
      return `wrap ${several(command.ids)} into ${called(command.id)}`;
    case "unwrap":
      return `dissolve ${called(command.id)}`;
    case "callInstead":
      return `take ${several(command.ids)} out into a process`;
    case "setDataState":
      return command.state
        ? `say that ${called(command.id)} is ${command.state}`
        : `take the state off ${called(command.id)}`;
    case "setMultiplicity":
      return command.isMultiple ? `make ${called(command.id)} several` : `make ${called(command.id)} one`;
    case "nameReference":
      return `say what ${called(command.id)} is about`;
    case "setCounterparts":
      return `set the counterparts of ${called(command.id)}`;
    case "setAttribute":
      return `set ${command.name} of ${called(command.id)}`;
    case "sayTimer":
      return `set the timer of ${called(command.event)}`;
    case "setRepetitionDetail":
      return `set how often ${called(command.activity)} is done`;
    case "edits":
      return command.label;
  }
}
