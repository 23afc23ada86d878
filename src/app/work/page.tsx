import { WorkPage } from "@/ui/work/WorkPage";

export const metadata = { title: "Worklist" };

export default function Page() {
  return <WorkPage />;
}
