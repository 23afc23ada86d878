import { documentsOf } from "../directory";
import type { Id, Model } from "../model";
import { inCase } from "./naming";

type Json = { [key: string]: unknown };

/**
 * A candidate as the skeleton of an OpenAPI 3.1 description: an operation for each activity, its documents as the data that goes in
 * and comes out, and where each comes from. Developers fill it in.
 * @param ruled what an operation is called by the rules of IT
 * Source: OpenAPI Specification 3.1.1 (from memory). O(operations and their documents).
 */
export function openApiOf(
  model: Model,
  candidate: {
    readonly name: string;
    readonly from: Id;
    /** Those that somebody added come from no step. */
    readonly operations: readonly { readonly name: string; readonly from: Id | undefined }[];
  },
  ruled: (name: string) => string = (name) => inCase(name, "camelCase"),
): Json {
  const schemas: Json = {};
  const paths: Json = {};
  const taken = new Set<string>();
  for (const { name, from } of candidate.operations) {
    const operationId = free(ruled(name) || "operation", taken);
    const documents = from === undefined ? [] : documentsOf(model, from);
    const data = (direction: "in" | "out") => {
      const used = documents.filter((document) => document.direction === direction);
      const properties: Json = {};
      for (const document of used) {
        const schema = inCase(document.name, "PascalCase") || "Document";
        schemas[schema] ??= { type: "object", title: document.name };
        properties[inCase(document.name, "camelCase") || "document"] = { $ref: `#/components/schemas/${schema}` };
      }
      return { type: "object", properties };
    };
    const documentation = model.elements.get(from ?? "")?.documentation?.[0]?.text.trim() ?? "";
    paths[`/${inCase(operationId, "kebab-case")}`] = {
      post: {
        operationId,
        summary: name,
        ...(documentation !== "" && { description: documentation }),
        ...(from !== undefined && { "x-lucid-lane-from": from }),
        ...(documents.some(({ direction }) => direction === "in") && {
          requestBody: { required: true, content: { "application/json": { schema: data("in") } } },
        }),
        responses: {
          "200": {
            description: "Done",
            ...(documents.some(({ direction }) => direction === "out") && {
              content: { "application/json": { schema: data("out") } },
            }),
          },
          default: { description: "What went wrong" },
        },
      },
    };
  }
  return {
    openapi: "3.1.0",
    info: { title: candidate.name, version: "0.1.0", "x-lucid-lane-from": candidate.from },
    paths,
    ...(Object.keys(schemas).length > 0 && { components: { schemas } }),
  };
}

function free(wish: string, taken: Set<string>): string {
  let name = wish;
  for (let at = 2; taken.has(name); at++) name = `${wish}${at}`;
  taken.add(name);
  return name;
}
