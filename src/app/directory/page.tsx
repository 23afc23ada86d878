import { Suspense } from "react";
import { DirectoryPage } from "@/ui/directory/DirectoryPage";
import { titled } from "../language";

export const generateMetadata = titled((words) => words.directory.title);

export default function Page() {
  return (
    <Suspense>
      <DirectoryPage />
    </Suspense>
  );
}
