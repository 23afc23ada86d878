import { notFound } from "next/navigation";
import { Suspense } from "react";
import { CheckStage } from "@/ui/check/CheckStage";
import { CompareStage } from "@/ui/compare/CompareStage";
import { DiagramStage } from "@/ui/diagram/DiagramStage";
import { HandoffStage } from "@/ui/handoff/HandoffStage";

const stages = { diagram: DiagramStage, check: CheckStage, compare: CompareStage, "hand-off": HandoffStage } as const;
const titles = { diagram: "Diagram", check: "Check", compare: "Compare", "hand-off": "Hand-off" } as const;
type Params = { readonly params: Promise<{ version: string; stage: string }> };

const isStage = (name: string): name is keyof typeof stages => Object.hasOwn(stages, name);

export async function generateMetadata({ params }: Params) {
  const { stage } = await params;
  return { title: isStage(stage) ? titles[stage] : "Not found" };
}

export default async function Page({ params }: Params) {
  const { stage } = await params;
  if (!isStage(stage)) notFound();
  const Stage = stages[stage];
  return (
    <Suspense>
      <Stage />
    </Suspense>
  );
}
