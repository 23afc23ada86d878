import { Suspense } from "react";
import { DecisionFilePage } from "@/ui/decisions/DecisionFilePage";

export const metadata = { title: "Decisions" };

export default async function Page({ params }: { readonly params: Promise<{ readonly file: string }> }) {
  const { file } = await params;
  return (
    <Suspense>
      <DecisionFilePage file={decodeURIComponent(file)} />
    </Suspense>
  );
}
