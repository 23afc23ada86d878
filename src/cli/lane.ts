/** The `lane` command: core, from a shell. It needs no database and no server. */
import { EXIT, UnusableInput } from "./input";

const verbs: {
  readonly [verb: string]: {
    readonly usage: string;
    readonly load: () => Promise<(args: readonly string[], json: boolean) => number | Promise<number>>;
  };
} = {
  check: { usage: "lane check FILE.bpmn…", load: async () => (await import("./check")).check },
  convert: {
    usage:
      "lane convert IN OUT   (.bpmn, .csv, .json, .svg, .png, .pdf) [--page N] [--scale 1..4] [--paper A4|A3] [--tile] [--no-legend]",
    load: async () => (await import("./convert")).convert,
  },
  compare: {
    usage: "lane compare A.bpmn B.bpmn [--match counterpart|id|name]",
    load: async () => (await import("./compare")).compare,
  },
  walk: {
    usage:
      "lane walk FILE.bpmn [--start EVENT] [--choose GATEWAY=FLOW[+FLOW]]… [--fire BOUNDARY]… [--times ACTIVITY=N]… [--data NAME=VALUE]… [--together]",
    load: async () => (await import("./walk")).walk,
  },
  brief: {
    usage: "lane brief TEXT.txt   (or .md; marks in brackets, as [role: the front desk], are kept)",
    load: async () => (await import("./brief")).brief,
  },
  merge: {
    usage: "lane merge BASE.bpmn OURS.bpmn THEIRS.bpmn OUT.bpmn",
    load: async () => (await import("./merge")).merge,
  },
};

// A reader that has seen enough (head, less) closes the pipe; that is no error.
process.stdout.on("error", (error: NodeJS.ErrnoException) => {
  if (error.code !== "EPIPE") throw error;
});

const [verb = "", ...rest] = process.argv.slice(2);
const json = rest.includes("--json");
const args = rest.filter((arg) => arg !== "--json");
const known = Object.hasOwn(verbs, verb) ? verbs[verb] : undefined;
if (!known) {
  const list = Object.values(verbs).map(({ usage }) => `  ${usage}`);
  process.stderr.write(
    `${verb ? `lane: there is no verb "${verb}"` : "lane: a verb is needed"}; there are:\n${list.join("\n")}\nAdd --json for one JSON document on standard output.\n`,
  );
  process.exitCode = EXIT.unusable;
} else {
  try {
    const run = await known.load();
    process.exitCode = await run(args, json);
  } catch (error) {
    if (!(error instanceof UnusableInput)) throw error;
    process.stderr.write(`lane: ${error.message}\n`);
    process.exitCode = EXIT.unusable;
  }
}
