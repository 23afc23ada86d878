"use client";
import dynamic from "next/dynamic";
import { LoadingPage } from "../controls/states";
import { text } from "../messages";

const loading = () => <LoadingPage label={text.shell.loading} />;

// Each stage comes with its own script, so that opening one does not wait for all of them.
const stages = {
  brief: dynamic(() => import("../brief/BriefStage").then((file) => file.BriefStage), { loading }),
  steps: dynamic(() => import("../steps/StepsStage").then((file) => file.StepsStage), { loading }),
  diagram: dynamic(() => import("../diagram/DiagramStage").then((file) => file.DiagramStage), { loading }),
  check: dynamic(() => import("../check/CheckStage").then((file) => file.CheckStage), { loading }),
  walk: dynamic(() => import("../walk/WalkStage").then((file) => file.WalkStage), { loading }),
  compare: dynamic(() => import("../compare/CompareStage").then((file) => file.CompareStage), { loading }),
  "hand-off": dynamic(() => import("../handoff/HandoffStage").then((file) => file.HandoffStage), { loading }),
} as const;

export type StageRoute = keyof typeof stages;

/** The stage a route names. */
export function StageView({ stage }: { readonly stage: StageRoute }) {
  const Stage = stages[stage];
  return <Stage />;
}
