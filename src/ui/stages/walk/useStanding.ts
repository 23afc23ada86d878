"use client";
import { useMemo } from "react";
import { caseDataOf } from "@/core/feel";
import { type Act, CaseDataSoFar, dataAsked, isBarred, loopOf, type Taken } from "@/core/tokens";
import { type Place, type Standing as Stands, standingOf } from "../../canvas/playing/standing";
import { useWalk, usualNext } from "./walkStore";

export interface Standing extends Stands {
  /** What one press does, in the order it is shown: the first nine have the keys 1 to 9. */
  readonly presses: readonly Act[];
  /** Nothing goes on by itself: a person has to choose, or nothing can happen. */
  readonly waits: boolean;
  /** The decisions that were taken on the way, by their rules. */
  readonly taken: readonly Taken[];
}

/** Everything the stage shows of the case as it stands. */
export function useStanding(): Standing | undefined {
  const { world, past, at, looksAt, data, goesUsualWay } = useWalk();
  return useMemo(() => {
    const now = past[at];
    if (!world || !now) return undefined;
    const soFar = new CaseDataSoFar(world, caseDataOf(data, dataAsked(world)));
    const values = soFar.after(now.log);
    const standing = standingOf(world, now, looksAt, ({ model }, node) => {
      const element = model.elements.get(node);
      return element !== undefined && isBarred(model, element, values);
    });
    return {
      ...standing,
      taken: soFar.taken,
      presses: [...standing.places.flatMap(pressesOf), ...standing.calls],
      waits: at + 1 === past.length && usualNext({ world, past, at, data, goesUsualWay }) === undefined,
    };
  }, [world, past, at, looksAt, data, goesUsualWay]);
}

/** Several ways at once are ticked, and several instances counted, before they can begin; the rest is one press. */
function pressesOf(place: Place): readonly Act[] {
  const asked = isSeveralWays(place) ? [] : place.acts.filter((act) => !isCounted(place, act));
  return [...asked, ...place.fires];
}

/** An inclusive decision: any of its ways, at least one. */
export const isSeveralWays = ({ acts }: Place) => acts.length > 2 && acts.some((act) => act.flows.length > 1);

/** An activity done for several: for how many is asked where it begins. */
export const isCounted = ({ instance, node }: Place, act: Act) =>
  act.does === "begin" && loopOf(instance.model, node)?.type === "multiInstanceLoopCharacteristics";
