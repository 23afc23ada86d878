import { notFound } from "next/navigation";
import { Suspense } from "react";
import { type StageRoute, StageView } from "@/ui/version/StageView";

const titles: { readonly [stage in StageRoute]: string } = {
  brief: "Brief",
  steps: "Steps",
  diagram: "Diagram",
  check: "Check",
  walk: "Walk",
  compare: "Compare",
  "hand-off": "Hand-off",
};
type Params = { readonly params: Promise<{ version: string; stage: string }> };

const isStage = (name: string): name is StageRoute => Object.hasOwn(titles, name);

export async function generateMetadata({ params }: Params) {
  const { stage } = await params;
  return { title: isStage(stage) ? titles[stage] : "Not found" };
}

export default async function Page({ params }: Params) {
  const { stage } = await params;
  if (!isStage(stage)) notFound();
  return (
    <Suspense>
      <StageView stage={stage} />
    </Suspense>
  );
}
