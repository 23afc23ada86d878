import { spawn } from "node:child_process";
import { existsSync } from "node:fs";
import { mkdir, rm } from "node:fs/promises";
import { join } from "node:path";
import { nanoid } from "nanoid";
import { say } from "@/core/messages";
import { UseCaseError } from "../kernel/useCase";
import { mostBytes, moved, type Place, type Spot } from "./place";

const mostMilliseconds = 60_000;

interface GitOptions {
  readonly input?: Uint8Array | string;
  readonly env?: { readonly [name: string]: string };
}

class GitFailed extends Error {
  constructor(readonly said: string) {
    // What it says last is mostly advice; the reason stands where it says error or fatal.
    super(said.split("\n").find((one) => /^(error|fatal|remote):/.test(one)) ?? said.split("\n").pop() ?? "");
  }
}

/**
 * Runs the machine's `git`, without a shell: no question is asked, no hook runs, no setting of a user or the machine counts, and no
 * transport that would run a program is allowed.
 */
function git(folder: string, args: readonly string[], { input, env = {} }: GitOptions = {}): Promise<Buffer> {
  return new Promise((resolve, reject) => {
    const child = spawn(
      "git",
      ["-c", "core.hooksPath=/dev/null", "-c", "protocol.ext.allow=never", "-c", "gc.auto=0", "-C", folder, ...args],
      {
        env: {
          PATH: process.env.PATH ?? "",
          HOME: "/nonexistent",
          GIT_CONFIG_NOSYSTEM: "1",
          GIT_CONFIG_GLOBAL: "/dev/null",
          GIT_TERMINAL_PROMPT: "0",
          GIT_SSH_COMMAND: process.env.GIT_SSH_COMMAND ?? "ssh -oBatchMode=yes",
          LC_ALL: "C",
          ...env,
        } as unknown as NodeJS.ProcessEnv,
        timeout: mostMilliseconds,
        stdio: ["pipe", "pipe", "pipe"],
      },
    );
    const [out, told]: [Buffer[], Buffer[]] = [[], []];
    let size = 0;
    child.stdout.on("data", (part: Buffer) => {
      size += part.length;
      if (size <= mostBytes) out.push(part);
      else child.kill();
    });
    child.stderr.on("data", (part: Buffer) => void told.push(part));
    child.on("error", (error: NodeJS.ErrnoException) =>
      reject(
        error.code === "ENOENT"
          ? new UseCaseError("no-git", "There is no git program on this machine, so no repository can be reached.", 409)
          : error,
      ),
    );
    child.on("close", (code) =>
      code === 0
        ? resolve(Buffer.concat(out))
        : reject(new GitFailed(Buffer.concat(told).toString("utf8").trim() || `git ended with ${code}`)),
    );
    child.stdin.on("error", () => undefined);
    child.stdin.end(input ?? "");
  });
}

const line = async (output: Promise<Buffer>) => (await output).toString("utf8").trim();
const none = "none";

/**
 * A file in a git repository, by plumbing: nothing is checked out, so nothing of a repository is ever run, and a commit is pushed whole
 * or not at all.
 * @param url what the operator allows
 * @param mirror a bare repository of our own, made when it is missing; it holds nothing that the other one has not
 * @param isStandIn whether the other one is made when it is missing, too
 */
export function gitPlace(url: string, mirror: string, isStandIn = false): Place {
  const open = async () => {
    // Begun again where it was cut off: a repository has a HEAD.
    if (isStandIn && !existsSync(join(url, "HEAD"))) {
      await mkdir(url, { recursive: true });
      await git(url, ["init", "--bare", "--quiet", "--initial-branch=main"]);
    }
    await mkdir(mirror, { recursive: true });
    const isOurs = await git(mirror, ["rev-parse", "--is-bare-repository"]).then(
      (answer) => answer.toString().trim() === "true",
      () => false,
    );
    if (!isOurs) await git(mirror, ["init", "--bare", "--quiet"]);
    try {
      await git(mirror, ["fetch", "--quiet", "--prune", "--no-tags", "--", url, "+refs/heads/*:refs/remotes/theirs/*"]);
    } catch (error) {
      if (!(error instanceof GitFailed)) throw error;
      throw new UseCaseError("place-gone", say`The repository ${url} cannot be reached: ${error.message}`, 409);
    }
  };
  const commitOf = (name: string) =>
    line(git(mirror, ["rev-parse", "--verify", "--quiet", `refs/remotes/theirs/${name}^{commit}`])).catch(
      () => undefined,
    );
  /** The branch's commit; where there is no such branch yet, the one it would begin at. */
  const tip = async ({ branch }: Spot): Promise<string | undefined> => {
    const own = await commitOf(branch);
    if (own) return own;
    const head = await line(git(mirror, ["ls-remote", "--symref", "--", url, "HEAD"])).catch(() => "");
    const usual = /^ref: refs\/heads\/(\S+)\s+HEAD$/m.exec(head)?.[1];
    return usual === undefined ? undefined : commitOf(usual);
  };
  const read = async (spot: Spot) => {
    await open();
    const commit = await tip(spot);
    if (!commit) return { bytes: undefined, mark: none };
    const listed = await line(git(mirror, ["ls-tree", commit, "--", spot.path]));
    if (!/^100\d{3} blob /.test(listed)) return { bytes: undefined, mark: commit };
    const bytes = await git(mirror, ["cat-file", "blob", `${commit}:${spot.path}`]);
    return { bytes: new Uint8Array(bytes), mark: commit };
  };
  return {
    read: (spot) =>
      inTurn(mirror, () =>
        read(spot).catch((error: unknown) => {
          if (!(error instanceof GitFailed)) throw error;
          throw new UseCaseError("place-gone", say`${spot.path} cannot be read from ${url}: ${error.message}`, 409);
        }),
      ),
    write: (spot, { bytes, mark, message, author }) =>
      inTurn(mirror, async () => {
        await open();
        const parent = await tip(spot);
        if ((parent ?? none) !== mark) throw moved();
        const index = join(mirror, `index-${nanoid(8)}`);
        const person = { NAME: author, EMAIL: "analyst@lucid-lane.invalid" };
        const env = {
          GIT_INDEX_FILE: index,
          ...Object.fromEntries(
            ["AUTHOR", "COMMITTER"].flatMap((role) => [
              [`GIT_${role}_NAME`, person.NAME],
              [`GIT_${role}_EMAIL`, person.EMAIL],
            ]),
          ),
        };
        try {
          const blob = await line(git(mirror, ["hash-object", "-w", "--stdin"], { input: bytes }));
          if (parent) await git(mirror, ["read-tree", parent], { env });
          await git(mirror, ["update-index", "--add", "--cacheinfo", `100644,${blob},${spot.path}`], { env });
          const tree = await line(git(mirror, ["write-tree"], { env }));
          const parents = parent ? ["-p", parent] : [];
          const commit = await line(git(mirror, ["commit-tree", tree, ...parents], { env, input: message }));
          await git(mirror, ["push", "--quiet", "--", url, `${commit}:refs/heads/${spot.branch}`]).catch(
            (error: unknown) => {
              if (
                error instanceof GitFailed &&
                /reject|fast-forward|stale|fetch first|cannot lock ref/i.test(error.said)
              )
                throw moved();
              throw error;
            },
          );
          return commit;
        } catch (error) {
          if (!(error instanceof GitFailed)) throw error;
          throw new UseCaseError("not-written", say`Nothing was pushed to ${url}: ${error.message}`, 409);
        } finally {
          await rm(index, { force: true });
          await rm(`${index}.lock`, { force: true });
        }
      }),
  };
}

// Routes are bundled apart from each other; what they share stands on the global object.
const shared = globalThis as unknown as { laneMirrors?: Map<string, Promise<unknown>> };

/** One thing at a time in a mirror: two fetches at once would be in each other's way. */
function inTurn<Output>(mirror: string, work: () => Promise<Output>): Promise<Output> {
  shared.laneMirrors ??= new Map();
  const turn = (shared.laneMirrors.get(mirror) ?? Promise.resolve()).then(work, work);
  shared.laneMirrors.set(mirror, turn);
  return turn;
}
