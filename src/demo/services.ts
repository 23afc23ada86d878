import type { Command } from "@/core/commands";
import type { Description } from "@/core/descriptions";
import type { Model } from "@/core/model";
import { boundAs, candidatesOf, keptCandidates } from "@/core/services";

/** What the meter platform says of itself to those who want to use it. */
export const meterPlatform = `openapi: 3.1.0
info: { title: Meter platform, version: "2.3" }
paths:
  /meters/due:
    get:
      operationId: listMetersDue
      summary: Meters that are to be read tonight
      parameters: [{ name: day, in: query, required: true, schema: { type: string, format: date } }]
      responses:
        "200": { description: The meters, content: { application/json: { schema: { type: array, items: { $ref: "#/components/schemas/Meter" } } } } }
  /meters/{number}/reading:
    get:
      operationId: readMeter
      summary: Reads one meter over the air
      parameters: [{ name: number, in: path, required: true, schema: { type: string } }]
      responses:
        "200": { description: What it shows, content: { application/json: { schema: { $ref: "#/components/schemas/Reading" } } } }
        "404": { description: There is no such meter }
        "504": { description: The meter does not answer }
  /readings:
    post:
      operationId: storeReadings
      requestBody: { required: true, content: { application/json: { schema: { type: object, required: [readings], properties: { readings: { type: array, items: { $ref: "#/components/schemas/Reading" } } } } } } }
      responses: { "204": { description: Stored } }
components:
  schemas:
    Meter: { type: object, properties: { number: { type: string }, address: { type: string } } }
    Reading: { type: object, properties: { number: { type: string }, at: { type: string, format: date-time }, kilowattHours: { type: number } } }
`;
export const meterPlatformFile = "meter-platform.yaml";

/** The steps of the nightly reading, bound to what the meter platform offers. */
export const bindReadings = (description: Description): Command[] =>
  [
    ["list-meters", "listMetersDue"],
    ["read-meter", "readMeter"],
    ["store", "storeReadings"],
  ].flatMap(([id = "", wanted]) =>
    description.interfaces.flatMap((service) =>
      service.operations.flatMap((operation): Command[] =>
        operation.name === wanted
          ? [{ type: "bindOperation", id, to: boundAs(meterPlatformFile, description, service.name, operation) }]
          : [],
      ),
    ),
  );

/** What the calls of the nightly reading are given, where no document says so. */
export const mapReadings: readonly Command[] = [
  { type: "mapField", id: "list-meters", direction: "in", field: "day", is: "the day that ends" },
  { type: "mapField", id: "read-meter", direction: "in", field: "number", is: "number of the meter, each in turn" },
  { type: "mapField", id: "store", direction: "in", field: "readings", is: "readings of the night" },
];

/** Candidates of the improved connection that the cooperative looks at: one for each lane. */
export const keepLanes = (model: Model): Command[] =>
  candidatesOf(model).map(({ from }): Command => ({ type: "keepCandidate", of: from }));

/** What is known of them by hand, and what was decided. */
export function weighLanes(model: Model): Command[] {
  const kept = keptCandidates(model);
  const changes = [4, 1, 2, 3];
  return kept.flatMap(({ id, name }, at): Command[] => [
    { type: "setCandidateFigure", id, criterion: "changes", value: changes[at % changes.length] ?? 1 },
    ...(name === "Billing"
      ? [
          {
            type: "decideCandidate" as const,
            id,
            decision: {
              what: "reuse" as const,
              reason: "The billing ledger has an interface for tariffs already.",
              member: "Mara Aldous",
              date: "2026-11-02",
            },
          },
        ]
      : []),
  ]);
}
