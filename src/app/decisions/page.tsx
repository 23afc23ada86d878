import { DecisionsPage } from "@/ui/decisions/DecisionsPage";
import { titled } from "../language";

export const generateMetadata = titled((words) => words.decisions.title);

export default function Page() {
  return <DecisionsPage />;
}
