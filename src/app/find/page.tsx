import { Suspense } from "react";
import { FindPage } from "@/ui/find/FindPage";
import { titled } from "../language";

export const generateMetadata = titled((words) => words.find.title);

export default function Page() {
  return (
    <Suspense>
      <FindPage />
    </Suspense>
  );
}
