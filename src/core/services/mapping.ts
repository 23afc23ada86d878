import { documentsOf } from "../directory";
import { type DataField, type Element, fieldUsesOf, type Model } from "../model";
import { bindingOf, messageFields } from "./bindings";
import { wordsOfName } from "./naming";

/** A piece of data of a bound operation, and what of the step it is. */
export interface MappedField extends DataField {
  readonly direction: "in" | "out";
  /** Undefined where nothing is said and no document of the step is called like it. */
  readonly is: string | undefined;
  /** Whether a person said so; else the names tell. */
  readonly isSaid: boolean;
}

const plain = (name: string) => wordsOfName(name).join(" ").toLowerCase();

/** What goes into the operation a step is bound to and comes out of it, each with what it is; none where it is bound to none. O(fields × documents). */
export function mappingOf(model: Model, step: Element): MappedField[] {
  const bound = bindingOf(model, step);
  if (!bound) return [];
  const said = fieldUsesOf(step);
  const documents = documentsOf(model, step.id);
  const of = (direction: "in" | "out", message: unknown): MappedField[] => {
    return messageFields(model, message).map((field) => {
      const use = said.find((one) => one.direction === direction && one.field === field.name);
      const alike = documents.find((one) => one.direction === direction && plain(one.name) === plain(field.name));
      return { ...field, direction, is: use?.is ?? alike?.name, isSaid: use !== undefined };
    });
  };
  return [...of("in", bound.operation.inMessageRef), ...of("out", bound.operation.outMessageRef)];
}

/** What an operation needs that nothing of the step gives. */
export const unmappedOf = (model: Model, step: Element): MappedField[] =>
  mappingOf(model, step).filter(
    ({ direction, isRequired, is }) => direction === "in" && isRequired && is === undefined,
  );
