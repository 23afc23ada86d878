"use client";
import { Button, chakra, Flex } from "@chakra-ui/react";
import { X } from "lucide-react";
import { useState } from "react";
import type { AuditRow, OpenCase, WaitRow } from "@/contract/live";
import { type Model, nameOf } from "@/core/model";
import { writeTable } from "@/core/table";
import { clockWords } from "../../controls/moment";
import { timeWords } from "../../controls/units";
import { giveFile } from "../../kernel/ask";
import { text } from "../../messages";
import { type Asked, SupervisorDialog } from "./SupervisorDialog";

const words = text.live;

/** One case: where it stands and what can be done about it, its data, and all that has happened. */
export function CaseColumn(props: {
  readonly at: { readonly version: string; readonly run: string; readonly number: number };
  readonly opened: OpenCase;
  readonly now: number;
  readonly model: Model;
  readonly onClose: () => void;
}) {
  const { at, opened, now, model, onClose } = props;
  const { row, data, waits, audit } = opened;
  const [asked, setAsked] = useState<Asked>();
  const isOpen = row.state === "open";
  return (
    <Flex
      as="aside"
      aria-label={words.case.title(row.number)}
      direction="column"
      w="400px"
      flexShrink={0}
      minH={0}
      overflow="auto"
      borderLeftWidth="1px"
      borderColor="line"
      bg="paper"
      p={4}
      gap={3}
      data-testid="live-case"
    >
      <Flex align="center" gap={2}>
        <chakra.h2 fontSize="16px" fontWeight="700" flex="1">
          {words.case.title(row.number)}
          <chakra.span color="quiet" fontWeight="400" fontSize="13px" ms={2}>
            {row.isSuspended ? words.suspended : words.states[row.state]}
          </chakra.span>
        </chakra.h2>
        <chakra.button type="button" aria-label={words.case.close} cursor="pointer" onClick={onClose}>
          <X size={16} aria-hidden />
        </chakra.button>
      </Flex>
      <section aria-label={words.case.now}>
        {waits.length === 0 ? (
          <chakra.p color="quiet">{words.case.nothing}</chakra.p>
        ) : (
          <chakra.ul listStyleType="none">
            {waits.map((wait) => (
              <WaitLine key={wait.wait} wait={wait} now={now} model={model} onAsk={setAsked} />
            ))}
          </chakra.ul>
        )}
      </section>
      {isOpen && (
        <Flex gap={2} wrap="wrap">
          <Button size="xs" variant="outline" onClick={() => setAsked({ what: "data" })}>
            {words.acts.data}
          </Button>
          <Button
            size="xs"
            variant="outline"
            onClick={() => setAsked({ what: row.isSuspended ? "resume" : "suspend" })}
          >
            {row.isSuspended ? words.acts.resume : words.acts.suspend}
          </Button>
          <Button size="xs" variant="outline" onClick={() => setAsked({ what: "cancel" })}>
            {words.acts.cancel}
          </Button>
        </Flex>
      )}
      <section aria-label={words.case.data}>
        <chakra.h3 fontSize="13px" fontWeight="700">
          {words.case.data}
        </chakra.h3>
        <DataList data={data} />
      </section>
      <section aria-label={words.case.audit}>
        <Flex align="baseline" gap={3}>
          <chakra.h3 fontSize="13px" fontWeight="700" flex="1">
            {words.case.audit}
          </chakra.h3>
          <chakra.button
            type="button"
            color="accent"
            fontSize="12px"
            cursor="pointer"
            onClick={() => giveFile(auditCsv(audit), `case-${row.number}.csv`)}
          >
            {words.case.csv}
          </chakra.button>
        </Flex>
        <chakra.ol listStyleType="none" fontSize="12px" data-testid="audit">
          {audit.map((event) => (
            <chakra.li key={event.sequence} py="1px">
              <chakra.span color="quiet">{clockWords(event.at, "UTC")}</chakra.span> {eventWords(event)}
            </chakra.li>
          ))}
        </chakra.ol>
      </section>
      {asked && (
        <SupervisorDialog at={at} asked={asked} data={data} model={model} onClose={() => setAsked(undefined)} />
      )}
    </Flex>
  );
}

const eventWords = ({ kind, name, member, reason, data }: AuditRow): string =>
  [
    `${words.case.events[kind] ?? kind}${name ? ` ${name}` : ""}`,
    member && words.waits.by(member),
    reason && `“${reason}”`,
    data && Object.keys(data).length > 0 && dataWords(data),
  ]
    .filter(Boolean)
    .join(" · ");

/** What was said, as briefly as it can be: "power 5, roof flat". */
const dataWords = (data: { readonly [name: string]: unknown }): string =>
  Object.entries(data)
    .map(([name, value]) => `${name} ${typeof value === "object" ? JSON.stringify(value) : String(value)}`)
    .join(", ");

const auditCsv = (audit: readonly AuditRow[]): Blob => {
  const { when, what, where, who, why, data: values } = words.case;
  const lines = audit.map(({ at, kind, name, member, reason, data }) => [
    new Date(at).toISOString(),
    words.case.events[kind] ?? kind,
    name,
    member ?? "",
    reason ?? "",
    data ? dataWords(data) : "",
  ]);
  return new Blob([`\uFEFF${writeTable([[when, what, where, who, why, values], ...lines])}`], { type: "text/csv" });
};

function DataList({ data }: { readonly data: { readonly [name: string]: unknown } }) {
  const entries = Object.entries(data);
  if (entries.length === 0) return <chakra.p color="quiet">{words.case.noData}</chakra.p>;
  return (
    <chakra.dl fontSize="13px" css={{ display: "grid", gridTemplateColumns: "auto 1fr", columnGap: "10px" }}>
      {entries.map(([name, value]) => (
        <chakra.div key={name} display="contents">
          <chakra.dt color="quiet">{name}</chakra.dt>
          <chakra.dd m={0} overflowWrap="anywhere">
            {typeof value === "boolean"
              ? value
                ? text.forms.yes
                : text.forms.no
              : typeof value === "object" && value !== null
                ? JSON.stringify(value)
                : String(value)}
          </chakra.dd>
        </chakra.div>
      ))}
    </chakra.dl>
  );
}

function WaitLine(props: {
  readonly wait: WaitRow;
  readonly now: number;
  readonly model: Model;
  readonly onAsk: (asked: Asked) => void;
}) {
  const { wait, now, model, onAsk } = props;
  const { kind, label, since, due, reason, memberName, tried, element } = wait;
  const isStep = /Task$|^task$|Activity$/.test(model.elements.get(element)?.type ?? "");
  const isEvent = kind === "message" || kind === "signal" || kind === "timer";
  return (
    <chakra.li py={1}>
      <chakra.span color={kind === "incident" ? "trouble" : undefined}>
        {words.waits.kinds[kind]} <chakra.b>{nameOf(model, element) || label}</chakra.b>{" "}
        {words.waits.since(timeWords(Math.max(0, now - since) / 1000))}
        {due !== null && `, ${words.waits.due(clockWords(due, "UTC"))}`}
        {memberName && `, ${words.waits.by(memberName)}`}
        {tried > 0 && `, ${words.waits.tried(tried)}`}
        {reason && `: ${reason}`}
      </chakra.span>
      <Flex gap={2} mt={1} wrap="wrap">
        {kind === "incident" && (
          <Button size="xs" variant="outline" onClick={() => onAsk({ what: "retry", wait })}>
            {words.acts.retry}
          </Button>
        )}
        {kind === "incident" && !isStep && (
          <Button size="xs" variant="outline" onClick={() => onAsk({ what: "lead", wait })}>
            {words.acts.lead}
          </Button>
        )}
        {kind === "work" && (
          <Button size="xs" variant="outline" onClick={() => onAsk({ what: "assign", wait })}>
            {words.acts.assign}
          </Button>
        )}
        {isStep && (
          <>
            <Button size="xs" variant="outline" onClick={() => onAsk({ what: "skip", wait })}>
              {words.acts.skip}
            </Button>
            <Button size="xs" variant="outline" onClick={() => onAsk({ what: "move", wait })}>
              {words.acts.move}
            </Button>
          </>
        )}
        {isEvent && (
          <Button size="xs" variant="outline" onClick={() => onAsk({ what: "happen", wait })}>
            {words.acts.happen}
          </Button>
        )}
      </Flex>
    </chakra.li>
  );
}
