"use client";
import { Box, Button, chakra, Flex, Input } from "@chakra-ui/react";
import { FilePlus2, FolderPlus, Network, Search, Upload } from "lucide-react";
import { nanoid } from "nanoid";
import { useRouter } from "next/navigation";
import { type DragEvent, useDeferredValue, useRef, useState } from "react";
import { home } from "@/contract";
import type { HomeArea, HomeOrder, HomeProcess } from "@/contract/home";
import { complain, tell } from "../controls/notices";
import { EmptyState, ErrorPage, LoadingPage } from "../controls/states";
import { ask } from "../kernel/ask";
import { doDelete } from "../kernel/deletions";
import { doAct, undoLast } from "../kernel/history";
import { lookAgain, useAsked } from "../kernel/queries";
import { wordsOf } from "../kernel/wordsOf";
import { text } from "../messages";
import { TopRow } from "../shell/TopRow";
import { AreaTree } from "./AreaTree";
import { type Asking, HomeDialog } from "./HomeDialog";
import { Landscape } from "./Landscape";
import { ProcessTable } from "./ProcessTable";
import { useOpenFiles } from "./useOpenFiles";

/** Areas as a tree, processes as a table, files dropped in from anywhere. */
export function HomePage() {
  const [area, setArea] = useState<string | null>(null);
  const [typed, setTyped] = useState("");
  const [order, setOrder] = useState<HomeOrder>("own");
  const [from, setFrom] = useState(0);
  const wanted = { area, text: useDeferredValue(typed).slice(0, 100), order, from };
  const { data, error, refetch } = useAsked(home.openHome, wanted, { keepsLast: true });
  const load = () => lookAgain([{ kind: "workspace" }]);
  const [asking, setAsking] = useState<Asking | null>(null);
  const [dropping, setDropping] = useState(false);
  const [landscape, setLandscape] = useState(false);
  const file = useRef<HTMLInputElement>(null);
  const router = useRouter();
  const target = area ?? data?.areas[0]?.id ?? "";
  const newFirstArea = async () => {
    const id = nanoid(12);
    await ask(home.createArea, { id, name: text.home.areas, parent: null });
    return id;
  };
  const files = useOpenFiles(target, newFirstArea, load);

  if (error && !data) return <ErrorPage message={wordsOf(error)} isHome retry={() => void refetch()} />;
  if (!data) return <LoadingPage label={text.shell.loading} />;
  const choose = (next: { area?: string | null; order?: HomeOrder; typed?: string }) => {
    if (next.area !== undefined) setArea(next.area);
    if (next.order !== undefined) setOrder(next.order);
    if (next.typed !== undefined) setTyped(next.typed);
    setFrom(0);
  };

  const run = (done: Promise<unknown>) => void done.then(load).catch(complain);
  const move = (label: string, to: (into: string) => Promise<unknown>, into: string, from: string) =>
    run(
      doAct(
        label,
        () => to(into),
        () => to(from),
      ),
    );
  const moveProcess = (process: HomeProcess, into: HomeArea) =>
    move(
      text.home.moved(process.name, into.name),
      (area) => ask(home.moveProcess, { id: process.id, area }),
      into.id,
      process.area,
    );
  const moveArea = (one: HomeArea, parent: string | null) =>
    run(
      doAct(
        text.home.moved(one.name, data.areas.find((area) => area.id === parent)?.name ?? text.home.topLevel),
        () => ask(home.moveArea, { id: one.id, parent }),
        () => ask(home.moveArea, { id: one.id, parent: one.parent }),
      ),
    );
  const removed = async (remove: () => Promise<{ at: string }>, name: string) => {
    try {
      await doDelete(text.home.removed(name), remove);
      await load();
      tell({
        description: text.home.removed(name),
        action: { label: text.home.undo, onClick: () => run(undoLast()) },
      });
    } catch (reason) {
      complain(reason);
    }
  };
  const onDrop = (event: DragEvent) => {
    event.preventDefault();
    setDropping(false);
    void files.open(event.dataTransfer.files);
  };
  return (
    <Flex
      direction="column"
      h="100%"
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
            onChoose={(one) => choose({ area: one })}
            onNew={(parent) => setAsking({ kind: "area", parent })}
            onRename={(one) => setAsking({ kind: "rename-area", area: one })}
            onMove={moveArea}
            onDelete={(one) => void removed(() => ask(home.deleteArea, { id: one.id }), one.name)}
            onDropProcess={(id, into) => {
              const process = data.processes.find((one) => one.id === id);
              const area = data.areas.find((one) => one.id === into);
              if (process && area) moveProcess(process, area);
            }}
          />
        </Flex>
        <Box as="main" id="content" flex="1" minW={0} overflow="auto" px={6} py={5}>
          <Flex gap={2} mb={4} align="center">
            <chakra.h2 fontSize="17px" fontWeight="700" flex="1">
              {data.areas.find((one) => one.id === area)?.name ?? text.home.allAreas}
            </chakra.h2>
            {files.reading && (
              <>
                <chakra.span role="status" color="quiet">
                  {text.home.opening(files.reading)}
                </chakra.span>
                <Button variant="ghost" h="32px" onClick={files.stop}>
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
                void files.open(event.target.files);
              }}
            />
          </Flex>
          {landscape ? (
            <Landscape />
          ) : (
            <>
              {(data.total > 8 || typed !== "") && (
                <Input
                  value={typed}
                  onChange={(event) => choose({ typed: event.target.value })}
                  placeholder={text.home.filter}
                  aria-label={text.home.filter}
                  size="sm"
                  maxW="320px"
                  mb={3}
                  bg="paper"
                  borderColor="line"
                />
              )}
              {data.total === 0 ? (
                <EmptyState>{typed === "" ? text.home.empty : text.home.noneSuch}</EmptyState>
              ) : (
                <ProcessTable
                  data={data}
                  order={order}
                  onOrder={(next) => choose({ order: next })}
                  from={from}
                  onFrom={setFrom}
                  onRename={(process) => setAsking({ kind: "rename-process", process })}
                  onCopy={(process) => setAsking({ kind: "copy", process })}
                  onMove={moveProcess}
                  onDelete={(process) => void removed(() => ask(home.deleteProcess, { id: process.id }), process.name)}
                />
              )}
            </>
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
          areas={data.areas}
          target={target}
          onClose={() => setAsking(null)}
          onDone={load}
          onOpen={(version, beginning) => router.push(`/v/${encodeURIComponent(version)}/${beginning}`)}
          firstArea={newFirstArea}
        />
      )}
    </Flex>
  );
}
