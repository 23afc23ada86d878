import { WorkPage } from "@/ui/work/WorkPage";
import { titled } from "../language";

export const generateMetadata = titled((words) => words.work.title);

export default function Page() {
  return <WorkPage />;
}
