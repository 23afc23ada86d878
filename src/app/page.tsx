import { HomePage } from "@/ui/home/HomePage";
import { titled } from "./language";

export const generateMetadata = titled((words) => words.shell.home);

export default function Page() {
  return <HomePage />;
}
