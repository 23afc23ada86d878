import type { Model } from "@/core/model";
import { byRules, type NamingRules, openApiOf } from "@/core/services";
import { giveFile } from "../../kernel/ask";

/** Gives a service that could be built as an OpenAPI file that developers go on with. */
export function giveSkeleton(model: Model, candidate: Parameters<typeof openApiOf>[1], rules: NamingRules): void {
  const description = openApiOf(model, candidate, (operation) => byRules(operation, rules).name);
  const content = new Blob([`${JSON.stringify(description, null, 2)}\n`], { type: "application/json" });
  giveFile(content, `${byRules(candidate.name, { ...rules, style: "kebab-case", verbs: [] }).name || "service"}.json`);
}
