"use client";
import { Button, chakra, Flex } from "@chakra-ui/react";
import { useState } from "react";
import { live } from "@/contract";
import type { OpenRun } from "@/contract/live";
import { type StandIn, usualStandIn } from "@/core/live";
import { readSaid, saidOf } from "@/core/scenario";
import { complain, tell } from "../../controls/notices";
import { EmptyState } from "../../controls/states";
import { ask } from "../../kernel/ask";
import { lookAgain } from "../../kernel/queries";
import { text } from "../../messages";

const words = text.live.standIns;

/** How the services of a run are stood in for. */
export function StandIns({
  at,
  opened,
}: {
  readonly at: { readonly version: string; readonly run: string };
  readonly opened: OpenRun;
}) {
  if (opened.services.length === 0) return <EmptyState>{words.empty}</EmptyState>;
  return (
    <Flex direction="column" p={4} gap={4} data-testid="stand-ins">
      <chakra.p color="quiet" maxW="80ch">
        {words.explain}
      </chakra.p>
      {opened.services.map(({ element, name }) => (
        <OneStandIn
          key={element}
          name={name}
          standIn={opened.standIns[element] ?? usualStandIn}
          onSave={async (standIn) => {
            try {
              await ask(live.setStandIn, { ...at, element, standIn });
              await lookAgain([{ kind: "version", id: at.version }]);
              tell({ description: words.saved });
            } catch (error) {
              complain(error);
            }
          }}
        />
      ))}
    </Flex>
  );
}

interface Typed {
  readonly latency: string;
  readonly failure: string;
  readonly tries: string;
  readonly pause: string;
  readonly error: string;
  readonly answers: readonly { readonly when: string; readonly values: string }[];
}

const typedOf = (standIn: StandIn): Typed => ({
  latency: saidOf(standIn.latency, "time"),
  failure: `${Math.round(standIn.failure * 1000) / 10} %`,
  tries: String(standIn.tries),
  pause: `${standIn.pause} s`,
  error: standIn.error,
  answers: standIn.answers.map(({ when, values }) => ({ when, values: JSON.stringify(values) })),
});

/** A stand-in as it was typed; or the words that cannot be read. */
function readTyped(typed: Typed): StandIn | string {
  const latency = readSaid(typed.latency, "time");
  if (!latency) return typed.latency;
  const share = /^(\d+(?:[.,]\d+)?) ?%?$/.exec(typed.failure.trim())?.[1];
  const failure = share === undefined ? Number.NaN : Number(share.replace(",", ".")) / 100;
  if (!(failure >= 0 && failure <= 1)) return typed.failure;
  const tries = Number(typed.tries);
  if (!(Number.isInteger(tries) && tries >= 1 && tries <= 100)) return typed.tries;
  const pause = readSaid(typed.pause, "time");
  if (pause?.kind !== "constant") return typed.pause;
  const answers: { when: string; values: { [name: string]: unknown } }[] = [];
  for (const { when, values } of typed.answers) {
    if (when.trim() === "" && values.trim() === "") continue;
    try {
      const read: unknown = JSON.parse(values || "{}");
      if (typeof read !== "object" || read === null || Array.isArray(read)) return values;
      answers.push({ when, values: read as { [name: string]: unknown } });
    } catch {
      return values;
    }
  }
  return { latency, failure, tries, pause: pause.value, error: typed.error.trim(), answers };
}

function OneStandIn(props: {
  readonly name: string;
  readonly standIn: StandIn;
  readonly onSave: (standIn: StandIn) => Promise<void>;
}) {
  const { name, standIn, onSave } = props;
  const [typed, setTyped] = useState(() => typedOf(standIn));
  const [problem, setProblem] = useState("");
  const save = () => {
    const read = readTyped(typed);
    setProblem(typeof read === "string" ? words.cannot(read) : "");
    if (typeof read !== "string") void onSave(read);
  };
  const field = (key: "latency" | "failure" | "tries" | "pause" | "error", width: string) => (
    <chakra.div key={key} display="flex" flexDirection="column" fontSize="12px" color="quiet">
      {words[key]}
      <Field
        label={words.of(words[key], name)}
        width={width}
        value={typed[key]}
        onType={(value) => setTyped({ ...typed, [key]: value })}
      />
    </chakra.div>
  );
  const setLine = (at: number, change: Partial<Typed["answers"][number]>) =>
    setTyped({ ...typed, answers: typed.answers.map((one, place) => (place === at ? { ...one, ...change } : one)) });
  return (
    <chakra.section aria-label={name} bg="paper" borderWidth="1px" borderColor="line" borderRadius="6px" px={4} py={3}>
      <chakra.h3 fontWeight="700">{name}</chakra.h3>
      <Flex gap={3} wrap="wrap" mt={2}>
        {field("latency", "180px")}
        {field("failure", "80px")}
        {field("tries", "60px")}
        {field("pause", "90px")}
        {field("error", "160px")}
      </Flex>
      {typed.answers.map((line, at) => (
        <Flex key={at} gap={3} mt={2}>
          <Field
            label={words.of(words.when, `${name}, ${at + 1}`)}
            placeholder={words.when}
            width="260px"
            value={line.when}
            onType={(when) => setLine(at, { when })}
          />
          <Field
            label={words.of(words.answers, `${name}, ${at + 1}`)}
            placeholder={words.answers}
            width="360px"
            value={line.values}
            onType={(values) => setLine(at, { values })}
          />
        </Flex>
      ))}
      <Flex gap={3} mt={3} align="center">
        <Button
          size="xs"
          variant="outline"
          onClick={() => setTyped({ ...typed, answers: [...typed.answers, { when: "", values: "" }] })}
        >
          {words.addLine}
        </Button>
        <Button size="xs" bg="accent" color="onAccent" aria-label={words.of(words.save, name)} onClick={save}>
          {words.save}
        </Button>
        {problem && (
          <chakra.span role="alert" color="trouble">
            {problem}
          </chakra.span>
        )}
      </Flex>
    </chakra.section>
  );
}

function Field(props: {
  readonly label: string;
  readonly placeholder?: string;
  readonly width: string;
  readonly value: string;
  readonly onType: (value: string) => void;
}) {
  return (
    <chakra.input
      aria-label={props.label}
      placeholder={props.placeholder}
      value={props.value}
      w={props.width}
      h="28px"
      px={2}
      color="ink"
      fontSize="13px"
      borderWidth="1px"
      borderColor="line"
      borderRadius="6px"
      onChange={(event) => props.onType(event.target.value)}
    />
  );
}
