import type { DirectoryEntry } from "@/core/directory";

const entry = (
  id: string,
  kind: DirectoryEntry["kind"],
  name: string,
  description: string,
  more: Partial<DirectoryEntry> = {},
): DirectoryEntry => ({
  id,
  kind,
  name,
  description,
  unit: null,
  hue: null,
  headcount: null,
  costPerHour: null,
  hoursPerWeek: null,
  ...more,
});

/** The directory of Quillmere Power Cooperative, a made-up owner of a small electricity network. */
export const demoDirectory: readonly DirectoryEntry[] = [
  entry(
    "unit-cooperative",
    "unit",
    "Quillmere Power Cooperative",
    "Owns the low-voltage network of the Quillmere valley.",
  ),
  entry("unit-customers", "unit", "Customer office", "Answers households and installers, keeps the cases.", {
    unit: "unit-cooperative",
  }),
  entry("unit-network", "unit", "Network operation", "Plans, builds and runs the lines.", { unit: "unit-cooperative" }),
  entry("unit-accounts", "unit", "Accounts", "Meter data, tariffs and bills.", { unit: "unit-cooperative" }),
  entry(
    "role-front-desk",
    "role",
    "Front desk",
    "First contact for households and installers; registers and tracks every application.",
    { unit: "unit-customers", hue: "#3B7BB5", headcount: 3, costPerHour: 38, hoursPerWeek: 38 },
  ),
  entry(
    "role-network-engineer",
    "role",
    "Network engineer",
    "Judges whether a feeder can carry another plant and approves designs.",
    { unit: "unit-network", hue: "#8C5A44", headcount: 2, costPerHour: 64, hoursPerWeek: 40 },
  ),
  entry("role-field-crew", "role", "Field crew", "Works on site: meters, fuses, inspections.", {
    unit: "unit-network",
    hue: "#6A8A1F",
    headcount: 6,
    costPerHour: 52,
    hoursPerWeek: 40,
  }),
  entry("role-billing", "role", "Billing", "Sets tariffs, writes bills and credits.", {
    unit: "unit-accounts",
    hue: "#B36BA0",
    headcount: 1.5,
    costPerHour: 41,
    hoursPerWeek: 38,
  }),
  entry(
    "system-case-register",
    "system",
    "Case register",
    "Every application and complaint, with its papers and dates.",
  ),
  entry("system-network-map", "system", "Network map", "Feeders, transformers, reserved load."),
  entry("system-crew-planner", "system", "Crew planner", "Who is where on which day."),
  entry("system-meter-platform", "system", "Meter platform", "Reads the smart meters every night."),
  entry("system-billing-ledger", "system", "Billing ledger", "Tariffs, bills, payments."),
  entry(
    "document-application",
    "document",
    "Connection application",
    "Form of the household, with the plant's rated power and the site plan.",
  ),
  entry("document-drawing", "document", "Single-line drawing", "The installer's circuit of plant, meter and fuse."),
  entry("document-study", "document", "Network study note", "What the feeder can carry and what must be changed."),
  entry(
    "document-agreement",
    "document",
    "Connection agreement",
    "Terms on which the plant may feed in; signed by both sides.",
  ),
  entry("document-visit-report", "document", "Visit report", "What the crew found and did on site, with photos."),
  entry("document-readings", "document", "Meter readings", "Quarter-hourly values of one day."),
  entry("term-feeder", "term", "Feeder", "The line from a transformer to the houses it supplies."),
  entry(
    "term-reserved-load",
    "term",
    "Reserved load",
    "Power promised to plants that are approved but not yet switched on.",
  ),
  entry("term-feed-in-tariff", "term", "Feed-in tariff", "What the cooperative pays for a kilowatt-hour fed in."),
];
