"use client";
import { Box, Button, chakra, Flex } from "@chakra-ui/react";
import NextLink from "next/link";
import { useSearchParams } from "next/navigation";
import { useCallback, useEffect, useState } from "react";
import { type EntryKind, entryKinds, foldedName, roleHues } from "@/core/directory";
import { ask } from "../api";
import { AskDialog } from "../controls/AskDialog";
import { Choice, TextField } from "../controls/fields";
import { EmptyState, LoadingPage } from "../controls/states";
import { complain, toaster } from "../controls/toaster";
import { text } from "../messages";
import { TopRow } from "../shell/TopRow";
import { type ListedEntry, useEntries } from "./entries";

const Link = chakra(NextLink);

/** One name for one thing: roles, units, systems, documents, terms, and where each is used. */
export function DirectoryPage() {
  const { entries, loaded, reload } = useEntries();
  const wanted = useSearchParams().get("entry");
  const [kind, setKind] = useState<EntryKind>("role");
  const [chosen, setChosen] = useState<string | null>(wanted);
  const [typed, setTyped] = useState("");
  const [adding, setAdding] = useState(false);
  const entry = entries.find((candidate) => candidate.id === chosen);
  useEffect(() => {
    reload().catch(complain);
  }, [reload]);
  useEffect(() => {
    const found = entries.find((candidate) => candidate.id === wanted);
    if (found) {
      setKind(found.kind);
      setChosen(found.id);
    }
  }, [wanted, entries]);
  const listed = entries.filter(
    (candidate) => candidate.kind === kind && foldedName(candidate.name).includes(foldedName(typed)),
  );
  const chooseKind = (next: EntryKind) => {
    setKind(next);
    setChosen(null);
  };
  return (
    <Flex direction="column" h="100dvh">
      <TopRow
        trail={
          <chakra.h1 color="ink" fontWeight="700">
            {text.directory.title}
          </chakra.h1>
        }
      />
      <Flex as="main" id="content" direction="column" flex="1" minH={0}>
        <Flex
          px={6}
          h="52px"
          gap={2}
          align="center"
          borderBottomWidth="1px"
          borderColor="line"
          bg="paper"
          flexShrink={0}
        >
          <Flex role="group" aria-label={text.directory.title} gap={1.5}>
            {entryKinds.map((one) => (
              <Button
                key={one}
                h="32px"
                variant="outline"
                aria-pressed={one === kind}
                bg="paper"
                color={one === kind ? "accent" : "ink"}
                fontWeight={one === kind ? "700" : "400"}
                borderColor={one === kind ? "accent" : "line"}
                borderBottomWidth={one === kind ? "3px" : "1px"}
                onClick={() => chooseKind(one)}
              >
                {text.directory.kinds[one]}
                <chakra.span color="quiet" fontWeight="400" fontSize="12px">
                  {entries.filter((candidate) => candidate.kind === one).length}
                </chakra.span>
              </Button>
            ))}
          </Flex>
          <Box flex="1" />
          <chakra.input
            aria-label={text.directory.filter}
            placeholder={text.directory.filter}
            value={typed}
            onChange={(event) => setTyped(event.target.value)}
            h="32px"
            w="180px"
            px={2}
            bg="paper"
            borderWidth="1px"
            borderColor="line"
            borderRadius="6px"
            _placeholder={{ color: "quiet" }}
          />
          <Button bg="accent" color="onAccent" h="32px" onClick={() => setAdding(true)}>
            {text.directory.add(text.directory.one[kind])}
          </Button>
        </Flex>
        {!loaded ? (
          <LoadingPage label={text.shell.loading} />
        ) : (
          <Flex flex="1" minH={0}>
            <Box flex="1.15" minW={0} overflow="auto" px={6} py={4}>
              {listed.length === 0 ? (
                <EmptyState>{text.directory.empty(text.directory.one[kind])}</EmptyState>
              ) : (
                <Box as="ul" listStyleType="none" borderTopWidth="1px" borderColor="line">
                  {listed.map((one) => (
                    <chakra.li key={one.id} borderBottomWidth="1px" borderColor="line">
                      <chakra.button
                        type="button"
                        aria-current={one.id === chosen}
                        onClick={() => setChosen(one.id)}
                        w="100%"
                        display="grid"
                        gridTemplateColumns="200px 1fr 90px"
                        gap={4}
                        textAlign="start"
                        px={3}
                        py={2}
                        cursor="pointer"
                        bg={one.id === chosen ? "accentSoft" : undefined}
                        _hover={{ bg: "accentSoft" }}
                      >
                        <Flex gap={2} align="center" fontWeight="600" minW={0}>
                          {one.hue && (
                            <chakra.span
                              w="5px"
                              h="18px"
                              borderRadius="1px"
                              style={{ background: one.hue }}
                              flexShrink={0}
                              aria-hidden="true"
                            />
                          )}
                          <chakra.span truncate>{one.name}</chakra.span>
                        </Flex>
                        <chakra.span color="quiet" truncate>
                          {one.description}
                        </chakra.span>
                        <chakra.span color="quiet" textAlign="end">
                          {text.directory.times(one.uses)}
                        </chakra.span>
                      </chakra.button>
                    </chakra.li>
                  ))}
                </Box>
              )}
            </Box>
            <Box
              as="section"
              aria-label={entry?.name ?? text.directory.choose}
              w="420px"
              borderLeftWidth="1px"
              borderColor="line"
              bg="sheet"
              overflow="auto"
              px={6}
              py={5}
            >
              {entry ? (
                <EntryDetail
                  key={entry.id}
                  entry={entry}
                  entries={entries}
                  onChanged={reload}
                  onGone={() => setChosen(null)}
                />
              ) : (
                <chakra.p color="quiet">{text.directory.choose}</chakra.p>
              )}
            </Box>
          </Flex>
        )}
      </Flex>
      {adding && (
        <AskDialog
          title={text.directory.add(text.directory.one[kind])}
          label={text.directory.name}
          action={text.directory.add(text.directory.one[kind])}
          onClose={() => setAdding(false)}
          onAnswer={async (name) => {
            const made = await ask<{ id: string }>("createEntry", { kind, name });
            await reload();
            setChosen(made.id);
          }}
        />
      )}
    </Flex>
  );
}

interface Use {
  readonly version: string;
  readonly versionName: string;
  readonly process: string;
  readonly element: string;
  readonly elementName: string;
  readonly how: string;
}

function EntryDetail({
  entry,
  entries,
  onChanged,
  onGone,
}: {
  readonly entry: ListedEntry;
  readonly entries: readonly ListedEntry[];
  readonly onChanged: () => Promise<void>;
  readonly onGone: () => void;
}) {
  const [uses, setUses] = useState<readonly Use[] | null>(null);
  const loadUses = useCallback(
    () =>
      ask<{ uses: Use[] }>("whereUsed", { id: entry.id })
        .then((answer) => setUses(answer.uses))
        .catch(complain),
    [entry.id],
  );
  useEffect(() => {
    void loadUses();
  }, [loadUses]);
  const change = async (fields: Partial<ListedEntry>) => {
    try {
      const { versions } = await ask<{ versions: string[] }>("changeEntry", { id: entry.id, ...fields });
      if (versions.length > 0) toaster.create({ description: text.directory.renamed(versions.length) });
      await onChanged();
      await loadUses();
    } catch (error) {
      complain(error);
    }
  };
  const remove = async () => {
    try {
      await ask("deleteEntry", { id: entry.id });
      onGone();
      await onChanged();
      toaster.create({
        description: text.home.removed(entry.name),
        action: {
          label: text.home.undo,
          onClick: () => void ask("restoreEntry", { id: entry.id }).then(onChanged).catch(complain),
        },
      });
    } catch (error) {
      complain(error);
    }
  };
  const units = entries.filter((candidate) => candidate.kind === "unit" && candidate.id !== entry.id);
  return (
    <>
      <chakra.h2 fontSize="17px" fontWeight="700" mb={4}>
        {entry.name}
      </chakra.h2>
      <Field label={text.directory.name}>
        <TextField
          label={text.directory.name}
          value={entry.name}
          onCommit={(name) => name.trim() && void change({ name: name.trim() })}
        />
      </Field>
      <Field label={text.directory.description}>
        <TextField
          label={text.directory.description}
          lines={3}
          value={entry.description}
          onCommit={(description) => void change({ description })}
        />
      </Field>
      {(entry.kind === "role" || entry.kind === "unit") && (
        <Field label={text.directory.unit}>
          <Choice
            label={text.directory.unit}
            value={entry.unit ?? ""}
            options={[["", text.directory.none], ...units.map((unit) => [unit.id, unit.name] as const)]}
            onChoose={(unit) => void change({ unit: unit === "" ? null : unit })}
          />
        </Field>
      )}
      {entry.kind === "role" && (
        <Field label={text.directory.hue}>
          <Flex gap={1.5} wrap="wrap" role="group" aria-label={text.directory.hue}>
            {roleHues.map((hue) => (
              <chakra.button
                key={hue}
                type="button"
                aria-label={hue}
                aria-pressed={hue === entry.hue}
                onClick={() => void change({ hue })}
                w="26px"
                h="26px"
                borderRadius="6px"
                borderWidth="2px"
                borderColor={hue === entry.hue ? "ink" : "transparent"}
                style={{ background: hue }}
                cursor="pointer"
              />
            ))}
          </Flex>
        </Field>
      )}
      <chakra.h3 fontSize="14px" fontWeight="700" mt={6} mb={2}>
        {text.directory.whereUsed}
      </chakra.h3>
      {uses?.length === 0 && <chakra.p color="quiet">{text.directory.notUsed}</chakra.p>}
      <Box as="ul" listStyleType="none">
        {uses?.map((use, at) => (
          <chakra.li key={at} py={1.5} borderBottomWidth="1px" borderColor="line">
            <Link
              href={`/v/${encodeURIComponent(use.version)}/diagram?element=${encodeURIComponent(use.element)}`}
              color="accent"
              textDecoration="underline"
            >
              {use.elementName}
            </Link>
            <chakra.span color="quiet">
              {" "}
              {use.how} · {use.process}, {use.versionName}
            </chakra.span>
          </chakra.li>
        ))}
      </Box>
      <Button mt={6} size="sm" variant="outline" color="trouble" borderColor="line" bg="paper" onClick={remove}>
        {text.directory.remove}
      </Button>
    </>
  );
}

function Field({ label, children }: { readonly label: string; readonly children: React.ReactNode }) {
  return (
    <Box mb={3}>
      <chakra.div color="quiet" fontSize="12px" mb={1}>
        {label}
      </chakra.div>
      {children}
    </Box>
  );
}
