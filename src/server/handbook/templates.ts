import { asc } from "drizzle-orm";
import { handbook as terms } from "@/contract";
import { mostTemplates, type TemplateRow } from "@/contract/handbook";
import { templateSchema } from "@/core/handbook";
import { templates } from "@/data/schema";
import { keptForAll } from "../kernel/keptForAll";
import { query, useCase } from "../kernel/useCase";

const kept = keptForAll({
  table: templates,
  schema: templateSchema,
  most: mostTemplates,
  one: "template",
  several: "templates",
});

export const listTemplates = query(terms.listTemplates, async ({ db }) => {
  const rows = await db.select().from(templates).where(kept.isThere).orderBy(asc(templates.at), asc(templates.id));
  return {
    templates: rows.flatMap(({ id, content, revision }): TemplateRow[] => {
      const template = templateSchema.safeParse(content);
      return template.success ? [{ id, template: template.data, revision }] : [];
    }),
  };
});

export const saveTemplate = useCase(terms.saveTemplate, (context, { id, template, revision }) =>
  kept.save(context, { id, content: template, revision }),
);
export const deleteTemplate = useCase(terms.deleteTemplate, (context, { id }) => kept.remove(context, id));
export const restoreTemplate = useCase(terms.restoreTemplate, (context, { id }) => kept.restore(context, id));
