"use client";
import { Box, Button, chakra, Flex, Text } from "@chakra-ui/react";
import { useRouter } from "next/navigation";
import { useEffect, useMemo, useState } from "react";
import { inVersion, review } from "@/contract";
import type { ReviewRow } from "@/contract/review";
import { sceneOf } from "@/core/drawing";
import { trustStored } from "@/core/model";
import { SceneView } from "../../canvas/SceneView";
import { DialogFrame } from "../../controls/DialogFrame";
import { TextField } from "../../controls/fields";
import { momentWords } from "../../controls/moment";
import { complain, tell } from "../../controls/notices";
import { ask } from "../../kernel/ask";
import { useAsked } from "../../kernel/queries";
import { text } from "../../messages";
import { useVersion, useVersionStore } from "../../version/VersionContext";

/** The kept states of a version with what was done between them: look at one, name it, compare two, put one back. */
export function HistoryDialog({ onClose, onKeep }: { readonly onClose: () => void; readonly onKeep: () => void }) {
  const version = useVersion((state) => state.info.version.id);
  const store = useVersionStore();
  const router = useRouter();
  const [shown, setShown] = useState<number | null>(null);
  const [marked, setMarked] = useState<readonly number[]>([]);
  // What is under way belongs to the list too.
  const isStored = useVersion((state) => state.pending.length === 0);
  const list = useAsked(inVersion.listRevisions, { version }, { isWanted: isStored, keepsLast: true });
  const kept = useAsked(inVersion.openRevision, { version, number: shown ?? 0 }, { isWanted: shown !== null });
  const model = useMemo(() => kept.data && trustStored(kept.data.model), [kept.data]);
  const rows = list.data?.revisions;
  const reviewed = useAsked(review.listReviews, { version }, { keepsLast: true }).data?.reviews ?? [];
  const problem = list.error ?? kept.error;
  useEffect(() => {
    if (problem) complain(problem);
  }, [problem]);
  const restore = async (number: number) => {
    await store.getState().settled();
    await ask(inVersion.restoreRevision, { version, number });
    await store.getState().reload();
    tell({ description: text.version.restored(number) });
    onClose();
  };
  const compare = (from: number, to: number | "now") => {
    onClose();
    const id = encodeURIComponent(version);
    router.push(`/v/${id}/compare?from=${id}@${from}&to=${to === "now" ? id : `${id}@${to}`}`);
  };
  const page = model && [...model.diagrams].sort((a, b) => a.order - b.order)[0];
  const [older, newer] = [...marked].sort((a, b) => a - b);
  return (
    <DialogFrame
      title={text.version.history}
      width="860px"
      onClose={onClose}
      aside={
        <Flex gap={2}>
          <Button
            size="sm"
            variant="outline"
            disabled={older === undefined}
            onClick={() => older !== undefined && compare(older, newer ?? "now")}
          >
            {newer === undefined ? text.version.compareNow : text.version.compareTwo}
          </Button>
          <Button size="sm" variant="outline" onClick={onKeep}>
            {text.version.keep}
          </Button>
        </Flex>
      }
      footer={
        <Button variant="ghost" onClick={onClose}>
          {text.dialog.close}
        </Button>
      }
    >
      {shown !== null && model && page && (
        <Box mb={4}>
          <Flex justify="space-between" align="center" mb={2}>
            <Text color="quiet">{text.version.reading(shown)}</Text>
            <Button size="xs" variant="ghost" fontSize="12px" onClick={() => setShown(null)}>
              {text.version.back}
            </Button>
          </Flex>
          <SceneView scene={sceneOf(model, page)} height={240} label={text.version.reading(shown)} />
        </Box>
      )}
      {rows?.length === 0 && <Text color="quiet">{text.version.revisionsNone}</Text>}
      {rows && rows.length > 0 && (
        <chakra.ol listStyleType="none" data-testid="revisions">
          <Changes version={version} after={rows[0]?.sequence ?? 0} upTo={1e9} title={text.version.sinceThen} />
          {rows.map((row, at) => (
            <Box as="li" key={row.number} borderTopWidth="1px" borderColor="line" py={1.5}>
              <Flex align="center" gap={3}>
                <input
                  type="checkbox"
                  aria-label={text.version.mark(row.number)}
                  checked={marked.includes(row.number)}
                  onChange={() =>
                    setMarked(
                      marked.includes(row.number)
                        ? marked.filter((one) => one !== row.number)
                        : [...marked, row.number].slice(-2),
                    )
                  }
                />
                <chakra.b w="28px">{row.number}</chakra.b>
                <Box flex="1">
                  <TextField
                    label={text.version.nameOf(row.number)}
                    value={row.reason}
                    onCommit={(reason) =>
                      ask(inVersion.labelRevision, { version, number: row.number, reason })
                        .then(() => list.refetch())
                        .catch(complain)
                    }
                  />
                </Box>
                <chakra.span color="quiet" fontSize="13px" whiteSpace="nowrap">
                  {row.member}, {momentWords(row.at)}
                </chakra.span>
                <Button size="xs" variant="ghost" fontSize="12px" onClick={() => setShown(row.number)}>
                  {text.version.look}
                </Button>
                <Button size="xs" variant="ghost" fontSize="12px" onClick={() => restore(row.number).catch(complain)}>
                  {text.version.restore}
                </Button>
              </Flex>
              {reviewed
                .filter(({ revision, state }) => revision === row.number && state !== "withdrawn")
                .map((round) => (
                  <Reviewed key={round.id} round={round} />
                ))}
              <Changes
                version={version}
                after={rows[at + 1]?.sequence ?? -1}
                upTo={row.sequence}
                title={text.version.changedUntil}
              />
            </Box>
          ))}
        </chakra.ol>
      )}
    </DialogFrame>
  );
}

/** What was done between two kept states, in words, asked for when it is opened. */
function Changes({
  version,
  after,
  upTo,
  title,
}: {
  readonly version: string;
  readonly after: number;
  readonly upTo: number;
  readonly title: string;
}) {
  const [isOpen, setOpen] = useState(false);
  const changes = useAsked(inVersion.listHistory, { version, after, upTo }, { isWanted: isOpen }).data?.changes;
  return (
    <chakra.details ps="46px" fontSize="13px" onToggle={(event) => setOpen(event.currentTarget.open)}>
      <chakra.summary color="quiet" cursor="pointer">
        {title}
      </chakra.summary>
      <chakra.ul listStyleType="none" py={1}>
        {changes?.length === 0 && <chakra.li color="quiet">{text.version.nothingChanged}</chakra.li>}
        {changes?.map((change) => (
          <li key={change.sequence}>
            {change.label}{" "}
            <chakra.span color="quiet">
              {change.member}, {momentWords(change.at)}
            </chakra.span>
          </li>
        ))}
      </chakra.ul>
    </chakra.details>
  );
}

/** What members said who were asked about a kept state. */
function Reviewed({ round: { state, reviewers } }: { readonly round: ReviewRow }) {
  const tone = state === "approved" ? "good" : state === "rejected" ? "trouble" : "quiet";
  return (
    <chakra.p fontSize="13px" ps="60px" data-testid="reviewed">
      <chakra.b color={tone}>{text.review.states[state]}</chakra.b>:{" "}
      {reviewers
        .map(({ name, answer }) => `${name} ${answer === null ? text.review.waiting : text.review.answered[answer]}`)
        .join(", ")}
    </chakra.p>
  );
}
