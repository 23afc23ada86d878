"use client";
import { Box, Button, chakra, Flex } from "@chakra-ui/react";
import { ChevronDown, ChevronRight } from "lucide-react";
import { type DragEvent, type KeyboardEvent, useEffect, useMemo, useRef, useState } from "react";
import type { MapArea, MapData, MapEnd } from "@/contract/home";
import { placeMap } from "@/core/landscape";
import type { Bounds } from "@/core/model";
import { text } from "../messages";
import { type AreaActs, AreaMenu } from "./AreaMenu";
import { MapLines } from "./MapLines";
import { ProcessCard } from "./ProcessCard";
import type { ProcessActs } from "./ProcessMenu";

const card = { width: 256, height: 96 };
const band = 34;
/** An area without a card is high enough for its menu, its name and a sentence. */
const leastLane = 96;

interface ProcessMapProps {
  readonly data: MapData;
  readonly areaActs: AreaActs;
  readonly processActs: ProcessActs;
  readonly onFold: (area: string) => void;
  readonly onTable: (area: string) => void;
  /** A process, or files from outside, dropped on an area. */
  readonly onDropProcess: (process: string, area: string) => void;
  readonly onDropFiles: (files: FileList, area: string) => void;
}

const keyOf = ({ of, id }: MapEnd) => `${of} ${id}`;

/** Areas as lanes, processes in them, and what leads from one to another. */
export function ProcessMap(props: ProcessMapProps) {
  const { data, processActs, onFold, onTable } = props;
  const [frame, width] = useWidth();
  const areas = useMemo(() => inOrder(data.areas), [data.areas]);
  const open = useMemo(() => new Set(data.unfolded), [data.unfolded]);
  const versions = useMemo(() => {
    const found = new Map<string, MapData["versions"][number][]>();
    for (const version of data.versions) found.set(version.process, [...(found.get(version.process) ?? []), version]);
    return found;
  }, [data.versions]);
  const placed = useMemo(() => {
    const lanes = areas.map(({ area, level }) => {
      const own = open.has(area.id) ? data.processes.filter((process) => process.area === area.id) : [];
      const cards = own.map(({ id }) => keyOf({ of: "process", id }));
      if (own.length < area.processes) cards.push(keyOf({ of: "area", id: area.id }));
      return { id: area.id, level, cards, least: leastLane };
    });
    const lines = data.links.map(({ from, to }) => ({ from: keyOf(from), to: keyOf(to) }));
    return placeMap(lanes, lines, { width, card, band });
  }, [areas, data.processes, data.links, open, width]);
  const nameOf = ({ of, id }: MapEnd) =>
    (of === "area" ? data.areas : data.processes).find((one) => one.id === id)?.name ?? "";
  const firstCard = data.processes[0]?.id;
  return (
    <Box
      ref={frame}
      position="relative"
      style={{ height: placed.height + 2 }}
      minW={`${card.width + 3 * band}px`}
      data-testid="map"
      onKeyDown={goByArrows}
    >
      {areas.map(({ area }) => {
        const lane = placed.lanes.get(area.id);
        return (
          lane && (
            <Lane key={area.id} {...props} area={area} whole={lane.whole} own={lane.own} isOpen={open.has(area.id)} />
          )
        );
      })}
      <MapLines links={data.links} lines={placed.lines} nameOf={nameOf} width={width} height={placed.height} />
      {areas.map(({ area }) => {
        const bounds = placed.cards.get(keyOf({ of: "area", id: area.id }));
        if (!bounds) return null;
        const shown = open.has(area.id) ? data.processes.filter((process) => process.area === area.id).length : 0;
        return (
          <RestCard
            key={area.id}
            area={area}
            shown={shown}
            bounds={bounds}
            onOpen={() => (shown === 0 ? onFold(area.id) : onTable(area.id))}
          />
        );
      })}
      {data.processes.map((process) => {
        const bounds = placed.cards.get(keyOf({ of: "process", id: process.id }));
        return (
          bounds && (
            <ProcessCard
              key={process.id}
              process={process}
              versions={versions.get(process.id) ?? []}
              bounds={bounds}
              areas={data.areas}
              acts={processActs}
              isFirst={process.id === firstCard}
            />
          )
        );
      })}
      {data.areas.length === 0 && <chakra.p color="quiet">{text.home.empty}</chakra.p>}
      <chakra.span srOnly>{text.home.mapKeys}</chakra.span>
    </Box>
  );
}

/** The lane of an area: its name on the band, which folds it, its menu, and where something can be dropped. */
function Lane(
  props: ProcessMapProps & {
    readonly area: MapArea;
    readonly whole: Bounds;
    readonly own: Bounds;
    readonly isOpen: boolean;
  },
) {
  const { area, whole, own, isOpen, data, areaActs, onFold, onDropProcess, onDropFiles } = props;
  const [isOver, setIsOver] = useState(false);
  const drop = (event: DragEvent) => {
    setIsOver(false);
    const process = event.dataTransfer.getData("application/x-lane-process");
    if (!process && event.dataTransfer.files.length === 0) return;
    event.preventDefault();
    event.stopPropagation();
    if (process) onDropProcess(process, area.id);
    else onDropFiles(event.dataTransfer.files, area.id);
  };
  return (
    <Box
      as="section"
      aria-label={area.name}
      data-area={area.id}
      position="absolute"
      // Lanes share the line between them.
      style={{ left: whole.x, top: whole.y, width: whole.width, height: whole.height + 1 }}
      borderWidth="1px"
      borderColor="ink"
      bg={isOver ? "accentSoft" : "ground"}
      onDragOver={(event: DragEvent) => {
        event.preventDefault();
        setIsOver(true);
      }}
      onDragLeave={() => setIsOver(false)}
      onDrop={drop}
    >
      <Flex
        direction="column"
        align="center"
        w={`${band - 1}px`}
        h="100%"
        bg="paper"
        borderInlineEndWidth="1px"
        borderColor="ink"
        position="absolute"
        insetInlineStart={0}
        top={0}
      >
        <AreaMenu area={area} areas={data.areas} acts={areaActs} />
        <chakra.button
          type="button"
          aria-expanded={isOpen}
          aria-label={text.home.lane(area.name, area.processes, area.attention)}
          title={area.name}
          onClick={() => onFold(area.id)}
          flex="1"
          minH={0}
          w="100%"
          display="flex"
          alignItems="center"
          justifyContent="center"
          cursor="pointer"
          fontWeight="700"
          fontSize="13px"
          overflow="hidden"
          _hover={{ color: "accent" }}
          css={{
            writingMode: "vertical-rl",
            transform: "rotate(180deg)",
            whiteSpace: "nowrap",
            textOverflow: "ellipsis",
          }}
        >
          {area.name}
        </chakra.button>
        <chakra.span color="quiet" pb={1} aria-hidden="true">
          {isOpen ? <ChevronDown size={13} /> : <ChevronRight size={13} />}
        </chakra.span>
      </Flex>
      {area.processes === 0 && (
        <Flex
          position="absolute"
          style={{ left: own.x - whole.x, top: 0, height: own.height }}
          px={6}
          gap={3}
          align="center"
          color="quiet"
        >
          {text.home.emptyArea}
          <Button size="xs" variant="outline" bg="paper" onClick={() => areaActs.onNewProcess(area)}>
            {text.home.newProcessIn(area.name)}
          </Button>
        </Flex>
      )}
    </Box>
  );
}

/** What of an area is not drawn: all of it while it is folded, or what goes beyond what can be seen at a look. */
function RestCard(props: {
  readonly area: MapArea;
  readonly shown: number;
  readonly bounds: Bounds;
  readonly onOpen: () => void;
}) {
  const { area, shown, bounds, onOpen } = props;
  return (
    <chakra.button
      type="button"
      onClick={onOpen}
      position="absolute"
      style={{ left: bounds.x, top: bounds.y, width: bounds.width, height: bounds.height }}
      bg="paper"
      borderWidth="1.5px"
      borderStyle="dashed"
      borderColor="pencil"
      borderRadius="8px"
      px={3}
      textAlign="start"
      cursor="pointer"
      _hover={{ borderColor: "accent" }}
      data-card={`rest ${area.id}`}
    >
      <chakra.span display="block" fontWeight="700">
        {shown === 0 ? text.home.processes(area.processes) : text.home.moreProcesses(area.processes - shown)}
      </chakra.span>
      <chakra.span display="block" fontSize="12px" color={area.attention > 0 && shown === 0 ? "attention" : "quiet"}>
        {shown > 0 ? text.home.inTable : area.attention > 0 ? text.home.needing(area.attention) : text.home.openArea}
      </chakra.span>
    </chakra.button>
  );
}

/** Areas with what lies in them behind them, each with how deep it lies. */
function inOrder(areas: readonly MapArea[]): { readonly area: MapArea; readonly level: number }[] {
  const found: { area: MapArea; level: number }[] = [];
  const seen = new Set<string>();
  const add = (parent: string | null, level: number) => {
    for (const area of areas)
      if (area.parent === parent && !seen.has(area.id)) {
        seen.add(area.id);
        found.push({ area, level });
        add(area.id, level + 1);
      }
  };
  add(null, 0);
  // An area whose parent is gone stands at the top.
  for (const area of areas) if (!seen.has(area.id)) found.push({ area, level: 0 });
  return found;
}

/** Arrows go to the nearest card in their direction. */
function goByArrows(event: KeyboardEvent): void {
  const steps: { readonly [key: string]: readonly [x: number, y: number] } = {
    ArrowLeft: [-1, 0],
    ArrowRight: [1, 0],
    ArrowUp: [0, -1],
    ArrowDown: [0, 1],
  };
  const step = steps[event.key];
  const own = (event.target as HTMLElement).closest<HTMLElement>("[data-card]");
  if (!step || !own) return;
  const middle = (one: HTMLElement) => {
    const { left, top, width, height } = (one.closest("article") ?? one).getBoundingClientRect();
    return { x: left + width / 2, y: top + height / 2 };
  };
  const from = middle(own);
  const far = (one: HTMLElement) => {
    const { x, y } = middle(one);
    const [dx, dy] = [x - from.x, y - from.y];
    const ahead = dx * step[0] + dy * step[1];
    return ahead < 8 ? Number.POSITIVE_INFINITY : ahead + 3 * Math.abs(dx * step[1]) + 3 * Math.abs(dy * step[0]);
  };
  const [next] = [...event.currentTarget.querySelectorAll<HTMLElement>("[data-card]")]
    .map((one) => ({ one, far: far(one) }))
    .filter((candidate) => Number.isFinite(candidate.far))
    .sort((one, other) => one.far - other.far);
  if (!next) return;
  event.preventDefault();
  next.one.focus();
  next.one.scrollIntoView({ block: "nearest" });
}

/** The width there is for the map, followed as the window changes. */
function useWidth() {
  const frame = useRef<HTMLDivElement>(null);
  const [width, setWidth] = useState(1_200);
  useEffect(() => {
    const element = frame.current;
    if (!element) return;
    const measure = () => setWidth(element.clientWidth || 1_200);
    measure();
    const observer = new ResizeObserver(measure);
    observer.observe(element);
    return () => observer.disconnect();
  }, []);
  return [frame, width] as const;
}
