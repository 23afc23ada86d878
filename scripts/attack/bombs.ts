import { spawn } from "node:child_process";
import { mkdtempSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import type { Tries } from "./tries";

const head =
  '<?xml version="1.0"?><definitions xmlns="http://www.omg.org/spec/BPMN/20100524/MODEL" targetNamespace="t" id="d">';
const list = (count: number, of: (at: number) => string) => Array.from({ length: count }, (_, at) => of(at)).join("");
const file = (content: string) => `${head}<process id="p">${content}</process></definitions>`;

/** Gateways of a type, each with a flow to each other. */
const joined = (count: number, type: string) =>
  file(
    `<startEvent id="s"/>${list(count, (at) => `<${type} id="g${at}"/>`)}<endEvent id="e"/><sequenceFlow id="fs" sourceRef="s" targetRef="g0"/><sequenceFlow id="fe" sourceRef="g${count - 1}" targetRef="e"/>${list(
      count * count,
      (at) => {
        const [from, to] = [Math.floor(at / count), at % count];
        return from === to ? "" : `<sequenceFlow id="f${at}" sourceRef="g${from}" targetRef="g${to}"/>`;
      },
    )}`,
  );

const files: { readonly [what: string]: () => string } = {
  "100,000 attributes": () => file(`<task id="a" ${list(100_000, (at) => `x${at}="1" `)}/>`),
  "50,000 namespaces": () => file(`<task id="a" ${list(50_000, (at) => `xmlns:n${at}="u" `)}/>`),
  "35 parallel gateways, all joined": () => joined(35, "parallelGateway"),
  "60 parallel gateways, all joined": () => joined(60, "parallelGateway"),
  "60 exclusive gateways, all joined": () => joined(60, "exclusiveGateway"),
  "60 inclusive gateways, all joined": () => joined(60, "inclusiveGateway"),
  "800 pools": () =>
    `${head}<collaboration id="c">${list(800, (at) => `<participant id="q${at}" processRef="p${at}"/>`)}</collaboration>${list(800, (at) => `<process id="p${at}"><task id="t${at}"/></process>`)}</definitions>`,
  "4,000 lanes": () =>
    file(
      `<laneSet id="l">${list(4_000, (at) => `<lane id="l${at}"><flowNodeRef>t${at}</flowNodeRef></lane>`)}</laneSet>${list(4_000, (at) => `<task id="t${at}"/>`)}`,
    ),
  "1,000 equal ids": () => file(list(1_000, () => '<task id="same" name="x"/>')),
  "a chain of 4,000 steps": () =>
    file(
      `${list(4_000, (at) => `<task id="t${at}" name="Check part ${at}"/>`)}${list(3_999, (at) => `<sequenceFlow id="f${at}" sourceRef="t${at}" targetRef="t${at + 1}"/>`)}`,
    ),
  "a condition of ten thousand million steps": () =>
    file(
      '<startEvent id="s"/><exclusiveGateway id="x"/><endEvent id="e"/><endEvent id="o"/><sequenceFlow id="f" sourceRef="s" targetRef="x"/><sequenceFlow id="g" sourceRef="x" targetRef="e"><conditionExpression>count(for i in 1..100000, j in 1..100000 return i) &gt; 3</conditionExpression></sequenceFlow><sequenceFlow id="h" sourceRef="x" targetRef="o"/>',
    ),
  "256 levels and more": () => file(`${"<subProcess>".repeat(300)}${"</subProcess>".repeat(300)}`),
  "a document type": () => `<!DOCTYPE d [<!ENTITY a "x">]>${file("")}`,
};

/** The verbs each file is given to. */
const verbs = [
  ["check", "FILE", "--json"],
  ["convert", "FILE", "OUT.bpmn", "--draw"],
  ["walk", "FILE", "--data", "a=1"],
];
const mostSeconds = 90;

/** Small files made to keep everybody waiting: each ends in time, or is refused with one line. */
export async function bombs(): Promise<Tries> {
  const folder = mkdtempSync(join(tmpdir(), "lane-bombs-"));
  const failures: string[] = [];
  let tries = 0;
  const lane = async (what: string, args: readonly string[]) => {
    tries++;
    const { code, error, seconds } = await run(["scripts/lane.mjs", ...args]);
    if (code === null) failures.push(`${what}, ${args[0]}: not done after ${mostSeconds} s`);
    else if (![0, 1, 2].includes(code)) failures.push(`${what}, ${args[0]}: exit code ${code}`);
    else if (code === 2 && error.trim().split("\n").length !== 1)
      failures.push(`${what}, ${args[0]}: more than one line`);
    console.log(
      `    ${args[0]?.padEnd(8)} ${what}: ${seconds.toFixed(1)} s${code === 2 ? `, ${error.trim().slice(-110)}` : ""}`,
    );
  };
  for (const [at, [what, make]] of Object.entries(files).entries()) {
    const path = join(folder, `${at}.bpmn`);
    writeFileSync(path, make());
    for (const verb of verbs)
      await lane(
        what,
        verb.map((word) => (word === "FILE" ? path : word === "OUT.bpmn" ? join(folder, word) : word)),
      );
  }
  const far = join(folder, "far.bpmn");
  writeFileSync(
    far,
    `${head.replace(' id="d"', ' xmlns:di="http://www.omg.org/spec/BPMN/20100524/DI" xmlns:dc="http://www.omg.org/spec/DD/20100524/DC" id="d"')}<process id="p"><task id="a"/><task id="b"/></process><di:BPMNDiagram><di:BPMNPlane bpmnElement="p"><di:BPMNShape bpmnElement="a"><dc:Bounds x="0" y="0" width="100" height="80"/></di:BPMNShape><di:BPMNShape bpmnElement="b"><dc:Bounds x="1000000" y="0" width="100" height="80"/></di:BPMNShape></di:BPMNPlane></di:BPMNDiagram></definitions>`,
  );
  for (const out of ["far.pdf", "far.svg", "far.png"])
    await lane("two steps 1,000,000 apart", ["convert", far, join(folder, out)]);
  await lane("two steps 1,000,000 apart, in sheets", ["convert", far, join(folder, "tiles.pdf"), "--tile"]);
  const text = join(folder, "long.txt");
  writeFileSync(text, "the front desk checks and the crew plans while billing sends ".repeat(1_700));
  await lane("104 kB without a full stop", ["brief", text, "--json"]);
  writeFileSync(text, "When a household applies, the clerk checks it. If it is wrong, he rejects it. ".repeat(1_300));
  await lane("2,600 sentences in a row", ["brief", text, join(folder, "told.bpmn"), "--json"]);
  return { what: "small inputs that could stop everybody", tries, failures };
}

function run(args: readonly string[]): Promise<{ code: number | null; error: string; seconds: number }> {
  return new Promise((resolve) => {
    const started = performance.now();
    const child = spawn(process.execPath, ["--max-old-space-size=2048", ...args], {
      stdio: ["ignore", "ignore", "pipe"],
    });
    let error = "";
    let isLate = false;
    child.stderr.on("data", (chunk: Buffer) => {
      error = `${error}${chunk.toString()}`.slice(-4_000);
    });
    const timer = setTimeout(() => {
      isLate = true;
      child.kill("SIGKILL");
    }, mostSeconds * 1000);
    child.on("exit", (code) => {
      clearTimeout(timer);
      resolve({ code: isLate ? null : (code ?? 139), error, seconds: (performance.now() - started) / 1000 });
    });
  });
}
