import { useDeferredValue, useMemo } from "react";
import type { BriefLink } from "@/contract/brief";
import {
  type Advice,
  type Ask,
  adviceOn,
  asksOf,
  type BriefReading,
  type Coverage,
  coverageOf,
  type Frame,
  framesOf,
  linksOf,
  placingsOf,
  readBrief,
} from "@/core/brief";
import { nameOf } from "@/core/model";
import { useBrief } from "../../version/briefStore";
import { useVersion } from "../../version/VersionContext";

export interface Reading {
  readonly reading: BriefReading;
  readonly frames: readonly Frame[];
  /** The number of the process each sentence belongs to, by sentence. */
  readonly numbers: readonly (number | undefined)[];
  readonly advice: readonly Advice[];
  /** What the text leaves open. */
  readonly asks: readonly Ask[];
  readonly coverage: Coverage;
  /** What stands for each mark, in this version as it is now and in the other processes as they were opened. */
  readonly links: ReadonlyMap<string, readonly BriefLink[]>;
  readonly linked: ReadonlySet<string>;
}

/** The description as the core reads it, a moment behind the typing. */
export function useReading(): Reading {
  const content = useDeferredValue(useBrief((state) => state.content));
  const stored = useBrief((state) => state.links);
  const model = useVersion((state) => state.model);
  const version = useVersion((state) => state.info.version.id);
  const reading = useMemo(() => readBrief(content.document), [content.document]);
  const told = useMemo(() => {
    const frames = framesOf(reading, content);
    const places = new Map<string, number>(frames.map((frame, at) => [frame.key, at + 1]));
    for (const part of content.parts) if (!places.has(part.id)) places.set(part.id, places.get(part.of) ?? 0);
    const numbers = placingsOf(reading, content).map((placing) => placing && places.get(placing.frame));
    return { frames, numbers, advice: adviceOn(reading, content, frames), asks: asksOf(frames) };
  }, [reading, content]);
  const links = useMemo(() => {
    const found = new Map<string, BriefLink[]>();
    const add = (link: BriefLink) => found.set(link.mark, [...(found.get(link.mark) ?? []), link]);
    for (const [mark, elements] of linksOf(model))
      for (const element of elements) add({ mark, version, element, name: nameOf(model, element) });
    for (const link of stored) if (link.version !== version) add(link);
    return found;
  }, [model, version, stored]);
  const linked = useMemo(() => new Set(links.keys()), [links]);
  const coverage = useMemo(() => coverageOf(reading, linked), [reading, linked]);
  return { reading, ...told, coverage, links, linked };
}
