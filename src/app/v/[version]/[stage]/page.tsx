import { notFound } from "next/navigation";
import { Suspense } from "react";
import { stageNamed } from "@/ui/stages/register";
import { StageView } from "@/ui/stages/StageView";
import { titled } from "../../../language";

type Params = { readonly params: Promise<{ version: string; stage: string }> };

export async function generateMetadata({ params }: Params) {
  const stage = stageNamed((await params).stage);
  return titled((words) => (stage ? words.stages[stage.words] : words.shell.nowhere))();
}

export default async function Page({ params }: Params) {
  const stage = stageNamed((await params).stage);
  if (!stage) notFound();
  return (
    <Suspense>
      <StageView stage={stage.name} />
    </Suspense>
  );
}
