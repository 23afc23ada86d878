import { Suspense } from "react";
import { FindPage } from "@/ui/find/FindPage";

export const metadata = { title: "Find in all processes" };

export default function Page() {
  return (
    <Suspense>
      <FindPage />
    </Suspense>
  );
}
