"use client";
import dynamic from "next/dynamic";
import type { ComponentType } from "react";
import { LoadingPage } from "../controls/states";
import { text } from "../messages";
import { type StageName, stages } from "./register";

const loading = () => <LoadingPage label={text.shell.loading} />;
const pages = Object.fromEntries(
  stages.map((stage) => [stage.name, dynamic(stage.page as () => Promise<ComponentType>, { loading })]),
) as { readonly [name in StageName]: ComponentType };

/** The stage a route names. */
export function StageView({ stage }: { readonly stage: StageName }) {
  const Stage = pages[stage];
  return <Stage />;
}
