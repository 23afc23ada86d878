import type { BriefContent } from "@/core/brief";
import type { Command } from "@/core/commands";
import { changeGroups, compareModels, type Reason } from "@/core/compare";
import type { Description } from "@/core/descriptions";
import type { EventLog } from "@/core/evidence";
import type { Lens } from "@/core/lens";
import type { Model } from "@/core/model";
import { suggestWalks, testOf, type WalkTest, walk } from "@/core/tokens";
import { demoBrief, tieToBrief } from "./brief";
import { assumeInspections, drawInspectionChoice, inspectionDecisions, inspectionFile } from "./decisions";
import { demoDirectory } from "./directory";
import type { Drawing } from "./drawing";
import { demoLog, otherName } from "./log";
import { drawMeterExchange } from "./meterExchange";
import { assumeConnection, assumeImproved } from "./scenarios";
import { bindReadings, keepLanes, mapReadings, meterPlatform, meterPlatformFile, weighLanes } from "./services";
import { drawComplaint, drawMeterReading, drawSwitchOn } from "./smallProcesses";
import { drawSolarConnection } from "./solarConnection";
import { improveConnection, reasonsFor } from "./solarToBe";

/** The use cases the demo is made through; the server hands them in, so that the demo is made as a person's work is. */
export interface DemoHand {
  readonly createArea: (input: { id: string; name: string; parent: string | null }) => Promise<unknown>;
  readonly createEntry: (input: (typeof demoDirectory)[number]) => Promise<unknown>;
  readonly createProcess: (input: {
    name: string;
    area: string;
    processId: string;
    versionId: string;
    bpmnId: string;
  }) => Promise<unknown>;
  readonly openModel: (version: string) => Promise<Model>;
  readonly applyCommands: (version: string, commands: readonly Command[], label: string) => Promise<unknown>;
  readonly saveBrief: (input: {
    process: string;
    brief: string;
    base: number;
    content: BriefContent;
  }) => Promise<unknown>;
  /** Further processes that one description tells of. */
  readonly shareBrief: (processes: readonly string[], brief: string) => Promise<unknown>;
  readonly nameRevision: (input: { version: string; reason: string }) => Promise<unknown>;
  readonly createToBe: (input: { source: string; name: string; aim: string; versionId: string }) => Promise<unknown>;
  readonly giveReason: (input: {
    version: string;
    against: string;
    change: string;
    words: string;
    reason: Reason;
  }) => Promise<unknown>;
  readonly importDescription: (input: { name: string; text: string }) => Promise<Description>;
  readonly saveLens: (input: { id: string; lens: Lens; revision: number }) => Promise<unknown>;
  readonly setMember: (input: { id: string; name: string; roles: readonly string[] }) => Promise<unknown>;
  /** Starts a process up, and lets simulated people work it for some days. */
  readonly startRun: (input: { version: string; run: string; name: string; pace: number }) => Promise<unknown>;
  readonly runStaff: (input: { version: string; run: string; days: number; most: number }) => Promise<unknown>;
  /** Keeps a log with the process, with what its activities are. */
  readonly keepLog: (input: {
    version: string;
    log: string;
    name: string;
    content: EventLog;
    steps: { readonly [activity: string]: readonly string[] };
  }) => Promise<unknown>;
  /** The version is kept in step with a file of the demo's developers. */
  readonly tieBuildCopy: (input: { version: string; branch: string; path: string }) => Promise<unknown>;
  readonly createDecisionFile: (input: { id: string; name: string; content: string }) => Promise<unknown>;
  readonly keepWalkTests: (input: {
    version: string;
    tests: { name: string; content: WalkTest }[];
  }) => Promise<unknown>;
}

/** Made-up colleagues, each with a role. */
/** Two hours in which nothing happens. */
const waitsLong: Lens = {
  name: "Waits over two hours",
  which: "all",
  conditions: [
    { field: "kind", test: "is", value: "step" },
    { field: "waits", test: "more", value: 7200 },
  ],
  feel: "",
  pen: "brick",
  line: "dashed",
  sign: "clock",
};

const demoMembers = [
  ["member-desk", "Tilda Quist", "role-front-desk"],
  ["member-engineer", "Oran Veltri", "role-network-engineer"],
  ["member-crew", "Pia Sund", "role-field-crew"],
] as const;

const complaintWalks = ["Not justified, accepted at once", "Justified; the answer is explained by telephone"];

/** Builds the demo workspace: Quillmere Power Cooperative, which is made up. */
export async function buildDemo(hand: DemoHand): Promise<void> {
  for (const entry of demoDirectory) await hand.createEntry(entry);
  await hand.createArea({ id: "area-connections", name: "Connections", parent: null });
  await hand.createArea({ id: "area-on-site", name: "On site", parent: "area-connections" });
  await hand.createArea({ id: "area-accounts", name: "Accounts", parent: null });

  const draw = async (
    key: string,
    name: string,
    area: string,
    bpmnId: string,
    make: (start: Model, diagram: string) => Drawing,
  ) => {
    const version = `${key}-as-is`;
    await hand.createProcess({ name, area, processId: key, versionId: version, bpmnId });
    const start = await hand.openModel(version);
    const page = [...start.diagrams][0]?.id as string;
    const drawing = make(start, page);
    await hand.applyCommands(version, [...drawing.commands, ...tieToBrief(key)], `draw ${name}`);
    await hand.nameRevision({ version, reason: "first draft" });
    return { version, page };
  };
  await draw("switch-on", "Switch on and verify", "area-on-site", "switch-on-and-verify", drawSwitchOn);
  const connection = await draw(
    "solar-connection",
    "Rooftop solar connection",
    "area-connections",
    "rooftop-solar-connection",
    (start, page) => drawSolarConnection(start, page, "switch-on-and-verify"),
  );
  const assumed = assumeConnection(await hand.openModel(connection.version), connection.page);
  await hand.applyCommands(connection.version, assumed.commands, "say what a normal year and a spring rush are like");
  await hand.keepLog({
    version: connection.version,
    log: "log-case-register",
    name: "Case register, first half of 2027",
    content: demoLog(await hand.openModel(connection.version), "rooftop-solar-connection"),
    // The register has a name of its own for it.
    steps: { [otherName]: ["book-visit"] },
  });
  await draw("meter-reading", "Nightly meter reading", "area-accounts", "nightly-meter-reading", drawMeterReading);
  const described = await hand.importDescription({ name: meterPlatformFile, text: meterPlatform });
  await hand.applyCommands(
    "meter-reading-as-is",
    [...bindReadings(described), ...mapReadings],
    "bind steps to the meter platform",
  );
  await draw("complaint", "Complaint about a bill", "area-accounts", "complaint-about-a-bill", drawComplaint);

  await hand.createDecisionFile({ id: inspectionFile, name: "Inspections", content: inspectionDecisions() });
  const inspection = await draw(
    "plant-inspection",
    "Inspection of a new plant",
    "area-on-site",
    "inspection-of-a-new-plant",
    drawInspectionChoice,
  );
  const plants = assumeInspections(await hand.openModel(inspection.version), inspection.page);
  await hand.applyCommands(inspection.version, plants.commands, "say which plants are reported, and how long it takes");
  await draw("meter-exchange", "Meter exchange", "area-on-site", "meter-exchange", drawMeterExchange);
  await hand.tieBuildCopy({ version: "switch-on-as-is", branch: "lane/switch-on", path: "processes/switch-on.bpmn" });
  await hand.saveLens({ id: "lens-waits", lens: waitsLong, revision: 0 });
  for (const [id, name, role] of demoMembers) await hand.setMember({ id, name, roles: [role] });
  await hand.startRun({ version: inspection.version, run: "run-inspections", name: "Trial in spring", pace: 1 });
  await hand.runStaff({ version: inspection.version, run: "run-inspections", days: 44, most: 300 });
  // A complaint that is justified, and one whose answer is not accepted at first.
  const complaint = await hand.openModel("complaint-as-is");
  const walks = suggestWalks(complaint, "complaint-about-a-bill").walks;
  await hand.keepWalkTests({
    version: "complaint-as-is",
    tests: walks.map(({ choices }, at) => ({
      name: complaintWalks[at] ?? `Walk ${at + 1}`,
      content: testOf(
        { model: complaint },
        "complaint-about-a-bill",
        walk(complaint, "complaint-about-a-bill", choices),
        true,
      ),
    })),
  });

  const brief = "brief-solar-plants";
  await hand.saveBrief({ process: "solar-connection", brief, base: 0, content: demoBrief });
  await hand.shareBrief(["switch-on", "meter-reading"], brief);

  const toBe = "solar-connection-to-be";
  await hand.createToBe({
    source: connection.version,
    name: "To-be: checks at once",
    aim: "A household's plant is connected two weeks sooner, and nobody copies a figure by hand.",
    versionId: toBe,
  });
  await hand.applyCommands(
    toBe,
    improveConnection(await hand.openModel(toBe), connection.page).commands,
    "check both at once and let the household choose",
  );
  await hand.applyCommands(
    toBe,
    assumeImproved(await hand.openModel(toBe), connection.page).commands,
    "say what the new steps take",
  );
  await hand.applyCommands(toBe, keepLanes(await hand.openModel(toBe)), "keep candidate services");
  await hand.applyCommands(toBe, weighLanes(await hand.openModel(toBe)), "weigh candidate services");
  const [before, after] = [await hand.openModel(connection.version), await hand.openModel(toBe)];
  for (const reason of reasonsFor(changeGroups(before, after, compareModels(before, after))))
    await hand.giveReason({ version: toBe, against: connection.version, ...reason });
  await hand.nameRevision({ version: toBe, reason: "first proposal" });
}
