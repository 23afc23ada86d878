"use client";
import { Box, chakra, Flex, Table } from "@chakra-ui/react";
import { Check, Circle, Download } from "lucide-react";
import { useEffect, useMemo, useState } from "react";
import {
  type Checklist,
  type ChecklistRow,
  checklistCsv,
  checklistMarkdown,
  type Need,
  needWords,
  readyShare,
} from "@/core/handoff";
import { Choice } from "../../controls/fields";
import { complain } from "../../controls/notices";
import { PageLink } from "../../controls/PageLink";
import { EmptyState } from "../../controls/states";
import { giveFile } from "../../kernel/ask";
import { JobRunner } from "../../kernel/jobRunner";
import { text } from "../../messages";
import { useFindings } from "../../version/findings";
import { useVersion } from "../../version/VersionContext";

/** A page of lines; the whole list is in the files. */
const shownLines = 400;

/** What a machine needs of each step, what of it is there, and who gives what is missing. */
export function Readiness() {
  const { settled } = useFindings();
  const version = useVersion((state) => state.info.version.id);
  const title = useVersion((state) => state.info.process.name);
  const [list, setList] = useState<Checklist | null>(null);
  const [worker] = useState(() => new JobRunner());
  const [role, setRole] = useState("");
  const [onlyMissing, setOnlyMissing] = useState(true);
  useEffect(() => {
    let isStale = false;
    worker
      .run("checklist", { model: settled }, {})
      .then((found) => !isStale && setList(found))
      .catch(complain);
    return () => {
      isStale = true;
    };
  }, [worker, settled]);
  useEffect(() => () => worker.stop(), [worker]);
  const roles = useMemo(() => [...new Set((list?.rows ?? []).map((row) => row.role))].sort(), [list]);
  if (!list) return <chakra.p color="quiet">{text.check.looking}</chakra.p>;
  if (list.needed === 0) return <EmptyState>{text.handoff.nothingToAutomate}</EmptyState>;
  const lines = list.rows
    .filter((row) => role === "" || row.role === (role === nobody ? "" : role))
    .flatMap((row) => row.needs.filter((need) => !onlyMissing || !need.isThere).map((need) => ({ row, need })));
  const share = readyShare(list);
  return (
    <Box maxW="1080px">
      <Flex align="center" gap={4} mb={3} wrap="wrap">
        <chakra.span fontSize="22px" fontWeight="700" data-testid="ready-share">
          {share} %
        </chakra.span>
        <Box
          role="img"
          aria-label={text.handoff.readiness(list.there, list.needed)}
          w="160px"
          h="8px"
          borderRadius="4px"
          bg="line"
          overflow="hidden"
        >
          <Box h="100%" w={`${share}%`} bg={share === 100 ? "good" : "accent"} />
        </Box>
        <chakra.span color="quiet">{text.handoff.readiness(list.there, list.needed)}</chakra.span>
        <Box flex="1" />
        <Box w="190px">
          <Choice
            label={text.handoff.ofRole}
            value={role}
            options={[
              ["", text.handoff.allRoles],
              ...roles.map((one) => [one || nobody, one || text.handoff.noRole] as const),
            ]}
            onChoose={setRole}
          />
        </Box>
        <chakra.label display="flex" gap={1.5} alignItems="center" cursor="pointer">
          <input type="checkbox" checked={onlyMissing} onChange={(event) => setOnlyMissing(event.target.checked)} />
          {text.handoff.onlyMissing}
        </chakra.label>
        <FileButton
          words={text.compare.csv}
          onClick={() => giveFile(new Blob([`\uFEFF${checklistCsv(list)}`], { type: "text/csv" }), "checklist.csv")}
        />
        <FileButton
          words={text.compare.markdown}
          onClick={() =>
            giveFile(new Blob([checklistMarkdown(list, title)], { type: "text/markdown" }), "checklist.md")
          }
        />
      </Flex>
      {lines.length === 0 ? (
        <EmptyState>{text.handoff.nothingMissing}</EmptyState>
      ) : (
        <Table.Root size="sm" bg="paper" borderWidth="1px" borderColor="line" data-testid="checklist">
          <Table.Header>
            <Table.Row bg="sheet">
              {[text.handoff.step, text.handoff.needs, text.handoff.what, text.handoff.role, text.handoff.from].map(
                (head) => (
                  <Table.ColumnHeader key={head} color="quiet">
                    {head}
                  </Table.ColumnHeader>
                ),
              )}
            </Table.Row>
          </Table.Header>
          <Table.Body>
            {lines.slice(0, shownLines).map(({ row, need }) => (
              <Line key={`${row.element} ${need.name}`} version={version} row={row} need={need} />
            ))}
          </Table.Body>
        </Table.Root>
      )}
      {lines.length > shownLines && (
        <chakra.p color="quiet" mt={2}>
          {text.handoff.moreLines(lines.length - shownLines)}
        </chakra.p>
      )}
    </Box>
  );
}

/** A role cannot have this name: what stands in no lane. */
const nobody = "\u0000";

function Line({ version, row, need }: { readonly version: string; readonly row: ChecklistRow; readonly need: Need }) {
  const address = `/v/${encodeURIComponent(version)}/diagram?element=${encodeURIComponent(row.element)}`;
  return (
    <Table.Row bg="paper">
      <Table.Cell maxW="300px">
        <PageLink href={address}>
          <chakra.span color="accent" _hover={{ textDecoration: "underline" }}>
            {row.name}
          </chakra.span>
        </PageLink>
        <chakra.span color="quiet" ms={2}>
          {row.kind}
        </chakra.span>
      </Table.Cell>
      <Table.Cell whiteSpace="nowrap">
        <Flex align="center" gap={1.5} color={need.isThere ? "good" : "attention"}>
          {need.isThere ? <Check size={14} aria-hidden /> : <Circle size={12} aria-hidden />}
          <chakra.span color="ink">{needWords[need.name]}</chakra.span>
          <chakra.span srOnly>{need.isThere ? text.handoff.isThere : text.handoff.isMissing}</chakra.span>
        </Flex>
      </Table.Cell>
      <Table.Cell color={need.isThere ? "ink" : "quiet"} overflowWrap="anywhere">
        {need.says.text}
      </Table.Cell>
      <Table.Cell>{row.role}</Table.Cell>
      <Table.Cell whiteSpace="nowrap">{need.isThere ? "" : text.handoff.givers[need.from]}</Table.Cell>
    </Table.Row>
  );
}

function FileButton({ words, onClick }: { readonly words: string; readonly onClick: () => void }) {
  return (
    <chakra.button
      type="button"
      display="flex"
      alignItems="center"
      gap={1.5}
      h="28px"
      px={2.5}
      borderWidth="1px"
      borderColor="line"
      borderRadius="6px"
      bg="paper"
      fontSize="13px"
      cursor="pointer"
      onClick={onClick}
    >
      <Download size={13} aria-hidden /> {words}
    </chakra.button>
  );
}
