import { Suspense } from "react";
import { DecisionFilePage } from "@/ui/decisions/DecisionFilePage";
import { titled } from "../../language";

export const generateMetadata = titled((words) => words.decisions.title);

export default async function Page({ params }: { readonly params: Promise<{ readonly file: string }> }) {
  const { file } = await params;
  return (
    <Suspense>
      <DecisionFilePage file={decodeURIComponent(file)} />
    </Suspense>
  );
}
