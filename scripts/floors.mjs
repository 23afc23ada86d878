/**
 * Imports run downwards on every floor: a folder imports only what the table below lets it, from its floor up. `npm run check` and
 * `npm test` fail where one does not. Tests may look anywhere.
 */
import { readdirSync, readFileSync } from "node:fs";
import { dirname, join, normalize, relative, sep } from "node:path";
import { root } from "./root.mjs";

/** Within a folder: its parts, each with what it may import. A part that is not named is a fault, so that each new one gets a place. */
const floors = {
  src: {
    core: [],
    contract: ["core"],
    jobs: ["core"],
    data: ["contract", "core"],
    demo: ["core"],
    server: ["contract", "jobs", "data", "demo", "core"],
    ui: ["contract", "jobs", "core"],
    cli: ["server", "data", "jobs", "core"],
    app: ["ui", "server", "contract", "core"],
    "proxy.ts": ["server"],
    "instrumentation.ts": ["server"],
  },
  "src/ui": {
    messages: [],
    kernel: ["messages"],
    controls: ["kernel", "messages"],
    version: ["controls", "kernel", "messages"],
    canvas: ["version", "controls", "kernel", "messages"],
    shell: ["version", "controls", "kernel", "messages"],
    stages: ["canvas", "shell", "version", "controls", "kernel", "messages"],
    home: ["stages", "canvas", "shell", "version", "controls", "kernel", "messages"],
    directory: ["shell", "controls", "kernel", "messages"],
    decisions: ["canvas", "shell", "controls", "kernel", "messages"],
    find: ["shell", "controls", "kernel", "messages"],
    work: ["version", "shell", "controls", "kernel", "messages"],
    members: ["shell", "controls", "kernel", "messages"],
    gallery: ["canvas", "shell", "controls", "kernel", "messages"],
    testing: [],
  },
  // No stage imports another; what they stand in imports them.
  "src/ui/stages": {
    "stage.ts": [],
    brief: [],
    steps: [],
    diagram: [],
    check: [],
    walk: [],
    forecast: [],
    compare: [],
    handoff: [],
    live: [],
    "SignIcon.tsx": ["stage.ts"],
    "register.ts": ["stage.ts"],
    "Journey.tsx": ["register.ts", "SignIcon.tsx"],
    "StageView.tsx": [
      "register.ts",
      "brief",
      "steps",
      "diagram",
      "check",
      "walk",
      "forecast",
      "compare",
      "handoff",
      "live",
    ],
    frame: [],
    "Others.tsx": ["register.ts", "stage.ts"],
    "VersionShell.tsx": ["register.ts", "stage.ts", "Journey.tsx", "Others.tsx", "frame"],
  },
  "src/server": {
    kernel: [],
    members: ["kernel"],
    check: ["kernel", "walk"],
    walk: ["kernel"],
    version: ["kernel", "home"],
    comments: ["kernel"],
    review: ["kernel"],
    lenses: ["kernel", "live", "walk"],
    presence: ["kernel"],
    links: ["kernel", "comments", "files", "handbook", "lenses"],
    digest: ["kernel", "comments", "live", "review"],
    compare: ["kernel"],
    handoff: ["kernel", "check", "review", "walk"],
    home: ["kernel", "check", "comments", "handoff", "review", "walk"],
    brief: ["kernel", "directory", "version", "home"],
    directory: ["kernel"],
    decisions: ["kernel"],
    evidence: ["kernel", "handoff", "walk"],
    handbook: ["kernel", "check", "comments", "handoff", "lenses", "review", "walk"],
    live: ["kernel", "members", "check", "handoff", "walk"],
    files: ["kernel", "compare", "directory", "home", "handoff", "lenses"],
    find: ["kernel"],
    workspace: [
      "kernel",
      "lenses",
      "members",
      "brief",
      "check",
      "compare",
      "decisions",
      "directory",
      "evidence",
      "handoff",
      "home",
      "live",
      "version",
      "walk",
    ],
    testing: ["kernel", "home", "workspace", "index.ts"],
    "index.ts": "all",
  },
  "src/core": {
    messages: [],
    model: ["messages"],
    xml: [],
    table: ["messages", "model"],
    feel: ["messages"],
    lettering: [],
    scenario: ["messages", "model"],
    directory: ["messages", "model"],
    layout: ["model"],
    drawing: ["messages", "model", "xml"],
    bpmn: ["messages", "model", "scenario", "xml"],
    tokens: ["messages", "decisions", "feel", "model"],
    directoryFile: ["messages", "directory", "model", "table"],
    commands: ["messages", "directory", "drawing", "feel", "layout", "model", "scenario", "services"],
    data: ["messages", "feel", "model", "table"],
    clipboard: ["messages", "bpmn", "commands", "model"],
    capture: ["messages", "commands", "directory", "model", "scenario", "table"],
    landscape: ["messages", "directory", "model"],
    brief: ["messages", "capture", "commands", "directory", "model"],
    forecast: ["messages", "check", "directory", "feel", "model", "scenario", "tokens"],
    check: ["messages", "commands", "data", "directory", "feel", "model", "tokens"],
    lens: ["messages", "directory", "drawing", "feel", "model", "scenario"],
    language: ["messages", "check", "model"],
    compare: ["messages", "check", "commands", "data", "directory", "model", "table"],
    merge: ["messages", "compare", "model"],
    descriptions: ["messages", "bpmn", "model"],
    decisions: ["messages", "bpmn", "descriptions", "drawing", "feel", "model", "xml"],
    services: ["messages", "descriptions", "directory", "drawing", "model", "scenario"],
    sequence: ["messages", "directory", "drawing", "model", "services", "tokens"],
    handoff: [
      "messages",
      "bpmn",
      "check",
      "data",
      "decisions",
      "descriptions",
      "directory",
      "drawing",
      "forecast",
      "language",
      "merge",
      "model",
      "scenario",
      "services",
      "table",
      "xml",
    ],
    live: [
      "messages",
      "check",
      "data",
      "decisions",
      "directory",
      "feel",
      "forecast",
      "model",
      "scenario",
      "table",
      "tokens",
      "xml",
    ],
    evidence: [
      "messages",
      "booklet",
      "bpmn",
      "check",
      "commands",
      "directory",
      "drawing",
      "forecast",
      "live",
      "model",
      "scenario",
      "table",
      "tokens",
      "xml",
    ],
    booklet: ["drawing", "model"],
    handbook: [
      "messages",
      "booklet",
      "capture",
      "commands",
      "data",
      "decisions",
      "directory",
      "drawing",
      "forecast",
      "model",
      "scenario",
      "services",
      "lens",
    ],
    testing: "all",
  },
};

const faults = [];
const isTest = (path) => /\.test\.tsx?$/.test(path) || path.split(sep).includes("testing");
const filesIn = (path) =>
  readdirSync(path, { withFileTypes: true }).flatMap((one) => {
    const inside = join(path, one.name);
    return one.isDirectory() ? filesIn(inside) : /\.tsx?$/.test(one.name) ? [inside] : [];
  });

/** The part of a floor that a path belongs to. */
function partOf(floor, parts, path) {
  const inside = relative(join(root, floor), path);
  if (inside.startsWith("..")) return undefined;
  const [first] = inside.split(sep);
  return first in parts ? first : [".ts", ".tsx", "/index.ts"].map((end) => first + end).find((name) => name in parts);
}

for (const [floor, parts] of Object.entries(floors)) {
  for (const file of filesIn(join(root, floor))) {
    if (isTest(file)) continue;
    const from = partOf(floor, parts, file);
    if (from === undefined) {
      faults.push(`${relative(root, file)}: this part of ${floor} has no floor yet; give it one in scripts/floors.mjs`);
      continue;
    }
    if (parts[from] === "all") continue;
    for (const [, spec] of readFileSync(file, "utf8").matchAll(/(?:from|import\()\s*"((?:\.|@\/)[^"]*)"/g)) {
      const target = spec.startsWith("@/") ? join(root, "src", spec.slice(2)) : normalize(join(dirname(file), spec));
      const to = partOf(floor, parts, target);
      if (to === undefined || to === from || parts[from].includes(to)) continue;
      faults.push(`${relative(root, file)} imports ${spec}: ${floor}/${from} stands below, or beside, ${floor}/${to}`);
    }
  }
}
for (const fault of faults) console.error(fault);
if (faults.length > 0) {
  console.error(`\n${faults.length} imports run upwards. Move what both need down, or give the folder its floor.`);
  process.exit(1);
}
