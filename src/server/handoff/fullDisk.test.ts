import { execFileSync } from "node:child_process";
import { randomBytes } from "node:crypto";
import { mkdirSync, mkdtempSync, readdirSync, readFileSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { describe, expect, test } from "vitest";
import { programOf } from "../testing/peers";

/**
 * A disk that takes no more than so much of one file, as a full one does in the middle of writing: the system's limit on the size of
 * files, which it keeps for this program and for all it starts.
 */
const blocks = 64;

describe.each(["folder", "git"] as const)("a sending to a %s for which there is no room", (kind) => {
  const around = mkdtempSync(join(tmpdir(), "lane-full-"));
  const [folder, repository, mirror] = [join(around, "shared"), join(around, "repository.git"), join(around, "mirror")];
  mkdirSync(folder);
  const git = (...args: string[]) => execFileSync("git", ["-C", repository, ...args], { encoding: "utf8" });
  const where = kind === "git" ? repository : folder;
  const file = () =>
    kind === "git" ? git("show", "main:connect.bpmn") : readFileSync(join(folder, "connect.bpmn"), "utf8");
  const send = (text: string, limit = "") => {
    const program = [process.execPath, ...programOf("sendOnce"), kind, where, mirror].map((word) => `'${word}'`);
    const answer = execFileSync("bash", ["-c", `${limit} exec ${program.join(" ")}`], {
      input: text,
      stdio: ["pipe", "pipe", "ignore"],
      env: { ...process.env, TSX_DISABLE_CACHE: "1" },
    });
    return JSON.parse(answer.toString()) as { mark?: string; code?: string; message?: string };
  };

  test("it is told, the file stays whole as it was, nothing is left beside it, and with room again it goes", () => {
    if (kind === "git") execFileSync("git", ["init", "--quiet", "--bare", "--initial-branch=main", repository]);
    else writeFileSync(join(folder, "connect.bpmn"), "");
    expect(send("as it was").mark).toBeTruthy();
    // What cannot be packed into less: more than there is room for, however it is kept.
    const large = randomBytes(400_000).toString("base64");
    const refused = send(large, `ulimit -f ${blocks};`);
    expect(refused).toMatchObject({
      code: "not-written",
      message: expect.stringMatching(/could not|Nothing was pushed/),
    });
    expect(file()).toBe("as it was");
    if (kind === "git") git("fsck", "--strict");
    else expect(readdirSync(folder)).toEqual(["connect.bpmn"]);
    expect(send(large).mark).toBeTruthy();
    expect(file()).toBe(large);
  }, 60_000);
});
