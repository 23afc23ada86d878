import { directory } from "@/contract";
import type { ListedEntry } from "@/contract/directory";
import type { Command } from "@/core/commands";
import { foldedName, roleOfLane } from "@/core/directory";
import { elementsOfType, type Id, type Model, nameOf } from "@/core/model";
import { createEntry, entriesNow } from "../controls/entries";
import { complain, tell } from "../controls/notices";
import { ask } from "../kernel/ask";
import { text } from "../messages";
import type { VersionStore } from "./versionStore";

/** The directory's roles, asked for where they are not known yet. */
async function roles(): Promise<readonly ListedEntry[]> {
  const known = entriesNow();
  const entries = known.length > 0 ? known : (await ask(directory.openDirectory, {})).entries;
  return entries.filter(({ kind }) => kind === "role");
}

const tie = (lane: Id, role: { readonly id: Id; readonly name: string }): Command => ({
  type: "tieLane",
  lane,
  role: { entry: role.id, name: role.name },
});

/** Names an element. A lane that is called like a role stands for it from then on; for another name, making the role is offered. */
export function nameElement(store: VersionStore, id: Id, name: string): void {
  const { model, dispatch } = store.getState();
  const wanted = name.trim();
  if (model.elements.get(id)?.type !== "lane" || wanted === "") return void dispatch({ type: "rename", id, name });
  const known = entriesNow().find((entry) => entry.kind === "role" && foldedName(entry.name) === foldedName(wanted));
  if (known) return void dispatch({ type: "rename", id, name: known.name }, tie(id, known));
  // The lane no longer stands for whom it stood for under its old name.
  if (!dispatch({ type: "rename", id, name }, { type: "tieLane", lane: id, role: null })) return;
  roles()
    .then((all) => {
      const role = all.find((entry) => foldedName(entry.name) === foldedName(wanted));
      if (role) return store.getState().amend(tie(id, role));
      tell({
        description: text.diagram.noSuchRole(wanted),
        duration: 12_000,
        action: { label: text.diagram.makeRole, onClick: () => makeRoles(store, [id]) },
      });
      return undefined;
    })
    .catch(complain);
}

/** Lanes that are called something and stand for no role of the directory. */
export function lanesWithoutRole(model: Model): readonly Id[] {
  return elementsOfType(model, "lane").flatMap((lane) =>
    nameOf(model, lane.id) !== "" && roleOfLane(model, lane)?.entry === undefined ? [lane.id] : [],
  );
}

/** Makes roles of lanes, or finds those that are there under the same name, and ties the lanes to them: one step to undo. */
function makeRoles(store: VersionStore, lanes: readonly Id[]): void {
  const make = async () => {
    const ties: Command[] = [];
    for (const lane of lanes) {
      const name = nameOf(store.getState().model, lane);
      if (name) ties.push(tie(lane, await createEntry("role", name)));
    }
    if (ties.length > 0) store.getState().dispatch(...ties);
  };
  make().catch(complain);
}

const askedKey = (version: string) => `lucid-lane.laneRoles.${version}`;

/** Asks once, when a version is opened, whether the lanes that came with it are to be roles of the directory. */
export function offerRoles(store: VersionStore): void {
  const { model, info } = store.getState();
  const lanes = lanesWithoutRole(model);
  if (lanes.length === 0 || localStorage.getItem(askedKey(info.version.id)) !== null) return;
  localStorage.setItem(askedKey(info.version.id), "asked");
  tell({
    description: text.diagram.lanesWithoutRole(lanes.map((lane) => nameOf(model, lane))),
    duration: 60_000,
    action: { label: text.diagram.makeRoles(lanes.length), onClick: () => makeRoles(store, lanes) },
  });
}
