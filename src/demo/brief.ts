import { type BriefContent, emptyBrief, markedText, readBrief } from "@/core/brief";
import type { Command } from "@/core/commands";

/**
 * What the demo's processes were taken from: notes of two interviews. Marks are called after what they became, process and element;
 * some sentences are in no model yet.
 */
const notes = `
# Connecting rooftop solar plants: how it is done today

{aside: Notes of two talks in the front desk's office, with people of the desk, of network planning and of the field crew. They have connected plants this way for six years and would like to be quicker.}

## Rooftop solar connection

When [trigger#solar-connection/application-received: a [party#solar-connection/household: household] sends an application], the [role#solar-connection/lane-front-desk: front desk] [activity#solar-connection/register: registers the [document#solar-connection/register.document-application.paper: connection application]] in the [system#case-register: case register] and gives it a case number. She [activity#scan: scans the paper] and puts it into the case.

The desk then looks whether [decision#solar-connection/complete: the application is complete]. If something is missing, the front desk [activity#solar-connection/request-papers: asks the household for the missing papers] and lists every missing paper in one letter. The household [activity#solar-connection/await-papers: sends the missing papers] [time#solar-connection/papers-late: within ten working days], and the application goes through the register once more. Otherwise [result#solar-connection/lapsed: the application lapses], and the household is told so.

The [role#solar-connection/lane-engineer: network engineer] [activity#solar-connection/check-capacity: checks the capacity of the feeder] in the [system#network-map: network map]. He needs the [document#solar-connection/check-capacity.document-drawing.paper: single-line drawing] for it and writes a [document#solar-connection/check-capacity.document-study.paper: network study note]. Above eighty per cent of the limit he asks for a study. If [decision#solar-connection/capacity: the feeder can take the plant], the engineer [activity#solar-connection/approve: approves the connection design] and signs the [document#solar-connection/approve.document-agreement.paper: connection agreement]. If not, the front desk [activity#solar-connection/reject: explains the rejection to the household] and [result#solar-connection/rejected: the application is rejected].

What is needed on site differs. An old meter cannot count both ways, so the [role#solar-connection/lane-crew: field crew] [activity#solar-connection/change-meter: changes the meter]. A house with a fuse under 35 A gets a larger one: the crew [activity#solar-connection/upgrade-fuse: upgrades the fuse]. Then the front desk [activity#solar-connection/book-visit: books the visit by telephone] in the [system#crew-planner: crew planner]. Often it takes three calls until somebody is at home.

On the day of the visit, the crew [activity#solar-connection/inspect: inspects the plant on site] and leaves a [document#solar-connection/inspect.document-visit-report.paper: visit report]. The crew then [activity#solar-connection/switch-on: switches the plant on]. [role#solar-connection/lane-billing: Billing] [activity#solar-connection/set-tariff: sets the feed-in tariff] in the [system#billing-ledger: billing ledger], and [result#solar-connection/connected: the plant is connected].

## Switch on and verify

As soon as [trigger#switch-on/ready: the [party#installer: installer] reports that the plant is ready], the field crew [activity#switch-on/close-breaker: closes the breaker]. The network engineer [activity#switch-on/watch-feed-in: watches the feed-in] in the [system#meter-platform: meter platform] [time#two-hours: for two hours]. If [decision#switch-on/stable: the voltage is stable], the engineer [activity#switch-on/record-values: records the values] in the case register and [result#switch-on/verified: the plant is verified]. If not, the crew [activity#switch-on/open-breaker: opens the breaker], [activity#switch-on/adjust: adjusts the inverter] and tries again.

The crew says that in summer three of ten plants need a second try. The installer is not told about it.

## Nightly meter reading

[trigger#meter-reading/every-night: Every night at 2:00], [role#meter-reading/lane-billing: billing] [activity#meter-reading/list-meters: lists the meters that are due]. The meter platform [activity#meter-reading/read-meter: reads each meter]. If [decision#meter-reading/gaps: there are gaps in the readings], billing [activity#meter-reading/estimate: estimates the missing values]. Billing then [activity#meter-reading/store: stores the readings] in the billing ledger. In the morning somebody looks at the list of meters that did not answer, when there is time.
`;

const organisation = "Quillmere Power Cooperative";

/** The demo's description, and the processes it was built into. */
export const demoBrief: BriefContent = {
  ...emptyBrief,
  organisation,
  document: markedText(notes),
  frames: ["solar-connection/application-received", "switch-on/ready", "meter-reading/every-night"].map((key) => ({
    key,
    process: key.slice(0, key.indexOf("/")),
  })),
  built: builtMarks(),
};

/** Marks of the text by the trigger whose process they became part of. */
function builtMarks(): BriefContent["built"] {
  const triggers = new Map([
    ["solar-connection", "solar-connection/application-received"],
    ["switch-on", "switch-on/ready"],
    ["meter-reading", "meter-reading/every-night"],
  ]);
  const built: { [frame: string]: string[] } = {};
  for (const { id } of readBrief(markedText(notes)).marks) {
    const trigger = triggers.get(id.split("/")[0] as string);
    if (trigger && id.includes("/")) built[trigger] = [...(built[trigger] ?? []), id];
  }
  return built;
}

/** Ties the elements of a demo process to their words. */
export function tieToBrief(process: string): Command[] {
  const own = readBrief(demoBrief.document).marks.filter((mark) => mark.id.startsWith(`${process}/`));
  return own.map((mark) => ({ type: "linkWords", id: mark.id.slice(process.length + 1), marks: [mark.id] }));
}
