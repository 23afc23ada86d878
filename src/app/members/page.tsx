import { MembersPage } from "@/ui/members/MembersPage";
import { titled } from "../language";

export const generateMetadata = titled((words) => words.members.title);

export default function Page() {
  return <MembersPage />;
}
