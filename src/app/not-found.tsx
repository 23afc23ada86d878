import { text } from "@/ui/messages";
import { PlainPage } from "@/ui/shell/PlainPage";

export const metadata = { title: text.shell.nowhere };

export default function NotFound() {
  return <PlainPage title={text.shell.nowhere} explain={text.shell.nowhereExplain} />;
}
