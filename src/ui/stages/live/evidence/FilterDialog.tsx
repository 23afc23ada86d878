"use client";
import { Button, chakra, Flex } from "@chakra-ui/react";
import { useState } from "react";
import type { LogFilter } from "@/core/evidence";
import { readSaid } from "@/core/scenario";
import { DialogFrame } from "../../../controls/DialogFrame";
import { text } from "../../../messages";
import { useLookedAt } from "./lookedAt";

const words = text.evidence.filters;
type Kind = keyof typeof words.kinds;
const kinds = Object.keys(words.kinds) as Kind[];

/** Asks for one more sentence that cases are to keep to. */
export function FilterDialog(props: {
  readonly log: string;
  readonly onAdd: (filter: LogFilter) => void;
  readonly onClose: () => void;
}) {
  const { log, onAdd, onClose } = props;
  const seen = useLookedAt(({ overviews }) => overviews[log]);
  const [kind, setKind] = useState<Kind>("passes");
  const [said, setSaid] = useState<{ readonly [field: string]: string }>({});
  const [problem, setProblem] = useState("");
  const activities = seen?.activities.map(({ name }) => name) ?? [];
  const properties = (kind === "eventAttribute" ? seen?.eventAttributes : seen?.attributes) ?? [];
  const attribute = properties.find(({ name }) => name === (said.attribute ?? properties[0]?.name)) ?? properties[0];
  const usual: { readonly [field: string]: string } = {
    activity: activities[0] ?? "",
    first: activities[0] ?? "",
    next: activities[1] ?? activities[0] ?? "",
    is: "yes",
    isDirect: "no",
    attribute: attribute?.name ?? "",
    value: attribute?.values[0]?.name ?? "",
    variants: "3",
  };
  const of = (field: string) => said[field] ?? usual[field] ?? "";
  const field = (name: string) => ({
    value: of(name),
    onChange: (value: string) => setSaid((before) => ({ ...before, [name]: value })),
  });
  const add = () => {
    const made = filterOf(kind, of);
    if (typeof made === "string") setProblem(made);
    else onAdd(made);
  };
  const list = (names: readonly string[]) => names.map((name) => [name, name] as const);
  const whether = (yes: string, no: string) =>
    [
      ["yes", yes],
      ["no", no],
    ] as const;
  return (
    <DialogFrame
      title={words.title}
      width="520px"
      onClose={onClose}
      footer={
        <>
          <Button variant="outline" onClick={onClose}>
            {text.dialog.cancel}
          </Button>
          <Button bg="accent" color="onAccent" onClick={add}>
            {words.set}
          </Button>
        </>
      }
    >
      <Flex direction="column" gap={3}>
        <Choice
          label={words.kind}
          value={kind}
          options={kinds
            .filter((one) => one !== "attribute" || (seen?.attributes.length ?? 0) > 0)
            .filter((one) => one !== "eventAttribute" || (seen?.eventAttributes.length ?? 0) > 0)
            .map((one) => [one, words.kinds[one]] as const)}
          onChange={(one) => {
            setKind(one as Kind);
            setSaid({});
            setProblem("");
          }}
        />
        {kind === "passes" && (
          <>
            <Choice label={words.is} options={whether(words.does, words.doesNot)} {...field("is")} />
            <Choice label={words.activity} options={list(activities)} {...field("activity")} />
          </>
        )}
        {kind === "follows" && (
          <>
            <Choice label={words.is} options={whether(words.does, words.doesNot)} {...field("is")} />
            <Choice label={words.first} options={list(activities)} {...field("first")} />
            <Choice label={words.next} options={list(activities)} {...field("next")} />
            <chakra.label display="flex" gap={2} fontSize="13px">
              <input
                type="checkbox"
                checked={of("isDirect") === "yes"}
                onChange={(event) => field("isDirect").onChange(event.target.checked ? "yes" : "no")}
              />
              {words.isDirect}
            </chakra.label>
          </>
        )}
        {kind === "period" && (
          <>
            <Typed label={words.from} type="date" {...field("from")} />
            <Typed label={words.until} type="date" {...field("until")} />
          </>
        )}
        {kind === "duration" && (
          <>
            <Typed label={words.least} {...field("least")} />
            <Typed label={words.most} {...field("most")} />
          </>
        )}
        {(kind === "attribute" || kind === "eventAttribute") && (
          <>
            <Choice
              label={words.attribute}
              options={list(properties.map(({ name }) => name))}
              value={of("attribute")}
              onChange={(name) => setSaid({ attribute: name })}
            />
            <Choice
              label={words.value}
              options={list(attribute?.values.map(({ name }) => name) ?? [])}
              {...field("value")}
            />
            <Choice label={words.is} options={whether(words.has, words.hasNot)} {...field("is")} />
          </>
        )}
        {kind === "common" && <Typed label={words.variants} type="number" {...field("variants")} />}
        {problem !== "" && (
          <chakra.p color="trouble" role="alert">
            {problem}
          </chakra.p>
        )}
      </Flex>
    </DialogFrame>
  );
}

/** What was said as a filter; or what is wrong with it. */
function filterOf(kind: Kind, of: (field: string) => string): LogFilter | string {
  const is = of("is") === "yes";
  switch (kind) {
    case "passes":
      return { kind, activity: of("activity"), is };
    case "follows":
      return { kind, first: of("first"), next: of("next"), isDirect: of("isDirect") === "yes", is };
    case "attribute":
    case "eventAttribute":
      return { kind, name: of("attribute"), value: of("value"), is };
    case "common":
      return { kind, variants: Math.max(1, Math.round(Number(of("variants")) || 1)) };
    case "period": {
      const day = (field: string) => (of(field) === "" ? null : Date.parse(`${of(field)}T00:00:00Z`));
      const [from, until] = [day("from"), day("until")];
      return from === null && until === null ? words.nothing : { kind, from, until };
    }
    case "duration": {
      const [least, most] = [of("least"), of("most")].map((typed) => {
        if (typed.trim() === "") return null;
        const time = readSaid(typed, "time");
        return time?.kind === "constant" ? time.value * 1_000 : typed;
      });
      for (const one of [least, most]) if (typeof one === "string") return words.badDuration(one);
      return least === null && most === null
        ? words.nothing
        : { kind, least: least as number | null, most: most as number | null };
    }
  }
}

const frame = {
  h: "28px",
  px: 2,
  bg: "paper",
  borderWidth: "1px",
  borderColor: "line",
  borderRadius: "6px",
  fontSize: "13px",
  w: "100%",
} as const;

export function Choice(props: {
  readonly label: string;
  readonly value: string;
  readonly options: readonly (readonly [string, string])[];
  readonly onChange: (value: string) => void;
}) {
  return (
    <chakra.label display="flex" flexDirection="column" gap={1} fontSize="12px" color="quiet">
      {props.label}
      <chakra.select
        {...frame}
        color="ink"
        value={props.value}
        onChange={(event) => props.onChange(event.target.value)}
      >
        {props.options.map(([value, name]) => (
          <option key={value} value={value}>
            {name}
          </option>
        ))}
      </chakra.select>
    </chakra.label>
  );
}

export function Typed(props: {
  readonly label: string;
  readonly value: string;
  readonly type?: "date" | "number" | "text";
  readonly onChange: (value: string) => void;
}) {
  return (
    <chakra.label display="flex" flexDirection="column" gap={1} fontSize="12px" color="quiet">
      {props.label}
      <chakra.input
        {...frame}
        color="ink"
        type={props.type ?? "text"}
        value={props.value}
        onChange={(event) => props.onChange(event.target.value)}
      />
    </chakra.label>
  );
}
