"use client";
import { useCallback, useEffect, useState } from "react";
import type { Choice, Chosen, Followed } from "@/core/forecast";
import type { Id, Model } from "@/core/model";
import type { Scenario } from "@/core/scenario";
import type { World } from "@/core/tokens";
import { followedWorld } from "@/jobs/forecasts";
import { useRoleDefaults } from "../../controls/entries";
import { JobRunner } from "../../kernel/jobRunner";
import { wordsOf } from "../../kernel/wordsOf";
import { withCalled } from "../../version/withCalled";
import { useOpenModels } from "./useForecast";

type ByHand = ReadonlyMap<Id, readonly (Chosen | null)[]>;
const nothing: ByHand = new Map();

interface Found {
  readonly case: Followed | null;
  readonly chosen: ByHand;
  /** What it was played in, which stays until a case of the changed model is there. */
  readonly world: World;
}

/** One case of a scenario, followed in a worker; what is chosen by hand leads it. */
export function useFollowed(model: Model, called: ReadonlyMap<Id, Model>, scenario: Scenario, number: number) {
  const roles = useRoleDefaults();
  const { decisions } = useOpenModels();
  const [worker] = useState(() => new JobRunner());
  const [chosen, setChosen] = useState(nothing);
  const [found, setFound] = useState<Found | undefined>();
  const [error, setError] = useState<string | undefined>();
  const whose = `${scenario.id} ${number}`;
  const [ofWhom, setOfWhom] = useState(whose);
  if (ofWhom !== whose) {
    setOfWhom(whose);
    setChosen(nothing);
    setFound(undefined);
  }
  useEffect(() => {
    if (!roles) return;
    let isStale = false;
    worker
      .run(
        "followed",
        withCalled(model, called),
        { scenario: scenario.id, roles, decisions, number, chosen: [...chosen] },
        { isAlone: true },
      )
      .then((answer) => {
        if (isStale) return;
        setError(undefined);
        setFound(
          "unsound" in answer
            ? undefined
            : { case: answer.case, chosen, world: followedWorld(model, called, scenario) },
        );
      })
      .catch((cause: unknown) => !isStale && setError(wordsOf(cause)));
    return () => {
      isStale = true;
    };
  }, [worker, model, called, roles, decisions, scenario, number, chosen]);
  useEffect(() => () => worker.stop(), [worker]);
  const choose = useCallback((node: Id, { turn }: Choice, way: Chosen) => {
    setChosen((before) => {
      const turns = [...(before.get(node) ?? [])];
      while (turns.length < turn) turns.push(null);
      turns[turn] = way;
      // What was chosen there later was chosen on a way that is left now.
      return new Map(before).set(node, turns.slice(0, turn + 1));
    });
  }, []);
  return { found, isBusy: found?.chosen !== chosen && !error, error, choose, isByHand: chosen.size > 0 };
}
