/** The `lane` command: core, from a shell. It needs no database and no server. */
import { EXIT, UnusableInput } from "./input";

const verbs: {
  readonly [verb: string]: {
    readonly usage: string;
    /** What it is for, in a sentence or two. */
    readonly does: string;
    readonly load: () => Promise<(args: readonly string[], json: boolean) => number | Promise<number>>;
  };
} = {
  check: {
    usage: "lane check FILE.bpmn…",
    does: "Says what is wrong with models, and whether a case can get stuck, go on for ever or run a step twice. Exit code 1 where there is an error.",
    load: async () => (await import("./check")).check,
  },
  convert: {
    usage:
      "lane convert IN OUT   (.bpmn, .csv, .json, .svg, .png, .pdf) [--draw] [--tidy] [--page N] [--scale 1..4] [--paper A4|A3] [--tile] [--no-legend]",
    does: "Reads a model and writes it by the ending of the second file: BPMN, step sheet, own model, picture or paper. --draw draws what has no diagram yet, --tidy lays every page out anew.",
    load: async () => (await import("./convert")).convert,
  },
  compare: {
    usage: "lane compare A.bpmn B.bpmn [--match counterpart|id|name]",
    does: "Says what differs between two models, element by element.",
    load: async () => (await import("./compare")).compare,
  },
  walk: {
    usage:
      "lane walk FILE.bpmn [--start EVENT] [--choose GATEWAY=FLOW[+FLOW]]… [--fire BOUNDARY]… [--times ACTIVITY=N]… [--data NAME=VALUE]… [--decisions FILE.dmn]… [--together]",
    does: "Plays one case with tokens. Exit code 1 where it gets stuck or is stopped.",
    load: async () => (await import("./walk")).walk,
  },
  forecast: {
    usage:
      "lane forecast FILE.bpmn [--scenario NAME] [--cases N] [--seed S] [--replications R] [--compare OTHER.bpmn] [--vary INPUT=FROM..TO:STEP] [--decisions FILE.dmn]…",
    does: "Plays many cases of a scenario that the file holds (BPSim 1.0) and says what they take, wait and cost, and who is busy.",
    load: async () => (await import("./forecast")).forecast,
  },
  run: {
    usage:
      "lane run FILE.bpmn|PACKAGE.zip [--cases N | --data @CASES.json] [--seed S] [--scenario NAME] [--log OUT.xes|OUT.csv]",
    does: "Runs cases of the first process in the stand-in engine: simulated people, services that answer, a clock that jumps to what comes next. Exit code 1 where a case fails or stays open.",
    load: async () => (await import("./run")).run,
  },
  evidence: {
    usage:
      "lane evidence MODEL.bpmn LOG.xes|LOG.csv [--apply N OUT.bpmn] [--scenario OUT.bpmn] [--report OUT.pdf|OUT.docx|OUT.html|OUT.md]   (a log may be packed as .gz)\n       lane evidence LOG.xes|LOG.csv --discover OUT.bpmn [--noise SHARE]",
    does: "Holds an event log against the model: how well it fits, and what differs, in sentences with the share of traces. With --apply the N-th difference is repaired in a copy of the model; with --scenario the model is written with what the log says of times, arrivals and ways; with --report what it says is written to be read and filed; with --discover a model is made of the log alone.",
    load: async () => (await import("./evidence")).evidence,
  },
  handbook: {
    usage: "lane handbook FILE.bpmn OUT.pdf|OUT.docx|OUT.html|OUT.md [--language LANG]",
    does: "Writes the documentation of a model: every flow node with its number, who does it with what, how it goes on and how it is done; the diagram, roles, systems, documents. With --language in a language that texts of the model are kept in.",
    load: async () => (await import("./handbook")).handbook,
  },
  brief: {
    usage: "lane brief TEXT.txt [OUT.bpmn]   (or .md; marks in brackets, as [role: the front desk], are kept)",
    does: "Reads a description, says what it tells of and leaves open, and writes the processes it would become.",
    load: async () => (await import("./brief")).brief,
  },
  verify: {
    usage: "lane verify PACKAGE.zip",
    does: "Says whether a copy of a package is whole: each part as it was handed off. Exit code 1 where it is not.",
    load: async () => (await import("./verify")).verify,
  },
  services: {
    usage:
      "lane services FILE | MODEL.bpmn --bind TASK=DESCRIPTION#OPERATION… OUT.bpmn | MODEL.bpmn --export CANDIDATE OUT.json",
    does: "Reads an OpenAPI or WSDL description; or says which services a model could have and is bound to, binds its tasks to operations, and writes a candidate as an OpenAPI skeleton.",
    load: async () => (await import("./services")).services,
  },
  decide: {
    usage: "lane decide FILE.dmn [--decision ID|NAME] --data JSON|@FILE.json | --check",
    does: "Decides by a DMN 1.3 to 1.5 file on data, or proves its tables: gaps, overlaps, rules that are never come to. Exit code 1 where the data breaks something, or a table has a gap.",
    load: async () => (await import("./decide")).decide,
  },
  sync: {
    usage: "lane sync MODEL.bpmn BUILD.bpmn --base LAST.bpmn OUT.bpmn",
    does: "Says whether a model or its developers' copy changed since the last sync, and writes the copy's own text with only what changed. Exit code 1 where both changed the same thing.",
    load: async () => (await import("./sync")).sync,
  },
  merge: {
    usage: "lane merge BASE.bpmn OURS.bpmn THEIRS.bpmn OUT.bpmn",
    does: "Merges two models that come from a third. Exit code 1 where both changed the same thing.",
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
const isHelp = (word: string) => word === "--help" || word === "-h";
const names = Object.keys(verbs).join(", ");

if (isHelp(verb) || verb === "help") {
  const list = Object.entries(verbs).map(
    ([name, { usage, does }]) => `  ${name.padEnd(9)}${does}\n           ${usage}`,
  );
  process.stdout.write(
    `lane: process models from the shell, without a server.\n\n${list.join("\n")}\n\nAdd --json for one JSON document on standard output. Exit code 0: done; 1: done, and the answer is no; 2: unusable input.\n`,
  );
} else if (!known) {
  const told = verb ? `there is no verb "${verb}"` : "a verb is needed";
  process.stderr.write(`lane: ${told}; there are ${names} (lane --help says more)\n`);
  process.exitCode = EXIT.unusable;
} else if (args.some(isHelp)) {
  process.stdout.write(`${known.usage}\n\n${known.does}\n`);
} else {
  try {
    const run = await known.load();
    process.exitCode = await run(args, json);
  } catch (error) {
    if (!(error instanceof UnusableInput)) throw error;
    process.stderr.write(`lane: ${error.message.replace(/\s+/g, " ")}\n`);
    process.exitCode = EXIT.unusable;
  }
}
