/** Sends a text from standard input to a developers' place and says on standard output what came of it. */
import { readFileSync } from "node:fs";
import { folderPlace } from "@/server/handoff/folderPlace";
import { gitPlace } from "@/server/handoff/gitPlace";

const [kind = "", where = "", mirror = ""] = process.argv.slice(2);
const place = kind === "git" ? gitPlace(where, mirror) : folderPlace(where);
const spot = { path: "connect.bpmn", branch: kind === "git" ? "main" : "" };
const bytes = new Uint8Array(readFileSync(0));
const { mark } = await place.read(spot);
const answer = await place.write(spot, { bytes, mark, message: "a change", author: "Mara Aldous" }).then(
  (now) => ({ mark: now }),
  ({ code, message }: { code: string; message: string }) => ({ code, message }),
);
process.stdout.write(JSON.stringify(answer));
