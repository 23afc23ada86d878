"use client";
import { Button, chakra, Flex } from "@chakra-ui/react";
import { useState } from "react";
import { live } from "@/contract";
import type { TargetRow } from "@/contract/live";
import { type Id, isActivity, type LiveTarget, nameOf, type TargetKind, targetKinds, targetsOf } from "@/core/model";
import { readSaid } from "@/core/scenario";
import { AskDialog } from "../../controls/AskDialog";
import { BarChoice } from "../../controls/BarChoice";
import { EmptyState } from "../../controls/states";
import { decimals, percentWords, timeWords } from "../../controls/units";
import { ask } from "../../kernel/ask";
import { lookAgain, useAsked } from "../../kernel/queries";
import { text } from "../../messages";
import { useVersion, useVersionStore } from "../../version/VersionContext";

const words = text.live.targets;

/** What is to be kept, and whether it is. */
export function Targets({
  at,
  process,
}: {
  readonly at: { readonly version: string; readonly run: string };
  readonly process: Id;
}) {
  const model = useVersion((state) => state.model);
  const { dispatch } = useVersionStore().getState();
  const { data } = useAsked(live.listTargets, at, { keepsLast: true });
  const [seeing, setSeeing] = useState<string>();
  if (!data) return <EmptyState>{text.shell.loading}</EmptyState>;
  const held = (element: Id) => {
    const one = model.elements.get(element);
    return one ? targetsOf(one) : [];
  };
  const remove = ({ element, target }: TargetRow) =>
    dispatch({
      type: "setTargets",
      id: element,
      targets: held(element).filter((one) => JSON.stringify(one) !== JSON.stringify(target)),
    });
  return (
    <Flex direction="column" p={4} gap={3} data-testid="targets">
      <chakra.p color="quiet">{words.explain}</chakra.p>
      {data.targets.length === 0 ? (
        <EmptyState>{words.empty}</EmptyState>
      ) : (
        <chakra.ul listStyleType="none">
          {data.targets.map((row) => (
            <TargetLine
              key={`${row.element} ${JSON.stringify(row.target)}`}
              row={row}
              isProcess={row.element === process}
              onRemove={() => remove(row)}
              onSeen={() => setSeeing(row.alert?.id)}
            />
          ))}
        </chakra.ul>
      )}
      <NewTarget
        process={process}
        onAdd={(element, target) => dispatch({ type: "setTargets", id: element, targets: [...held(element), target] })}
      />
      {seeing !== undefined && (
        <AskDialog
          title={words.seenTitle}
          label={text.live.acts.reason}
          action={words.seen}
          onClose={() => setSeeing(undefined)}
          onAnswer={async (reason) => {
            await ask(live.acknowledgeAlert, { ...at, alert: seeing, reason });
            await lookAgain([{ kind: "version", id: at.version }]);
          }}
        />
      )}
    </Flex>
  );
}

function TargetLine(props: {
  readonly row: TargetRow;
  readonly isProcess: boolean;
  readonly onRemove: () => void;
  readonly onSeen: () => void;
}) {
  const { row, isProcess, onRemove, onSeen } = props;
  const { target, measured, alert } = row;
  const model = useVersion((state) => state.model);
  const { until, amount } = target;
  const of = isProcess ? words.cases : until ? words.path(row.name, nameOf(model, until) || until) : row.name;
  const limit = amount === undefined ? timeWords(target.seconds) : decimals(amount);
  const said = words.said[target.what](of, percentWords(target.share), limit, target.days);
  return (
    <chakra.li py={1} borderTopWidth="1px" borderColor="line">
      <Flex gap={3} align="center" wrap="wrap">
        <chakra.span flex="1" minW="260px">
          {said}
        </chakra.span>
        <chakra.span fontWeight="700" color={measured.isKept ? "good" : "trouble"}>
          {measured.count === 0
            ? words.nothing
            : `${words.measured(`${decimals(measured.share * 100)} %`, measured.count)}, ${measured.isKept ? words.kept : words.broken}`}
        </chakra.span>
        {alert && (
          <Button size="xs" bg="accent" color="onAccent" onClick={onSeen}>
            {words.seen}
          </Button>
        )}
        <Button size="xs" variant="outline" aria-label={words.remove(said)} onClick={onRemove}>
          ×
        </Button>
      </Flex>
    </chakra.li>
  );
}

function NewTarget(props: { readonly process: Id; readonly onAdd: (element: Id, target: LiveTarget) => void }) {
  const { process, onAdd } = props;
  const model = useVersion((state) => state.model);
  const [element, setElement] = useState(process);
  const [what, setWhat] = useState<TargetKind>("duration");
  const [within, setWithin] = useState("5 days");
  const [share, setShare] = useState("90 %");
  const [days, setDays] = useState("30");
  const [amount, setAmount] = useState("250");
  const [until, setUntil] = useState("");
  const [problem, setProblem] = useState("");
  const steps = [...model.elements].filter(({ type }) => isActivity(type));
  const isTimed = what === "duration" || what === "waiting";
  const isPath = what === "duration" && element !== process && until !== "" && until !== element;
  const add = () => {
    const time = isTimed ? readSaid(within, "time") : { kind: "constant" as const, value: 0 };
    const part = Number(/^(\d+(?:[.,]\d+)?) ?%?$/.exec(share.trim())?.[1]?.replace(",", ".") ?? Number.NaN) / 100;
    const count = Number(days);
    const money = Number(amount.trim().replace(",", "."));
    const isMoney = what !== "cost" || (amount.trim() !== "" && money >= 0);
    const wrong =
      time?.kind !== "constant"
        ? within
        : !isMoney
          ? amount
          : !(part >= 0 && part <= 1)
            ? share
            : !(count >= 1)
              ? days
              : "";
    setProblem(wrong === "" ? "" : words.cannot(wrong));
    if (wrong === "" && time?.kind === "constant")
      onAdd(element, {
        what,
        seconds: time.value,
        share: part,
        days: count,
        ...(what === "cost" && { amount: money }),
        ...(isPath && { until }),
      });
  };
  return (
    <Flex gap={2} align="center" wrap="wrap" role="group" aria-label={words.add}>
      <BarChoice
        label={words.of}
        value={element}
        options={[[process, words.process], ...steps.map(({ id }) => [id, nameOf(model, id) || id] as const)]}
        onChange={setElement}
      />
      <BarChoice
        label={words.what}
        value={what}
        options={targetKinds.map((kind) => [kind, words.kinds[kind]] as const)}
        onChange={(kind) => setWhat(kind as TargetKind)}
      />
      {what === "duration" && element !== process && (
        <BarChoice
          label={words.until}
          value={until}
          options={[["", words.alone], ...steps.map(({ id }) => [id, nameOf(model, id) || id] as const)]}
          onChange={setUntil}
        />
      )}
      {isTimed && <Small label={words.within} value={within} onType={setWithin} />}
      {what === "cost" && <Small label={words.amount} value={amount} onType={setAmount} />}
      <Small label={words.share} value={share} onType={setShare} />
      <Small label={words.days} value={days} onType={setDays} />
      <Button size="xs" variant="outline" onClick={add}>
        {words.add}
      </Button>
      {problem && (
        <chakra.span role="alert" color="trouble">
          {problem}
        </chakra.span>
      )}
    </Flex>
  );
}

function Small(props: { readonly label: string; readonly value: string; readonly onType: (value: string) => void }) {
  return (
    <chakra.input
      aria-label={props.label}
      title={props.label}
      value={props.value}
      w="90px"
      h="26px"
      px={2}
      fontSize="13px"
      bg="paper"
      borderWidth="1px"
      borderColor="line"
      borderRadius="6px"
      onChange={(event) => props.onType(event.target.value)}
    />
  );
}
