/** Edits a version without end and says on standard output what was acknowledged, until somebody kills it. */
import { nanoid } from "nanoid";
import { localMember, runUseCase, useCases, workspaceReady } from "@/server";

await workspaceReady();
const run = <Output>(name: keyof typeof useCases, input: unknown) =>
  runUseCase(localMember, useCases[name] as never, input) as Promise<Output>;
await run("createArea", { id: "area", name: "Area", parent: null });
await run("createProcess", { name: "Edited", area: "area", processId: "edited", versionId: "edited-as-is" });
const { model } = await run<{ model: { diagrams: { id: string }[] } }>("openVersion", { version: "edited-as-is" });
const diagram = model.diagrams[0]?.id ?? "";
let base = 0;
for (let at = 0; ; at++) {
  const id = `task-${at}`;
  const answer = await run<{ sequence: number }>("applyCommands", {
    version: "edited-as-is",
    batch: nanoid(),
    base,
    commands: [{ type: "place", diagram, id, kind: { type: "task" }, at: { x: 100 + at * 10, y: 100 }, name: id }],
  });
  base = answer.sequence;
  process.stdout.write(`${id}\n`);
}
