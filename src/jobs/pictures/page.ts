import { type Diagram, type Model, nameOf } from "@/core/model";

/** What a page is called: by itself, or by the element whose inside it shows. */
export const pageName = (model: Model, diagram: Diagram): string =>
  diagram.name ?? (diagram.element ? nameOf(model, diagram.element) : "") ?? "";
