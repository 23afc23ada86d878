import { Nowhere } from "@/ui/shell/Nowhere";
import { titled } from "./language";

export const generateMetadata = titled((words) => words.shell.nowhere);

export default function NotFound() {
  return <Nowhere />;
}
