import { type DataField, type FieldKind, newField } from "./fields";

/** A row of the sheet of data: a field, and where it stands; the first name of the path is the piece of data. */
export interface DataRow {
  readonly path: readonly string[];
  readonly field: DataField;
  readonly depth: number;
}

/** The rows of a piece of data: itself, and its parts below it. O(fields). */
export function rowsOf(field: DataField, above: readonly string[] = []): DataRow[] {
  const path = [...above, field.name];
  return [{ path, field, depth: above.length }, ...(field.fields ?? []).flatMap((part) => rowsOf(part, path))];
}

type Change = (field: DataField) => DataField | undefined;

/** A field with one below it changed; undefined from the change takes that away. */
export function withFieldAt(field: DataField, [first, ...rest]: readonly string[], change: Change): DataField {
  if (first === undefined) return change(field) ?? field;
  const fields = (field.fields ?? []).flatMap((part) => {
    if (part.name !== first) return [part];
    const next = rest.length === 0 ? change(part) : withFieldAt(part, rest, change);
    return next ? [next] : [];
  });
  return { ...field, fields };
}

/** A new part at the end of what stands at a path, which becomes a record by it. */
export const withPart = (field: DataField, path: readonly string[], name: string): DataField =>
  withFieldAt(field, path, ({ choices: _, currency: _currency, least: _least, most: _most, ...record }) => ({
    ...record,
    kind: "record",
    fields: [...(record.fields ?? []), newField(name)],
  }));

/** A part one place up or down among its neighbours. */
export function withPartMoved(field: DataField, path: readonly string[], by: 1 | -1): DataField {
  const [above, name] = [path.slice(0, -1), path.at(-1)];
  return withFieldAt(field, above, (record) => {
    const fields = [...(record.fields ?? [])];
    const at = fields.findIndex((one) => one.name === name);
    const [one, other] = [fields[at], fields[at + by]];
    if (!one || !other) return record;
    fields[at] = other;
    fields[at + by] = one;
    return { ...record, fields };
  });
}

/** A part put into the record above it, or out of the record it stands in; the same field where there is no such. */
export function withPartIndented(field: DataField, path: readonly string[], way: "in" | "out"): DataField {
  const [above, name] = [path.slice(0, -1), path.at(-1) as string];
  if (way === "in")
    return withFieldAt(field, above, (record) => {
      const fields = record.fields ?? [];
      const at = fields.findIndex((one) => one.name === name);
      const [before, part] = [fields[at - 1], fields[at]];
      if (!before || !part || (before.fields ?? []).some((one) => one.name === name)) return record;
      const into: DataField = { ...before, kind: "record", fields: [...(before.fields ?? []), part] };
      return { ...record, fields: fields.flatMap((one) => (one === before ? [into] : one === part ? [] : [one])) };
    });
  if (above.length === 0) return field;
  const outer = above.slice(0, -1);
  return withFieldAt(field, outer, (record) => {
    const holder = (record.fields ?? []).find((one) => one.name === above.at(-1));
    const part = holder?.fields?.find((one) => one.name === name);
    if (!holder || !part || (record.fields ?? []).some((one) => one.name === name)) return record;
    const rest: DataField = { ...holder, fields: (holder.fields ?? []).filter((one) => one !== part) };
    return { ...record, fields: (record.fields ?? []).flatMap((one) => (one === holder ? [rest, part] : [one])) };
  });
}

/** A field of another kind: what only the old kind has goes. */
export function withKind(field: DataField, kind: FieldKind): DataField {
  const { name, isList, isRequired, description, more } = field;
  const kept = { name, isList, isRequired, description, ...(more && { more }) };
  if (kind === "record") return { ...kept, kind, fields: field.fields ?? [] };
  if (kind === "choice") return { ...kept, kind, choices: field.choices ?? [] };
  const limits =
    kind === "number" || kind === "amount"
      ? {
          ...(field.least !== undefined && { least: field.least }),
          ...(field.most !== undefined && { most: field.most }),
        }
      : {};
  return kind === "amount"
    ? { ...kept, ...limits, kind, currency: field.currency ?? "EUR" }
    : { ...kept, ...limits, kind };
}

/** What a field may be, as one writes it: "0 to 100", "EUR, 0 to 100", "flat, pitched". */
export function limitWords({ kind, currency, choices = [], least, most }: DataField): string {
  if (kind === "choice") return choices.join(", ");
  const range =
    least !== undefined && most !== undefined
      ? `${least} to ${most}`
      : least !== undefined
        ? `from ${least}`
        : most !== undefined
          ? `up to ${most}`
          : "";
  return kind === "amount" ? [currency, range].filter(Boolean).join(", ") : range;
}

/** The same as it was typed. */
export function withLimits(field: DataField, typed: string): DataField {
  const { least: _, most: _most, ...rest } = field;
  if (field.kind === "choice")
    return {
      ...rest,
      choices: [
        ...new Set(
          typed
            .split(/[,;\n]/)
            .map((one) => one.trim())
            .filter((one) => one !== ""),
        ),
      ],
    };
  const currency = field.kind === "amount" ? (/^\s*([A-Za-z]{3})\b/.exec(typed)?.[1]?.toUpperCase() ?? "") : undefined;
  const range = typed.replace(/^\s*[A-Za-z]{3}\b\s*,?/, (found) => (currency === undefined ? found : "")).trim();
  const number = "(-?\\d+(?:\\.\\d+)?)";
  const both = new RegExp(`^(?:from )?${number} (?:up )?(?:to|-|–) ${number}$`).exec(range);
  const from = Number((both ?? new RegExp(`^(?:from |at least )?${number}$`).exec(range))?.[1] ?? Number.NaN);
  const to = Number(both?.[2] ?? new RegExp(`^(?:up to|at most) ${number}$`).exec(range)?.[1] ?? Number.NaN);
  return {
    ...rest,
    ...(currency !== undefined && { currency }),
    ...(!Number.isNaN(from) && { least: from }),
    ...(!Number.isNaN(to) && { most: to }),
  };
}
