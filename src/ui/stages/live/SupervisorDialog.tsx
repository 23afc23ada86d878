"use client";
import { Button, chakra, Flex } from "@chakra-ui/react";
import { nanoid } from "nanoid";
import { useState } from "react";
import { live, membership } from "@/contract";
import type { Interference, WaitRow } from "@/contract/live";
import { flowNodesIn, type Id, type Model, nameOf, outgoingOf } from "@/core/model";
import { DialogFrame } from "../../controls/DialogFrame";
import { Choice } from "../../controls/fields";
import { ask } from "../../kernel/ask";
import { lookAgain, useAsked } from "../../kernel/queries";
import { wordsOf } from "../../kernel/wordsOf";
import { text } from "../../messages";

const words = text.live.acts;

/** What a supervisor wants to do, and to what. */
export type Asked =
  | { readonly what: "data" | "suspend" | "resume" | "cancel" }
  | { readonly what: "retry" | "skip" | "move" | "lead" | "happen" | "assign"; readonly wait: WaitRow };

type Values = { readonly [name: string]: unknown };

/** Asks for what it takes to interfere: always why, and with some also what or whereto. What cannot be done says why not. */
export function SupervisorDialog(props: {
  readonly at: { readonly version: string; readonly run: string; readonly number: number };
  readonly asked: Asked;
  readonly data: Values;
  readonly model: Model;
  readonly onClose: () => void;
}) {
  const { at, asked, data, model, onClose } = props;
  const wait = "wait" in asked ? asked.wait : undefined;
  const ways = wait ? outgoingOf(model, wait.element) : [];
  const places = wait ? otherSteps(model, wait.element) : [];
  const [reason, setReason] = useState("");
  const [typed, setTyped] = useState(asked.what === "data" ? JSON.stringify(data, null, 1) : "");
  const { data: known } = useAsked(membership.listMembers, {}, { isWanted: asked.what === "assign" });
  const members = known?.members ?? [];
  const [chosen, setTo] = useState(asked.what === "move" ? (places[0] ?? "") : (ways[0]?.id ?? ""));
  const to = asked.what === "assign" ? (members.find(({ id }) => id === chosen)?.id ?? members[0]?.id ?? "") : chosen;
  const [problem, setProblem] = useState("");
  const [act] = useState(() => nanoid());
  const takesValues = ["data", "skip", "happen"].includes(asked.what);
  const needsReason = asked.what !== "retry" && asked.what !== "happen";
  const values = takesValues ? readValues(typed) : {};
  const doing = values && doingOf(asked, values, to);
  const run = async () => {
    if (!values) {
      setProblem(words.badJson);
      return;
    }
    try {
      await interfere(at, asked, { act, reason, values, to });
      await lookAgain([{ kind: "version", id: at.version }, { kind: "workspace" }]);
      onClose();
    } catch (error) {
      setProblem(wordsOf(error));
    }
  };
  return (
    <DialogFrame
      title={titleOf(asked)}
      width="480px"
      onClose={onClose}
      footer={
        <>
          <Button variant="outline" onClick={onClose}>
            {text.dialog.cancel}
          </Button>
          <Button
            bg="accent"
            color="onAccent"
            disabled={needsReason && reason.trim() === ""}
            onClick={() => void run()}
          >
            {words.do}
          </Button>
        </>
      }
    >
      <Flex direction="column" gap={3}>
        {explainOf(asked) && <chakra.p color="quiet">{explainOf(asked)}</chakra.p>}
        {(asked.what === "move" || asked.what === "lead") && (
          <chakra.label display="flex" gap={2} alignItems="center">
            {asked.what === "move" ? words.moveTo : words.way}
            <chakra.select
              aria-label={asked.what === "move" ? words.moveTo : words.way}
              value={to}
              h="28px"
              bg="paper"
              borderWidth="1px"
              borderColor="line"
              borderRadius="6px"
              onChange={(event) => setTo(event.target.value)}
            >
              {(asked.what === "move" ? places : ways.map(({ id }) => id)).map((id) => (
                <option key={id} value={id}>
                  {wayName(model, id)}
                </option>
              ))}
            </chakra.select>
          </chakra.label>
        )}
        {asked.what === "assign" && (
          <Flex gap={2} align="center">
            {words.assignTo}
            <Choice
              label={words.assignTo}
              value={to}
              options={members.map(({ id, name }) => [id, name] as const)}
              onChoose={setTo}
            />
          </Flex>
        )}
        {takesValues && (
          <chakra.label display="flex" flexDirection="column" gap={1}>
            {words.values}
            <chakra.textarea
              value={typed}
              rows={asked.what === "data" ? 8 : 3}
              p={2}
              fontFamily="mono"
              fontSize="13px"
              borderWidth="1px"
              borderColor="line"
              borderRadius="6px"
              onChange={(event) => setTyped(event.target.value)}
            />
          </chakra.label>
        )}
        {needsReason && (
          <chakra.label display="flex" flexDirection="column" gap={1}>
            {words.reason}
            <chakra.input
              value={reason}
              h="30px"
              px={2}
              borderWidth="1px"
              borderColor="line"
              borderRadius="6px"
              onChange={(event) => setReason(event.target.value)}
            />
          </chakra.label>
        )}
        {doing && <Follows at={at} doing={doing} />}
        {problem && (
          <chakra.p role="alert" color="trouble">
            {problem}
          </chakra.p>
        )}
      </Flex>
    </DialogFrame>
  );
}

/** What would follow; or why it cannot be done. */
function Follows(props: {
  readonly at: { readonly version: string; readonly run: string; readonly number: number };
  readonly doing: Interference;
}) {
  const { at, doing } = props;
  const { data } = useAsked(live.previewCase, { ...at, doing }, { keepsLast: true });
  if (!data) return null;
  const { refused, state, ends, comes } = data;
  const names = (list: typeof ends) => list.map(({ name }) => name).join(", ");
  const told = [
    ends.length > 0 && words.ends(names(ends)),
    comes.length > 0 && words.comes(names(comes)),
    state !== "open" && words.becomes(text.live.states[state]),
    ends.length + comes.length === 0 && state === "open" && words.staysAsIs,
  ];
  return (
    <chakra.p fontSize="13px" color={refused ? "trouble" : "quiet"} role="status" data-testid="follows">
      <chakra.b>{words.follows}:</chakra.b> {refused ?? told.filter(Boolean).join("; ")}
    </chakra.p>
  );
}

/** What is asked for, as it is asked of the server. */
function doingOf(asked: Asked, values: Values, to: string): Interference | undefined {
  if (!("wait" in asked)) return asked.what === "data" ? { what: "data", values } : { what: asked.what };
  const { wait } = asked.wait;
  switch (asked.what) {
    case "retry":
      return { what: "retry", wait };
    case "move":
      return to === "" ? undefined : { what: "move", wait, to };
    case "lead":
      return to === "" ? undefined : { what: "lead", wait, flows: [to] };
    case "assign":
      return undefined;
    default:
      return { what: asked.what, wait, values };
  }
}

interface Said {
  readonly act: string;
  readonly reason: string;
  readonly values: Values;
  readonly to: string;
}

function interfere(
  at: { readonly version: string; readonly run: string; readonly number: number },
  asked: Asked,
  { act, reason, values, to }: Said,
): Promise<unknown> {
  if (!("wait" in asked)) {
    switch (asked.what) {
      case "data":
        return ask(live.setCaseData, { ...at, act, values, reason });
      case "cancel":
        return ask(live.cancelCase, { ...at, act, reason });
      default:
        return ask(live.suspendCase, { ...at, act, reason, isSuspended: asked.what === "suspend" });
    }
  }
  const on = { ...at, wait: asked.wait.wait, act };
  switch (asked.what) {
    case "retry":
      return ask(live.retryIncident, on);
    case "skip":
      return ask(live.skipStep, { ...on, values, reason });
    case "move":
      return ask(live.moveToken, { ...on, to, reason });
    case "lead":
      return ask(live.leadOn, { ...on, flows: [to], reason });
    case "happen":
      return ask(live.letHappen, { ...on, values, reason });
    case "assign":
      return ask(live.assignWork, { ...on, to, reason });
  }
}

function readValues(typed: string): Values | undefined {
  if (typed.trim() === "") return {};
  try {
    const value: unknown = JSON.parse(typed);
    return typeof value === "object" && value !== null && !Array.isArray(value) ? (value as Values) : undefined;
  } catch {
    return undefined;
  }
}

/** The steps that a token can go to from one: those of the same scope. */
const otherSteps = (model: Model, element: Id): Id[] =>
  flowNodesIn(model, model.elements.get(element)?.parent ?? "")
    .filter(({ id, type }) => id !== element && /Task$|^task$|Activity$|ubProcess$/.test(type))
    .map(({ id }) => id);

function wayName(model: Model, id: Id): string {
  const element = model.elements.get(id);
  if (element?.type !== "sequenceFlow") return nameOf(model, id) || id;
  return nameOf(model, id) || nameOf(model, String(element.targetRef)) || id;
}

function titleOf(asked: Asked): string {
  const name = "wait" in asked ? asked.wait.label : "";
  switch (asked.what) {
    case "data":
      return words.dataTitle;
    case "suspend":
      return words.suspend;
    case "resume":
      return words.resume;
    case "cancel":
      return words.cancelTitle;
    case "retry":
      return `${words.retry}: ${name}`;
    case "skip":
      return words.skipTitle(name);
    case "move":
      return words.moveTitle(name);
    case "lead":
      return words.leadTitle(name);
    case "assign":
      return words.assignTitle(name);
    case "happen":
      return words.happenTitle(name);
  }
}

const explainOf = ({ what }: Asked): string =>
  what === "skip"
    ? words.skipExplain
    : what === "move"
      ? words.moveExplain
      : what === "cancel"
        ? words.cancelExplain
        : "";
