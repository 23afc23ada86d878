import { compareModels, changeGroups, startToBe } from "@/core/compare";
import { smallModel, performAll } from "@/core/testing/models";
const d="page";
const cases: [string, any[]][] = [
 ["lane", [{ type: "moveToNeighbourLane", diagram:d, ids: ["approve"], direction: "down" }]],
 ["insert", [{ type: "insertOnFlow", diagram:d, flow: "f2", id: "x", after:"fx", newFlow: "fx", kind: { type: "userTask" }, name: "Book visit" }]],
 ["append", [{ type: "append", diagram:d, from: "approve", id: "x", flow: "fx", kind: { type: "userTask" }, name: "Book visit" }]],
 ["delete", [{ type: "delete", ids: ["check"], diagram:d }]],
 ["rename", [{ type: "rename", id: "check", name: "Look at the application" }]],
 ["connect", [{ type: "connect", diagram:d, id: "back", source: "reject", target: "check" }]],
];
for (const [what, commands] of cases) {
  const from = smallModel();
  try {
  const to = performAll(startToBe(from), ...commands);
  const c = compareModels(from, to);
  console.log("==", what); for (const g of changeGroups(from, to, c)) console.log(g.key, "|", g.kind, "|", g.words, "|", g.changes.length);
  } catch (e) { console.log(what, String(e)); }
}
