"use client";
import { Box, chakra, Flex } from "@chakra-ui/react";
import { useSearchParams } from "next/navigation";
import { useState } from "react";
import { finding } from "@/contract";
import type { SearchRow } from "@/contract/find";
import { term } from "@/core/messages";
import { useEntries } from "../controls/entries";
import { Choice } from "../controls/fields";
import { PageLink } from "../controls/PageLink";
import { EmptyState, ErrorPage, LoadingPage } from "../controls/states";
import { useAsked } from "../kernel/queries";
import { useRested } from "../kernel/useRested";
import { wordsOf } from "../kernel/wordsOf";
import { text, worded } from "../messages";
import { TopRow } from "../shell/TopRow";

/** Elements of all processes: by words, type, role, system. */
export function FindPage() {
  const { entries } = useEntries();
  const [typed, setTyped] = useState(useSearchParams().get("text") ?? "");
  const [wanted, setWanted] = useState({ type: "", role: "", system: "" });
  const types = useAsked(finding.listTypes, {}).data?.types ?? [];
  const asked = useRested(typed.slice(0, 100), 150);
  const chosen = Object.fromEntries(Object.entries(wanted).filter(([, value]) => value !== ""));
  const search = useAsked(finding.searchElements, { text: asked, ...chosen }, { keepsLast: true });
  const entriesOf = (kind: "role" | "system") =>
    entries.filter((entry) => entry.kind === kind).map((entry) => [entry.id, entry.name] as const);
  const choices = [
    ["type", types.map(({ type, count }) => [type, `${worded(term(type))} (${count})`] as const)],
    ["role", entriesOf("role")],
    ["system", entriesOf("system")],
  ] as const;
  return (
    <Flex direction="column" h="100%">
      <TopRow
        trail={
          <chakra.h1 color="ink" fontWeight="700">
            {text.find.title}
          </chakra.h1>
        }
      />
      <Flex px={6} py={3} gap={5} align="center" bg="paper" borderBottomWidth="1px" borderColor="line" wrap="wrap">
        <chakra.input
          type="search"
          aria-label={text.find.words}
          placeholder={text.find.words}
          value={typed}
          onChange={(event) => setTyped(event.target.value)}
          autoFocus
          h="32px"
          w="320px"
          px={2}
          bg="paper"
          borderWidth="1px"
          borderColor="line"
          borderRadius="6px"
          _placeholder={{ color: "quiet" }}
        />
        {choices.map(([field, options]) => (
          <Flex key={field} gap={2} align="center">
            <chakra.span color="quiet">{text.find.by[field]}</chakra.span>
            <Choice
              label={text.find.by[field]}
              value={wanted[field]}
              options={[["", text.find.any], ...options]}
              onChoose={(value) => setWanted({ ...wanted, [field]: value })}
            />
          </Flex>
        ))}
      </Flex>
      <Box as="main" id="content" flex="1" minH={0} overflow="auto" px={6} py={4}>
        {search.error ? (
          <ErrorPage message={wordsOf(search.error)} retry={() => void search.refetch()} />
        ) : search.data === undefined ? (
          <LoadingPage label={text.shell.loading} />
        ) : search.data.total === 0 ? (
          <EmptyState>{text.find.empty}</EmptyState>
        ) : (
          <Results {...search.data} />
        )}
      </Box>
    </Flex>
  );
}

function Results({ total, rows }: { readonly total: number; readonly rows: readonly SearchRow[] }) {
  return (
    <>
      <chakra.p role="status" color="quiet" mb={3}>
        {text.find.count(total, rows.length)}
      </chakra.p>
      <chakra.table w="100%" bg="paper" borderWidth="1px" borderColor="line">
        <thead>
          <tr>
            {[text.find.element, text.find.by.type, text.home.process, text.find.said].map((heading) => (
              <chakra.th key={heading} textAlign="start" px={3} h="32px" color="quiet" fontWeight="600" bg="sheet">
                {heading}
              </chakra.th>
            ))}
          </tr>
        </thead>
        <tbody>
          {rows.map((row) => (
            <chakra.tr key={`${row.version} ${row.element}`} borderTopWidth="1px" borderColor="line">
              <chakra.td px={3} py={1.5}>
                <PageLink
                  href={`/v/${encodeURIComponent(row.version)}/diagram?element=${encodeURIComponent(row.element)}`}
                  color="accent"
                  textDecoration="underline"
                >
                  {row.name || text.find.nameless}
                </PageLink>
              </chakra.td>
              <chakra.td px={3}>{worded(term(row.type))}</chakra.td>
              <chakra.td px={3}>
                {row.process}
                <chakra.span color="quiet">, {row.versionName}</chakra.span>
              </chakra.td>
              <chakra.td px={3} color="quiet">
                {row.excerpt}
              </chakra.td>
            </chakra.tr>
          ))}
        </tbody>
      </chakra.table>
    </>
  );
}
