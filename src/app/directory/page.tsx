import { Suspense } from "react";
import { DirectoryPage } from "@/ui/directory/DirectoryPage";

export const metadata = { title: "Directory" };

export default function Page() {
  return (
    <Suspense>
      <DirectoryPage />
    </Suspense>
  );
}
