import { SignInPage } from "@/ui/members/SignInPage";

export const metadata = { title: "Sign in" };

export default function Page() {
  return <SignInPage />;
}
