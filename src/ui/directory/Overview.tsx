"use client";
import { Box, chakra } from "@chakra-ui/react";
import type { ReactNode } from "react";
import type { ListedEntry } from "@/contract/directory";
import type { SimilarPair } from "@/core/directory";
import { text } from "../messages";
import { OrganisationTree } from "./OrganisationTree";
import { SpellingNotes } from "./SpellingNotes";

/** How many entries are told of those that are used most. */
const most = 8;

interface OverviewProps {
  readonly entries: readonly ListedEntry[];
  readonly similar: readonly SimilarPair[];
  /** The organisation stands in the list already. */
  readonly isOrganisationShown: boolean;
  readonly onChoose: (id: string) => void;
  readonly onMerge: (from: string, into: string) => void;
}

/** What stands beside the list until an entry is chosen: the organisation, what is used most, what is used nowhere, doubtful spellings. */
export function Overview({ entries, similar, isOrganisationShown, onChoose, onMerge }: OverviewProps) {
  const used = entries.filter(({ uses }) => uses > 0).sort((a, b) => b.uses - a.uses || a.name.localeCompare(b.name));
  const unused = entries.filter(({ uses, kind }) => uses === 0 && kind !== "unit");
  const highest = used[0]?.uses ?? 1;
  return (
    <>
      <chakra.p color="quiet" mb={4}>
        {text.directory.choose}
      </chakra.p>
      <SpellingNotes pairs={similar} onMerge={onMerge} />
      {!isOrganisationShown && entries.some(({ kind }) => kind === "unit") && (
        <Part title={text.directory.organisation}>
          <OrganisationTree entries={entries} filter="" chosen={null} onChoose={onChoose} />
        </Part>
      )}
      {used.length > 0 && (
        <Part title={text.directory.mostUsed}>
          {used.slice(0, most).map((entry) => (
            <chakra.button
              key={entry.id}
              type="button"
              aria-label={text.directory.usedTimes(text.directory.one[entry.kind], entry.name, entry.uses)}
              display="grid"
              gridTemplateColumns="1fr 96px 28px"
              gap={2}
              w="100%"
              minH="26px"
              alignItems="center"
              textAlign="start"
              cursor="pointer"
              onClick={() => onChoose(entry.id)}
            >
              <chakra.span truncate>
                {entry.name} <chakra.span color="quiet">{text.directory.one[entry.kind]}</chakra.span>
              </chakra.span>
              <Box h="8px" bg="ground" borderRadius="2px">
                <Box h="8px" bg="accent" borderRadius="2px" style={{ width: `${(entry.uses / highest) * 100}%` }} />
              </Box>
              <chakra.span textAlign="end">{entry.uses}</chakra.span>
            </chakra.button>
          ))}
        </Part>
      )}
      {unused.length > 0 && (
        <Part title={text.directory.usedNowhere}>
          {unused.slice(0, most).map((entry) => (
            <chakra.button
              key={entry.id}
              type="button"
              aria-label={text.directory.usedTimes(text.directory.one[entry.kind], entry.name, 0)}
              display="block"
              w="100%"
              minH="26px"
              textAlign="start"
              cursor="pointer"
              onClick={() => onChoose(entry.id)}
            >
              {entry.name} <chakra.span color="quiet">{text.directory.one[entry.kind]}</chakra.span>
            </chakra.button>
          ))}
          {unused.length > most && <chakra.p color="quiet">{text.directory.andMore(unused.length - most)}</chakra.p>}
        </Part>
      )}
    </>
  );
}

function Part({ title, children }: { readonly title: string; readonly children: ReactNode }) {
  return (
    <Box as="section" aria-label={title} mb={5}>
      <chakra.h2 fontSize="13px" fontWeight="600" color="quiet" mb={1.5}>
        {title}
      </chakra.h2>
      {children}
    </Box>
  );
}
