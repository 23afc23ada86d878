"use client";
import { Button, chakra, Flex } from "@chakra-ui/react";
import { useState } from "react";
import { type DataField, fieldsFromExample, newField, recordSchema } from "@/core/data";
import { childrenOf, type Model } from "@/core/model";
import { messageFields } from "@/core/services";
import { DialogFrame } from "../../../controls/DialogFrame";
import { text } from "../../../messages";
import { newId } from "../../../version/actions";
import { useVersion, useVersionStore } from "../../../version/VersionContext";

const words = text.data;

/** Data made from an example somebody pastes, or from what an operation of a service takes and gives. */
export function ExampleDialog({ process, onClose }: { readonly process: string; readonly onClose: () => void }) {
  const model = useVersion((state) => state.model);
  const { dispatch } = useVersionStore().getState();
  const [name, setName] = useState("");
  const [typed, setTyped] = useState("");
  const [given, setGiven] = useState<readonly DataField[]>();
  const read = typed.trim() === "" ? undefined : fieldsFromExample(typed);
  const fields = given ?? (read?.ok ? read.value : undefined);
  const messages = messagesIn(model);
  const make = () => {
    if (!fields || name.trim() === "") return;
    const schema = JSON.stringify(recordSchema(fields));
    dispatch({ type: "defineData", process, id: newId("data"), name: name.trim(), schema });
    onClose();
  };
  return (
    <DialogFrame
      title={words.exampleTitle}
      width="620px"
      onClose={onClose}
      footer={
        <>
          <Button variant="outline" onClick={onClose}>
            {text.dialog.cancel}
          </Button>
          <Button
            bg="accent"
            color="onAccent"
            disabled={!fields || fields.length === 0 || name.trim() === ""}
            onClick={make}
          >
            {words.make}
          </Button>
        </>
      }
    >
      <Flex direction="column" gap={3}>
        <chakra.input
          aria-label={words.exampleName}
          placeholder={words.exampleName}
          value={name}
          h="30px"
          px={2}
          borderWidth="1px"
          borderColor="line"
          borderRadius="6px"
          onChange={(event) => setName(event.target.value)}
        />
        <chakra.textarea
          aria-label={words.exampleText}
          placeholder={words.exampleText}
          value={typed}
          rows={9}
          p={2}
          fontSize="13px"
          borderWidth="1px"
          borderColor="line"
          borderRadius="6px"
          onChange={(event) => {
            setGiven(undefined);
            setTyped(event.target.value);
          }}
        />
        {messages.length > 0 && (
          <chakra.select
            aria-label={words.fromService}
            h="28px"
            borderWidth="1px"
            borderColor="line"
            borderRadius="6px"
            bg="paper"
            value=""
            onChange={(event) => {
              const found = messages[Number(event.target.value)];
              if (!found) return;
              setGiven(found.fields);
              setTyped("");
              if (name === "") setName(found.name);
            }}
          >
            <option value="">{words.fromService}…</option>
            {messages.map((one, at) => (
              <option key={one.label} value={at}>
                {one.label}
              </option>
            ))}
          </chakra.select>
        )}
        <chakra.p role="status" fontSize="13px" color={read && !read.ok ? "trouble" : "quiet"}>
          {read && !read.ok
            ? read.problems.map(({ message }) => message).join(" ")
            : fields
              ? `${words.exampleMakes(fields.length)} ${fields.map((one) => `${one.name} (${words.kinds[one.kind]}${one.isList ? `, ${words.several.toLowerCase()}` : ""})`).join(", ")}`
              : ""}
        </chakra.p>
      </Flex>
    </DialogFrame>
  );
}

const kinds: readonly (readonly [RegExp, DataField["kind"]])[] = [
  [/^(number|integer|decimal|double|float|int|long|short)/i, "number"],
  [/^bool/i, "yesNo"],
  [/^date-?time/i, "dateTime"],
  [/^date/i, "date"],
  [/^duration/i, "duration"],
];

/** What the operations of a model's services take and give, as fields. */
function messagesIn(model: Model) {
  return childrenOf(model, model.root)
    .filter(({ type }) => type === "interface")
    .flatMap((service) => childrenOf(model, service.id, "operations"))
    .flatMap((operation) =>
      (["in", "out"] as const).flatMap((direction) => {
        const found = messageFields(model, direction === "in" ? operation.inMessageRef : operation.outMessageRef);
        if (found.length === 0) return [];
        const fields = found.map(
          (one): DataField => ({
            ...newField(one.name, kinds.find(([shape]) => shape.test(one.type))?.[1] ?? "text"),
            isRequired: one.isRequired,
          }),
        );
        const name = operation.name ?? operation.id;
        return [{ name, fields, label: words.fromServiceOf(name, words.directions[direction]) }];
      }),
    );
}
