"use client";
import { Box, Button, chakra, Flex, Text } from "@chakra-ui/react";
import { useRouter } from "next/navigation";
import { useCallback, useEffect, useState } from "react";
import { inVersion } from "@/contract";
import type { HistoryRow, RevisionRow } from "@/contract/version";
import { sceneOf } from "@/core/drawing";
import { type Model, trustStored } from "@/core/model";
import { SceneView } from "../../canvas/SceneView";
import { DialogFrame } from "../../controls/DialogFrame";
import { TextField } from "../../controls/fields";
import { momentWords } from "../../controls/moment";
import { complain, toaster } from "../../controls/toaster";
import { ask } from "../../kernel/ask";
import { text } from "../../messages";
import { useVersion, useVersionStore } from "../../version/VersionContext";

/** The kept states of a version with what was done between them: look at one, name it, compare two, put one back. */
export function HistoryDialog({ onClose, onKeep }: { readonly onClose: () => void; readonly onKeep: () => void }) {
  const version = useVersion((state) => state.info.version.id);
  const store = useVersionStore();
  const router = useRouter();
  const [rows, setRows] = useState<readonly RevisionRow[] | null>(null);
  const [shown, setShown] = useState<{ number: number; model: Model } | null>(null);
  const [marked, setMarked] = useState<readonly number[]>([]);
  const load = useCallback(async () => {
    await store.getState().settled();
    const { revisions } = await ask(inVersion.listRevisions, { version });
    setRows(revisions);
  }, [store, version]);
  useEffect(() => {
    load().catch(complain);
  }, [load]);
  const look = async (number: number) => {
    const answer = await ask(inVersion.openRevision, { version, number });
    setShown({ number, model: trustStored(answer.model) });
  };
  const restore = async (number: number) => {
    await store.getState().settled();
    await ask(inVersion.restoreRevision, { version, number });
    await store.getState().reload();
    toaster.create({ description: text.version.restored(number) });
    onClose();
  };
  const compare = (from: number, to: number | "now") => {
    onClose();
    const id = encodeURIComponent(version);
    router.push(`/v/${id}/compare?from=${id}@${from}&to=${to === "now" ? id : `${id}@${to}`}`);
  };
  const page = shown && [...shown.model.diagrams].sort((a, b) => a.order - b.order)[0];
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
      {shown && page && (
        <Box mb={4}>
          <Flex justify="space-between" align="center" mb={2}>
            <Text color="quiet">{text.version.reading(shown.number)}</Text>
            <Button size="xs" variant="ghost" fontSize="12px" onClick={() => setShown(null)}>
              {text.version.back}
            </Button>
          </Flex>
          <SceneView scene={sceneOf(shown.model, page)} height={240} label={text.version.reading(shown.number)} />
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
                      ask(inVersion.labelRevision, { version, number: row.number, reason }).then(load).catch(complain)
                    }
                  />
                </Box>
                <chakra.span color="quiet" fontSize="13px" whiteSpace="nowrap">
                  {row.member}, {momentWords(row.at)}
                </chakra.span>
                <Button size="xs" variant="ghost" fontSize="12px" onClick={() => look(row.number).catch(complain)}>
                  {text.version.look}
                </Button>
                <Button size="xs" variant="ghost" fontSize="12px" onClick={() => restore(row.number).catch(complain)}>
                  {text.version.restore}
                </Button>
              </Flex>
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
  const [changes, setChanges] = useState<readonly HistoryRow[] | null>(null);
  return (
    <chakra.details
      ps="46px"
      fontSize="13px"
      onToggle={(event) => {
        if (!event.currentTarget.open || changes) return;
        ask(inVersion.listHistory, { version, after, upTo })
          .then((answer) => setChanges(answer.changes))
          .catch(complain);
      }}
    >
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
