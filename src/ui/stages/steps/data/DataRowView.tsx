"use client";
import { chakra, Flex } from "@chakra-ui/react";
import { Plus, X } from "lucide-react";
import type { KeyboardEvent } from "react";
import {
  type DataField,
  type DataRow,
  type FieldKind,
  fieldKinds,
  fieldWords,
  limitWords,
  readField,
  schemaOf,
  withFieldAt,
  withKind,
  withLimits,
  withPart,
  withPartIndented,
  withPartMoved,
} from "@/core/data";
import type { ProcessDatum } from "@/core/model";
import { Choice, TextField } from "../../../controls/fields";
import { IconTool } from "../../../controls/IconTool";
import { complain } from "../../../controls/notices";
import { text } from "../../../messages";
import { useVersionStore } from "../../../version/VersionContext";

const words = text.data;

/** One field of the sheet: what it is called, of which kind, what it may be. */
export function DataRowView({
  process,
  datum,
  row,
}: {
  readonly process: string;
  readonly datum: ProcessDatum & { readonly field: DataField & { readonly isSaid: boolean } };
  readonly row: DataRow;
}) {
  const store = useVersionStore();
  const { dispatch } = store.getState();
  const { field, path, depth } = row;
  const inside = path.slice(1);
  const full = path.join(".");
  const put = (next: DataField) =>
    dispatch({ type: "defineData", process, id: datum.id, name: datum.name, schema: JSON.stringify(schemaOf(next)) });
  const change = (by: (field: DataField) => DataField | undefined) => put(withFieldAt(datum.field, inside, by));
  const rename = (to: string) => {
    if (to.trim() !== "") dispatch({ type: "renameData", id: datum.id, path: inside, to: to.trim() });
  };
  const remove = () => {
    if (depth > 0) change(() => undefined);
    else if (datum.isDrawn) complain(new Error(words.drawn));
    else dispatch({ type: "dropData", id: datum.id });
  };
  /** A part behind this one, with a name that is free. */
  const addPart = (to: readonly string[], among: readonly DataField[]) => {
    let name = "part";
    for (let count = 2; among.some((one) => one.name === name); count++) name = `part ${count}`;
    put(withPart(datum.field, to, name));
    requestAnimationFrame(() => {
      const cell = document.querySelector<HTMLInputElement>(
        `[data-field="${CSS.escape([...path.slice(0, 1), ...to, name].join("."))}"] input`,
      );
      cell?.focus();
      cell?.select();
    });
  };
  const onKey = (event: KeyboardEvent) => {
    const isCommand = event.ctrlKey || event.metaKey;
    const keys: { readonly [key: string]: (() => void) | undefined } = {
      ArrowRight: event.altKey && depth > 0 ? () => put(withPartIndented(datum.field, inside, "in")) : undefined,
      ArrowLeft: event.altKey && depth > 0 ? () => put(withPartIndented(datum.field, inside, "out")) : undefined,
      ArrowUp: event.altKey && depth > 0 ? () => put(withPartMoved(datum.field, inside, -1)) : undefined,
      ArrowDown: event.altKey && depth > 0 ? () => put(withPartMoved(datum.field, inside, 1)) : undefined,
      Delete: isCommand ? remove : undefined,
      Enter:
        !event.altKey &&
        depth > 0 &&
        event.target instanceof HTMLInputElement &&
        event.target.dataset.name !== undefined
          ? () => addPart(inside.slice(0, -1), [])
          : undefined,
    };
    const run = keys[event.key];
    if (!run) return;
    event.preventDefault();
    run();
  };
  const cell = { background: "transparent" };
  return (
    <tr onKeyDownCapture={onKey} data-field={full} style={cell}>
      <td style={{ paddingInlineStart: 6 + depth * 22 }}>
        <Flex gap={1} align="center">
          <TextField label={words.nameOf(full)} value={field.name} onCommit={rename} />
          {depth === 0 && datum.isDrawn && (
            <chakra.span color="quiet" fontSize="11px" whiteSpace="nowrap" title={words.drawn}>
              ◰
            </chakra.span>
          )}
        </Flex>
      </td>
      <td>
        <Choice<FieldKind | "">
          label={words.of(words.kind, full)}
          value={depth === 0 && !datum.field.isSaid ? "" : field.kind}
          options={[
            ...(depth === 0 && !datum.field.isSaid ? [["", words.notSaid] as const] : []),
            ...fieldKinds.map((kind) => [kind, words.kinds[kind]] as const),
          ]}
          onChoose={(kind) => kind !== "" && change((one) => withKind(one, kind))}
        />
      </td>
      {(["isList", "isRequired"] as const).map((flag) => (
        <chakra.td key={flag} textAlign="center !important">
          {flag === "isRequired" && depth === 0 ? null : (
            <input
              type="checkbox"
              aria-label={words.of(flag === "isList" ? words.several : words.required, full)}
              checked={field[flag]}
              style={{ width: 18, height: 18 }}
              onChange={(event) => change((one) => ({ ...one, [flag]: event.target.checked }))}
            />
          )}
        </chakra.td>
      ))}
      <td>
        {field.kind in words.limitHints ? (
          <TextField
            label={words.of(words.limits, full)}
            placeholder={words.limitHints[field.kind]}
            value={limitWords(field)}
            onCommit={(typed) => change((one) => withLimits(one, typed))}
          />
        ) : null}
      </td>
      <td>
        {field.kind === "record" ? null : (
          <TextField
            label={words.of(words.usual, full)}
            value={fieldWords(field, field.usual)}
            onCommit={(typed) => {
              const read = readField({ ...field, isRequired: false }, typed);
              if ("problem" in read) return complain(new Error(read.problem.text));
              change(({ usual: _, ...one }) => (read.value === undefined ? one : { ...one, usual: read.value }));
            }}
          />
        )}
      </td>
      <td>
        <TextField
          label={words.of(words.description, full)}
          value={field.description}
          onCommit={(description) => change((one) => ({ ...one, description: description.trim() }))}
        />
      </td>
      <td>
        <Flex>
          {field.kind === "record" && (
            <IconTool name={words.addPart(full)} icon={Plus} onPress={() => addPart(inside, field.fields ?? [])} />
          )}
          <IconTool name={words.remove(full)} icon={X} onPress={remove} />
        </Flex>
      </td>
    </tr>
  );
}
