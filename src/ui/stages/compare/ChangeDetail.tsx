"use client";
import { Box, Button, chakra, Flex } from "@chakra-ui/react";
import { useRouter } from "next/navigation";
import type { ReactNode } from "react";
import type { ReasonRow } from "@/contract/compare";
import { type ChangeGroup, changeStates, noReason, pains, type Reason, technicalLines } from "@/core/compare";
import { type Id, isConnection, type Model, nameOf } from "@/core/model";
import { Choice, TextField } from "../../controls/fields";
import { momentWords } from "../../controls/moment";
import { text, typeWord, worded } from "../../messages";
import { CommentOn } from "../../version/comments/CommentOn";
import { aboutOf } from "../../version/comments/store";
import { type BothForecasts, ForecastOfExpected } from "./Forecasts";
import { Linking } from "./Linking";
import type { Side } from "./sides";
import type { Compared, GiveReason } from "./useComparison";

interface ChangeDetailProps {
  readonly compared: Compared;
  readonly group: ChangeGroup;
  readonly kept: ReasonRow | undefined;
  /** What both sides come to, where they say enough for that. */
  readonly both: BothForecasts | undefined;
  /** Undefined where reasons have nowhere to be kept. */
  /** Null until it is known what was said; undefined where nothing can be. */
  readonly onReason: ((reason: Parameters<GiveReason>[1]) => void) | null | undefined;
  readonly onTake: (into: "from" | "to") => void;
  readonly onLinked: () => void;
}

/** What exactly is different, why, and what can be done about it. */
export function ChangeDetail({ compared, group, kept, both, onReason, onTake, onLinked }: ChangeDetailProps) {
  const router = useRouter();
  const open = (side: Side, ids: readonly string[]) =>
    side.head &&
    ids[0] !== undefined &&
    router.push(`/v/${encodeURIComponent(side.head.version)}/diagram?element=${encodeURIComponent(ids[0])}`);
  return (
    <Flex px={5} pb={3} pt={1} gap={6} align="stretch" data-testid="change-detail">
      <Box flex="1.1" minW={0}>
        <Differences compared={compared} group={group} />
        <Flex gap={2} mt={2} wrap="wrap">
          {(["from", "to"] as const).map((hand) => (
            <Action
              key={hand}
              disabled={!compared[hand].head}
              title={compared[hand].head ? undefined : text.compare.notChangeable}
              onClick={() => onTake(hand)}
            >
              {hand === "from" ? text.compare.takeInto(compared.from.title) : text.compare.takeBack(compared.to.title)}
            </Action>
          ))}
          {compared.from.head && group.from.length > 0 && (
            <Action onClick={() => open(compared.from, group.from)}>{text.compare.openIn(compared.from.title)}</Action>
          )}
          {compared.to.head && group.to.length > 0 && (
            <Action onClick={() => open(compared.to, group.to)}>{text.compare.openIn(compared.to.title)}</Action>
          )}
          <CommentOn about={aboutOf("change", group.key, worded(group.said))} />
        </Flex>
        <Linking compared={compared} group={group} onLinked={onLinked} />
      </Box>
      <Box flex="1" minW={0}>
        {onReason ? (
          <ReasonFields reason={kept?.reason ?? noReason} kept={kept} both={both} onReason={onReason} />
        ) : (
          onReason === undefined && <chakra.p color="quiet">{text.compare.noReasons}</chakra.p>
        )}
      </Box>
    </Flex>
  );
}

function Action({
  children,
  ...rest
}: {
  readonly children: React.ReactNode;
  readonly onClick: () => void;
  readonly disabled?: boolean;
  readonly title?: string | undefined;
}) {
  return (
    <Button size="xs" variant="outline" bg="paper" borderColor="line" fontSize="12px" {...rest}>
      {children}
    </Button>
  );
}

/** A name; of a flow without one, what it leads from and to. */
function calledBy(model: Model, id: Id): string {
  const element = model.elements.get(id);
  const own = nameOf(model, id);
  if (own || !element) return own;
  const end = (ref: unknown) => nameOf(model, String(ref)) || typeWord(model.elements.get(String(ref))?.type ?? "");
  return isConnection(element.type) ? `${end(element.sourceRef)} → ${end(element.targetRef)}` : typeWord(element.type);
}

interface DifferenceRow {
  readonly key: string;
  readonly name: string;
  readonly field: string;
  readonly from: ReactNode;
  readonly to: ReactNode;
}

/** What developers keep with an element, as a tree. */
function Technical({ held }: { readonly held: string }) {
  const lines = technicalLines(held);
  if (lines.length === 0) return text.compare.nothing;
  return lines.map(({ depth, words }, at) => (
    <chakra.div key={at} ps={`${depth * 14}px`}>
      {words}
    </chakra.div>
  ));
}

function Differences({ compared, group }: { readonly compared: Compared; readonly group: ChangeGroup }) {
  const rows = group.changes.flatMap((change): DifferenceRow[] => {
    const subject = change.to ?? change.from;
    const model = change.to ? compared.to.model : compared.from.model;
    const name = subject ? calledBy(model, subject.id) : "";
    if (change.kind === "new" || change.kind === "gone")
      return [{ key: `${change.kind} ${subject?.id}`, name, field: text.compare.kinds[change.kind], from: "", to: "" }];
    return change.fields.map(({ field, from, to }) => ({
      key: `${subject?.id} ${field}`,
      name,
      field: text.compare.fields[field],
      from: field === "extension" ? <Technical held={from} /> : from || text.compare.nothing,
      to: field === "extension" ? <Technical held={to} /> : to || text.compare.nothing,
    }));
  });
  return (
    <chakra.table
      fontSize="13px"
      w="100%"
      css={{
        "& td, & th": { textAlign: "start", paddingInlineEnd: "12px", verticalAlign: "top", whiteSpace: "pre-line" },
      }}
    >
      <thead>
        <chakra.tr color="quiet" fontSize="12px">
          <chakra.th fontWeight="400">{text.compare.element}</chakra.th>
          <chakra.th fontWeight="400">{text.compare.what}</chakra.th>
          <chakra.th fontWeight="400">{text.compare.was}</chakra.th>
          <chakra.th fontWeight="400">{text.compare.is}</chakra.th>
        </chakra.tr>
      </thead>
      <tbody>
        {rows.map((row) => (
          <tr key={row.key}>
            <td>{row.name}</td>
            <td>{row.field}</td>
            <chakra.td color="pencil" wordBreak="break-word">
              {row.from}
            </chakra.td>
            <chakra.td color="accent" wordBreak="break-word">
              {row.to}
            </chakra.td>
          </tr>
        ))}
        {rows.length === 0 && (
          <tr>
            <td colSpan={4}>{text.compare.orderOnly}</td>
          </tr>
        )}
      </tbody>
    </chakra.table>
  );
}

function ReasonFields({
  reason,
  kept,
  both,
  onReason,
}: {
  readonly reason: Reason;
  readonly both: BothForecasts | undefined;
  readonly kept: ReasonRow | undefined;
  readonly onReason: (reason: Parameters<GiveReason>[1]) => void;
}) {
  return (
    <>
      <chakra.fieldset mb={1.5}>
        <chakra.legend fontSize="12px" color="quiet" float="left" me={3}>
          {text.compare.answers}
        </chakra.legend>
        <Flex gap={3} wrap="wrap">
          {pains.map((pain) => (
            <chakra.label key={pain} display="flex" gap={1} alignItems="center" fontSize="13px" cursor="pointer">
              <input
                type="checkbox"
                checked={reason.pains.includes(pain)}
                onChange={() =>
                  onReason((last) => ({
                    ...last,
                    pains: last.pains.includes(pain)
                      ? last.pains.filter((one) => one !== pain)
                      : pains.filter((one) => one === pain || last.pains.includes(one)),
                  }))
                }
              />
              {text.compare.pains[pain]}
            </chakra.label>
          ))}
        </Flex>
      </chakra.fieldset>
      <Flex gap={2} mb={1.5}>
        <TextField
          label={text.compare.expected}
          placeholder={text.compare.expected}
          value={reason.effect}
          onCommit={(effect) => onReason((last) => ({ ...last, effect }))}
        />
        <Choice
          label={text.compare.state}
          value={reason.state}
          options={changeStates.map((state) => [state, text.compare.states[state]])}
          onChoose={(state) => onReason((last) => ({ ...last, state }))}
        />
      </Flex>
      <ForecastOfExpected both={both} effect={reason.effect} />
      <TextField
        label={text.compare.note}
        placeholder={text.compare.noteHint}
        lines={2}
        value={reason.note}
        onCommit={(note) => onReason((last) => ({ ...last, note }))}
      />
      {kept && (
        <Flex fontSize="12px" color="quiet" justify="space-between" mt={1}>
          <span>
            {kept.member}, {momentWords(kept.at)}
          </span>
          <chakra.button type="button" color="accent" cursor="pointer" onClick={() => onReason(null)}>
            {text.compare.takeReasonBack}
          </chakra.button>
        </Flex>
      )}
    </>
  );
}
