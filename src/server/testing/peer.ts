/**
 * Another process of the application, driven over its standard input and output: a line of JSON a question
 * (`{ id, name, input }`), a line an answer (`{ id, output }` or `{ id, code, message, status }`). Bytes travel as `{ base64 }`.
 */
import { createInterface } from "node:readline";
import { fileUseCases, localMember, runUseCase, UseCaseError, useCases, workspaceReady } from "@/server";
import { passTime } from "@/server/live/ticking";

const everything = { ...useCases, ...fileUseCases };
const packed = (value: unknown) =>
  JSON.stringify(value, (_, field) =>
    field instanceof Uint8Array ? { base64: Buffer.from(field).toString("base64") } : field,
  );
const unpacked = (line: string) =>
  JSON.parse(line, (_, field) =>
    field !== null && typeof field === "object" && typeof field.base64 === "string"
      ? new Uint8Array(Buffer.from(field.base64, "base64"))
      : field,
  );
const say = (answer: object) => process.stdout.write(`${packed(answer)}\n`);

workspaceReady().then(
  () => say({ id: "ready" }),
  (error) => say({ id: "ready", code: error.code ?? error.name, message: String(error.message) }),
);
createInterface({ input: process.stdin }).on("line", async (line) => {
  const { id, name, input } = unpacked(line) as { id: string; name: keyof typeof everything; input: unknown };
  try {
    // What a server does twice a second is done when it is asked for, so that a test says when.
    if ((name as string) === "passTime") say({ id, output: await passTime() });
    else say({ id, output: (await runUseCase(localMember, everything[name] as never, input)) ?? null });
  } catch (error) {
    const told = error instanceof UseCaseError ? error : { code: "internal", message: String(error), status: 500 };
    say({ id, code: told.code, message: told.message, status: told.status });
  }
});
