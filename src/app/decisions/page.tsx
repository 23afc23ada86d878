import { DecisionsPage } from "@/ui/decisions/DecisionsPage";

export const metadata = { title: "Decisions" };

export default function Page() {
  return <DecisionsPage />;
}
