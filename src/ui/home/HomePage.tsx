"use client";
import { Box, Button, chakra, Flex } from "@chakra-ui/react";
import { FilePlus2, FolderPlus, Search, Upload } from "lucide-react";
import { nanoid } from "nanoid";
import { useRouter } from "next/navigation";
import { type DragEvent, useEffect, useRef, useState } from "react";
import { home } from "@/contract";
import { complain, tell } from "../controls/notices";
import { Segments } from "../controls/Segments";
import { ErrorPage, LoadingPage } from "../controls/states";
import { useKeys } from "../controls/useKeys";
import { ask } from "../kernel/ask";
import { doDelete } from "../kernel/deletions";
import { doAct, undoLast } from "../kernel/history";
import { lookAgain, useAsked } from "../kernel/queries";
import { useMay } from "../kernel/useMay";
import { wordsOf } from "../kernel/wordsOf";
import { text } from "../messages";
import { TopRow } from "../shell/TopRow";
import type { AreaActs } from "./AreaMenu";
import { type Asking, HomeDialog } from "./HomeDialog";
import { ProcessList } from "./ProcessList";
import { ProcessMap } from "./ProcessMap";
import type { Place, ProcessActs } from "./ProcessMenu";
import { useCounting } from "./useCounting";
import { useOpenFiles } from "./useOpenFiles";

type View = "map" | "table";
const viewKey = "lucid-lane.home-view";

/** All processes: a map of areas and what leads from one to another, or a table; files are dropped in from anywhere. */
export function HomePage() {
  const [view, setView] = useView();
  const [unfolded, setUnfolded] = useState<string[] | null>(null);
  const [filter, setFilter] = useState<{ readonly area: string | null; readonly needing: boolean }>({
    area: null,
    needing: false,
  });
  const { data, error, refetch } = useAsked(home.openMap, { unfolded }, { keepsLast: true });
  const load = () => lookAgain([{ kind: "workspace" }]);
  const [asking, setAsking] = useState<Asking | null>(null);
  const [dropping, setDropping] = useState(false);
  const file = useRef<HTMLInputElement>(null);
  const router = useRouter();
  const target = filter.area ?? data?.areas[0]?.id ?? "";
  const newFirstArea = async () => {
    const id = nanoid(12);
    await ask(home.createArea, { id, name: text.home.areas, parent: null });
    return id;
  };
  const files = useOpenFiles(target, newFirstArea, load);
  useCounting(data?.counting ?? 0, () => void refetch());
  const mayArrange = useMay("arrange");
  useKeys({
    1: () => setView("map"),
    2: () => setView("table"),
    n: () => mayArrange && setAsking({ kind: "process" }),
  });

  if (error && !data) return <ErrorPage message={wordsOf(error)} isHome retry={() => void refetch()} />;
  if (!data) return <LoadingPage label={text.shell.loading} />;

  const run = (done: Promise<unknown>) => void done.then(load).catch(complain);
  const move = (label: string, to: (into: string) => Promise<unknown>, into: string, from: string) =>
    run(
      doAct(
        label,
        () => to(into),
        () => to(from),
      ),
    );
  const moveProcess = (process: { id: string; name: string; area: string }, into: Place) =>
    move(
      text.home.moved(process.name, into.name),
      (area) => ask(home.moveProcess, { id: process.id, area }),
      into.id,
      process.area,
    );
  const moveArea = (one: Place, parent: string | null) =>
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
  const processActs: ProcessActs = {
    onRename: (process) => setAsking({ kind: "rename-process", process }),
    onCopy: (process) => setAsking({ kind: "copy", process }),
    onMove: moveProcess,
    onDelete: (process) => void removed(() => ask(home.deleteProcess, { id: process.id }), process.name),
  };
  const areaActs: AreaActs = {
    onNewProcess: (area) => setAsking({ kind: "process", into: area.id }),
    onNew: (parent) => setAsking({ kind: "area", parent }),
    onRename: (area) => setAsking({ kind: "rename-area", area }),
    onMove: moveArea,
    onDelete: (area) => void removed(() => ask(home.deleteArea, { id: area.id }), area.name),
  };
  const inTable = (next: typeof filter) => {
    setFilter(next);
    setView("table");
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
      onDragLeave={(event) => {
        if (!event.currentTarget.contains(event.relatedTarget as Node | null)) setDropping(false);
      }}
      onDrop={onDrop}
    >
      <TopRow
        trail={
          <chakra.h1 color="ink" fontWeight="700">
            {text.shell.home}
          </chakra.h1>
        }
        commands={
          mayArrange
            ? [
                { id: "new-process", title: text.home.newProcess, run: () => setAsking({ kind: "process" }) },
                { id: "new-area", title: text.home.newArea, run: () => setAsking({ kind: "area", parent: null }) },
                { id: "open-file", title: text.home.openFile, run: () => file.current?.click() },
              ]
            : []
        }
      />
      <Flex as="main" id="content" direction="column" flex="1" minH={0}>
        <Flex gap={2} px={5} minH="52px" py={2} align="center" flexShrink={0} wrap="wrap">
          <chakra.h2 fontSize="17px" fontWeight="700" data-testid="process-count">
            {text.home.processes(data.total)}
          </chakra.h2>
          <chakra.span color="quiet">{text.home.summed(data.areas.length)}</chakra.span>
          {data.attention > 0 && (
            <Button
              size="xs"
              variant="outline"
              bg="paper"
              color="attention"
              borderColor="saffron"
              onClick={() => inTable({ area: null, needing: true })}
            >
              {text.home.needing(data.attention)}
            </Button>
          )}
          <Box flex="1" />
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
          <Segments
            label={text.home.view}
            value={view}
            options={[
              ["map", text.home.map, "1"],
              ["table", text.home.table, "2"],
            ]}
            onChoose={setView}
          />
          <Button variant="outline" h="32px" bg="paper" onClick={() => router.push("/find")}>
            <Search size={15} /> {text.find.short}
          </Button>
          {mayArrange && (
            <>
              <Button variant="outline" h="32px" bg="paper" onClick={() => setAsking({ kind: "area", parent: null })}>
                <FolderPlus size={15} /> {text.home.newArea}
              </Button>
              <Button variant="outline" h="32px" bg="paper" onClick={() => file.current?.click()}>
                <Upload size={15} /> {text.home.openFile}
              </Button>
              <Button bg="accent" color="onAccent" h="32px" onClick={() => setAsking({ kind: "process" })}>
                <FilePlus2 size={15} /> {text.home.newProcess}
              </Button>
            </>
          )}
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
        <Box flex="1" minH={0} overflow="auto" px={5} pb={5}>
          {view === "map" ? (
            <ProcessMap
              data={data}
              areaActs={areaActs}
              processActs={processActs}
              onFold={(area) =>
                setUnfolded(
                  data.unfolded.includes(area) ? data.unfolded.filter((one) => one !== area) : [...data.unfolded, area],
                )
              }
              onTable={(area) => inTable({ area, needing: false })}
              onDropProcess={(id, into) => {
                const process = data.processes.find((one) => one.id === id);
                const area = data.areas.find((one) => one.id === into);
                if (process && area && process.area !== area.id) moveProcess(process, area);
              }}
              onDropFiles={(dropped, area) => {
                setDropping(false);
                void files.open(dropped, area);
              }}
            />
          ) : (
            <ProcessList areas={data.areas} filter={filter} onFilter={setFilter} acts={processActs} />
          )}
        </Box>
      </Flex>
      {dropping && (
        <Flex
          position="fixed"
          insetInline={0}
          bottom={0}
          h="44px"
          bg="accentSoft"
          borderWidth="2px"
          borderStyle="dashed"
          borderColor="accent"
          align="center"
          justify="center"
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

/** Map or table, as this person looked at it the last time. */
function useView() {
  const [view, setView] = useState<View>("map");
  useEffect(() => {
    if (localStorage.getItem(viewKey) === "table") setView("table");
  }, []);
  const choose = (next: View) => {
    localStorage.setItem(viewKey, next);
    setView(next);
  };
  return [view, choose] as const;
}
