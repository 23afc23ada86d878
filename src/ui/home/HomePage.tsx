"use client";
import { Box, Button, chakra, Flex, Table } from "@chakra-ui/react";
import { FilePlus2, FolderPlus, Network, Search, Upload } from "lucide-react";
import { nanoid } from "nanoid";
import { useRouter } from "next/navigation";
import { type DragEvent, useCallback, useEffect, useMemo, useRef, useState } from "react";
import { ask, sendBytes } from "../api";
import { EmptyState, ErrorPage, LoadingPage } from "../controls/states";
import { complain, toaster } from "../controls/toaster";
import { text } from "../messages";
import { TopRow } from "../shell/TopRow";
import { AreaTree } from "./AreaTree";
import { type Asking, HomeDialog } from "./HomeDialog";
import type { HomeData } from "./homeData";
import { Landscape } from "./Landscape";
import { ProcessRows } from "./ProcessRows";

/** Areas as a tree, processes as a table, files dropped in from anywhere. */
export function HomePage() {
  const [data, setData] = useState<HomeData | null>(null);
  const [error, setError] = useState<string | null>(null);
  const [area, setArea] = useState<string | null>(null);
  const [asking, setAsking] = useState<Asking | null>(null);
  const [dropping, setDropping] = useState(false);
  const [reading, setReading] = useState<string | null>(null);
  const [landscape, setLandscape] = useState(false);
  const stopReading = useRef<AbortController | null>(null);
  const [expanded, setExpanded] = useState<string | null>(null);
  const file = useRef<HTMLInputElement>(null);
  const router = useRouter();
  const load = useCallback(async () => {
    try {
      setData(await ask<HomeData>("openHome"));
      setError(null);
    } catch (reason) {
      setError((reason as Error).message);
    }
  }, []);
  useEffect(() => {
    void load();
  }, [load]);

  const inside = useMemo(() => {
    if (!data || area === null) return null;
    const found = new Set([area]);
    for (let grown = true; grown; ) {
      grown = false;
      for (const one of data.areas) {
        if (one.parent && found.has(one.parent) && !found.has(one.id)) {
          found.add(one.id);
          grown = true;
        }
      }
    }
    return found;
  }, [data, area]);

  if (error) return <ErrorPage message={error} retry={load} />;
  if (!data) return <LoadingPage label={text.shell.loading} />;
  const processes = data.processes.filter((process) => !inside || inside.has(process.area));
  const target = area ?? data.areas[0]?.id ?? "";

  const run = async (useCase: string, input: unknown) => {
    await ask(useCase, input);
    await load();
  };
  const removed = async (useCase: string, id: string, name: string) => {
    try {
      const { at } = await ask<{ at: string }>(useCase, { id });
      await load();
      toaster.create({
        description: text.home.removed(name),
        action: { label: text.home.undo, onClick: () => void run("undelete", { at }).catch(complain) },
      });
    } catch (reason) {
      complain(reason);
    }
  };
  const open = async (files: FileList | null | undefined) => {
    const all = [...(files ?? [])];
    // One area for all of them, made when the first is about to come.
    let into = target;
    for (const one of all) {
      setReading(one.name);
      const stop = new AbortController();
      stopReading.current = stop;
      try {
        into ||= await newFirstArea();
        const made = await sendBytes<{ version: string }>(
          `/api/import?area=${encodeURIComponent(into)}&name=${encodeURIComponent(one.name)}`,
          one,
          stop.signal,
        );
        await load();
        if (all.length === 1) router.push(`/v/${encodeURIComponent(made.version)}/diagram`);
      } catch (reason) {
        if (!stop.signal.aborted) complain(reason);
      }
      setReading(null);
    }
  };
  const newFirstArea = async () => {
    const id = nanoid(12);
    await ask("createArea", { id, name: text.home.areas, parent: null });
    return id;
  };
  const onDrop = (event: DragEvent) => {
    event.preventDefault();
    setDropping(false);
    void open(event.dataTransfer.files);
  };
  return (
    <Flex
      direction="column"
      h="100dvh"
      onDragOver={(event) => {
        event.preventDefault();
        if (event.dataTransfer.types.includes("Files")) setDropping(true);
      }}
      onDragLeave={(event) => event.currentTarget === event.target && setDropping(false)}
      onDrop={onDrop}
    >
      <TopRow
        trail={
          <chakra.h1 color="ink" fontWeight="700">
            {text.shell.home}
          </chakra.h1>
        }
        commands={[
          { id: "new-process", title: text.home.newProcess, run: () => setAsking({ kind: "process" }) },
          { id: "landscape", title: text.home.landscape, run: () => setLandscape(true) },
          { id: "open-file", title: text.home.openFile, run: () => file.current?.click() },
        ]}
      />
      <Flex flex="1" minH={0}>
        <Flex
          as="nav"
          aria-label={text.home.areas}
          direction="column"
          w="232px"
          borderRightWidth="1px"
          borderColor="line"
          bg="sheet"
          flexShrink={0}
          overflow="auto"
          py={4}
          px={3}
        >
          <Flex justify="space-between" align="center" mb={2} ps={2}>
            <chakra.h2 fontSize="13px" fontWeight="600" color="quiet">
              {text.home.areas}
            </chakra.h2>
            <Button
              size="2xs"
              variant="ghost"
              aria-label={text.home.newArea}
              onClick={() => setAsking({ kind: "area", parent: null })}
            >
              <FolderPlus size={15} />
            </Button>
          </Flex>
          <AreaTree
            data={data}
            chosen={area}
            onChoose={setArea}
            onNew={(parent) => setAsking({ kind: "area", parent })}
            onRename={(one) => setAsking({ kind: "rename-area", area: one })}
            onMove={(one, parent) => void run("moveArea", { id: one.id, parent }).catch(complain)}
            onDelete={(one) => void removed("deleteArea", one.id, one.name)}
            onDropProcess={(process, into) => void run("moveProcess", { id: process, area: into }).catch(complain)}
          />
        </Flex>
        <Box as="main" id="content" flex="1" minW={0} overflow="auto" px={6} py={5}>
          <Flex gap={2} mb={4} align="center">
            <chakra.h2 fontSize="17px" fontWeight="700" flex="1">
              {data.areas.find((one) => one.id === area)?.name ?? text.home.allAreas}
            </chakra.h2>
            {reading && (
              <>
                <chakra.span role="status" color="quiet">
                  {text.home.opening(reading)}
                </chakra.span>
                <Button variant="ghost" h="32px" onClick={() => stopReading.current?.abort()}>
                  {text.dialog.cancel}
                </Button>
              </>
            )}
            <Button
              variant="outline"
              h="32px"
              bg={landscape ? "accentSoft" : "paper"}
              aria-pressed={landscape}
              onClick={() => setLandscape(!landscape)}
            >
              <Network size={15} /> {text.home.landscape}
            </Button>
            <Button variant="outline" h="32px" bg="paper" onClick={() => router.push("/find")}>
              <Search size={15} /> {text.find.short}
            </Button>
            <Button variant="outline" h="32px" bg="paper" onClick={() => file.current?.click()}>
              <Upload size={15} /> {text.home.openFile}
            </Button>
            <Button bg="accent" color="onAccent" h="32px" onClick={() => setAsking({ kind: "process" })}>
              <FilePlus2 size={15} /> {text.home.newProcess}
            </Button>
            <input
              ref={file}
              type="file"
              hidden
              accept=".bpmn,.xml,.csv,.tsv"
              multiple
              aria-label={text.home.openFile}
              data-testid="open-file"
              onChange={(event) => {
                void open(event.target.files);
              }}
            />
          </Flex>
          {landscape ? (
            <Landscape />
          ) : processes.length === 0 ? (
            <EmptyState>{text.home.empty}</EmptyState>
          ) : (
            <Table.Root size="sm" bg="paper" borderWidth="1px" borderColor="line" tableLayout="fixed">
              <Table.Header>
                <Table.Row bg="sheet">
                  <Table.ColumnHeader color="quiet" w="30%">
                    {text.home.process}
                  </Table.ColumnHeader>
                  <Table.ColumnHeader color="quiet" w="24%">
                    {text.home.versions}
                  </Table.ColumnHeader>
                  <Table.ColumnHeader color="quiet" w="24%">
                    {text.home.stages}
                  </Table.ColumnHeader>
                  <Table.ColumnHeader color="quiet" w="16%">
                    {text.home.changed}
                  </Table.ColumnHeader>
                  <Table.ColumnHeader w="52px">
                    <chakra.span srOnly>{text.home.move}</chakra.span>
                  </Table.ColumnHeader>
                </Table.Row>
              </Table.Header>
              <Table.Body>
                {processes.map((process) => {
                  const versions = data.versions.filter((version) => version.process === process.id);
                  return (
                    <ProcessRows
                      key={process.id}
                      process={process}
                      versions={versions}
                      areas={data.areas}
                      expanded={expanded === process.id}
                      onExpand={() => setExpanded(expanded === process.id ? null : process.id)}
                      onRename={() => setAsking({ kind: "rename-process", process })}
                      onCopy={() => setAsking({ kind: "copy", process })}
                      onMove={(into) => void run("moveProcess", { id: process.id, area: into }).catch(complain)}
                      onDelete={() => void removed("deleteProcess", process.id, process.name)}
                    />
                  );
                })}
              </Table.Body>
            </Table.Root>
          )}
        </Box>
      </Flex>
      {dropping && (
        <Flex
          position="fixed"
          inset={0}
          bg="accentSoft"
          opacity={0.95}
          borderWidth="3px"
          borderStyle="dashed"
          borderColor="accent"
          align="center"
          justify="center"
          fontSize="17px"
          fontWeight="600"
          color="accent"
          pointerEvents="none"
          zIndex={20}
        >
          {text.home.drop}
        </Flex>
      )}
      {asking && (
        <HomeDialog
          asking={asking}
          target={target}
          onClose={() => setAsking(null)}
          onDone={load}
          onOpen={(version) => router.push(`/v/${encodeURIComponent(version)}/diagram`)}
          firstArea={newFirstArea}
        />
      )}
    </Flex>
  );
}
