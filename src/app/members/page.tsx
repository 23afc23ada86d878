import { MembersPage } from "@/ui/members/MembersPage";

export const metadata = { title: "Members" };

export default function Page() {
  return <MembersPage />;
}
