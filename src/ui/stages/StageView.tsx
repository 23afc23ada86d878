"use client";
import dynamic from "next/dynamic";
import type { ComponentType } from "react";
import { LoadingPage } from "../controls/states";
import { text } from "../messages";
import type { StageName } from "./register";

const loading = () => <LoadingPage label={text.shell.loading} />;

/** The page of each stage, which comes with its own script, so that opening one does not wait for all of them. */
const pages: { readonly [name in StageName]: ComponentType } = {
  brief: dynamic(() => import("./brief/BriefStage").then((file) => file.BriefStage), { loading }),
  steps: dynamic(() => import("./steps/StepsStage").then((file) => file.StepsStage), { loading }),
  diagram: dynamic(() => import("./diagram/DiagramStage").then((file) => file.DiagramStage), { loading }),
  check: dynamic(() => import("./check/CheckStage").then((file) => file.CheckStage), { loading }),
  walk: dynamic(() => import("./walk/WalkStage").then((file) => file.WalkStage), { loading }),
  forecast: dynamic(() => import("./forecast/ForecastStage").then((file) => file.ForecastStage), { loading }),
  compare: dynamic(() => import("./compare/CompareStage").then((file) => file.CompareStage), { loading }),
  live: dynamic(() => import("./live/LiveStage").then((file) => file.LiveStage), { loading }),
  "hand-off": dynamic(() => import("./handoff/HandoffStage").then((file) => file.HandoffStage), { loading }),
};

/** The stage a route names. */
export function StageView({ stage }: { readonly stage: StageName }) {
  const Stage = pages[stage];
  return <Stage />;
}
