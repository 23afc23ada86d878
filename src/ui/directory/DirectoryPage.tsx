"use client";
import { Box, Button, chakra, Flex, Menu, Portal } from "@chakra-ui/react";
import { useSearchParams } from "next/navigation";
import { useEffect, useMemo, useRef, useState } from "react";
import { directory } from "@/contract";
import { type EntryKind, entryKinds, foldedName, similarEntries } from "@/core/directory";
import { decodeText } from "@/core/table";
import { AskDialog } from "../controls/AskDialog";
import { createEntry, useEntries } from "../controls/entries";
import { complain, tell } from "../controls/notices";
import { PageLink } from "../controls/PageLink";
import { EmptyState, LoadingPage } from "../controls/states";
import { ask } from "../kernel/ask";
import { doAct, undoLast } from "../kernel/history";
import { useMay } from "../kernel/useMay";
import { text } from "../messages";
import { TopRow } from "../shell/TopRow";
import { EntryDetail } from "./EntryDetail";
import { EntryList } from "./EntryList";
import { OrganisationTree } from "./OrganisationTree";
import { Overview } from "./Overview";
import { SpellingNotes } from "./SpellingNotes";

/** One name for one thing: roles, units, systems, documents, terms, and where each is used. */
export function DirectoryPage() {
  const { entries, loaded, reload } = useEntries();
  const wanted = useSearchParams().get("entry");
  const [kind, setKind] = useState<EntryKind>("role");
  const [chosen, setChosen] = useState<string | null>(wanted);
  const [typed, setTyped] = useState("");
  const [adding, setAdding] = useState(false);
  const mayChange = useMay("edit");
  const file = useRef<HTMLInputElement>(null);
  const entry = entries.find((candidate) => candidate.id === chosen);
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
  const similar = useMemo(() => similarEntries(entries), [entries]);
  const tellUndoable = (description: string) =>
    tell({
      description,
      action: { label: text.home.undo, onClick: () => void undoLast().then(reload).catch(complain) },
    });
  const merge = async (from: string, into: string) => {
    const named = (id: string) => entries.find((one) => one.id === id)?.name ?? "";
    try {
      const [gone, stays] = [named(from), named(into)];
      const { versions } = await doAct(
        text.directory.merging(gone, stays),
        () => ask(directory.mergeEntries, { from, into }),
        ({ before }) => ask(directory.takeBackDirectory, before),
      );
      setChosen(into);
      await reload();
      tellUndoable(text.directory.merged(gone, stays, versions.length));
    } catch (reason) {
      complain(reason);
    }
  };
  const takeOver = async (picked: File | undefined) => {
    if (!picked) return;
    try {
      const content = decodeText(new Uint8Array(await picked.arrayBuffer()));
      const answer = await doAct(
        text.directory.importing(picked.name),
        () => ask(directory.importDirectory, { text: content }),
        ({ before }) => ask(directory.takeBackDirectory, before),
      );
      await reload();
      tellUndoable(text.directory.imported(answer.made, answer.known));
    } catch (reason) {
      complain(reason);
    }
  };
  /** Whatever it is: its list is shown with it. */
  const chooseAny = (id: string) => {
    setKind(entries.find((one) => one.id === id)?.kind ?? kind);
    setChosen(id);
  };
  const chooseKind = (next: EntryKind) => {
    setKind(next);
    setChosen(null);
  };
  return (
    <Flex direction="column" h="100%">
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
            <Button asChild h="32px" variant="outline" bg="paper" order={1}>
              <PageLink href="/decisions">{text.decisions.title}</PageLink>
            </Button>
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
          <Menu.Root>
            <Menu.Trigger asChild>
              <Button variant="outline" h="32px" bg="paper" borderColor="line">
                {text.directory.file}
              </Button>
            </Menu.Trigger>
            <Portal>
              <Menu.Positioner>
                <Menu.Content>
                  <Menu.Item value="import" onClick={() => file.current?.click()}>
                    {text.directory.import}
                  </Menu.Item>
                  {(["csv", "json"] as const).map((format) => (
                    <Menu.Item key={format} value={format} asChild>
                      <a href={`/api/directory?format=${format}`} download>
                        {text.directory.export[format]}
                      </a>
                    </Menu.Item>
                  ))}
                </Menu.Content>
              </Menu.Positioner>
            </Portal>
          </Menu.Root>
          <input
            ref={file}
            type="file"
            hidden
            accept=".csv,.tsv,.json"
            aria-label={text.directory.import}
            onChange={(event) => {
              void takeOver(event.target.files?.[0]);
              event.target.value = "";
            }}
          />
          {mayChange && (
            <Button bg="accent" color="onAccent" h="32px" onClick={() => setAdding(true)}>
              {text.directory.add(text.directory.one[kind])}
            </Button>
          )}
        </Flex>
        {!loaded ? (
          <LoadingPage label={text.shell.loading} />
        ) : (
          <Flex flex="1" minH={0}>
            <Box flex="1.15" minW={0} overflow="auto" px={6} py={4}>
              <SpellingNotes pairs={similar.filter((pair) => pair.one.kind === kind)} onMerge={merge} />
              {kind === "unit" ? (
                <OrganisationTree entries={entries} filter={typed} chosen={chosen} onChoose={setChosen} />
              ) : listed.length === 0 ? (
                <EmptyState>{text.directory.empty(text.directory.one[kind])}</EmptyState>
              ) : (
                <EntryList entries={listed} chosen={chosen} onChoose={setChosen} />
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
                  onMerge={merge}
                />
              ) : (
                <Overview
                  entries={entries}
                  similar={similar.filter((pair) => pair.one.kind !== kind)}
                  isOrganisationShown={kind === "unit"}
                  onChoose={chooseAny}
                  onMerge={merge}
                />
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
            setChosen((await createEntry(kind, name)).id);
          }}
        />
      )}
    </Flex>
  );
}
