import { SignInPage } from "@/ui/members/SignInPage";
import { titled } from "../language";

export const generateMetadata = titled((words) => words.signIn.title);

export default function Page() {
  return <SignInPage />;
}
