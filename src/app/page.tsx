import { HomePage } from "@/ui/home/HomePage";

export const metadata = { title: "Home" };

export default function Page() {
  return <HomePage />;
}
