import { headers } from "next/headers";
import type { ReactNode } from "react";
import { inVersion } from "@/contract";
import { askAhead } from "@/ui/kernel/askedAhead";
import { VersionShell } from "@/ui/stages/VersionShell";

export default async function Layout({
  params,
  children,
}: {
  readonly params: Promise<{ version: string }>;
  readonly children: ReactNode;
}) {
  const version = decodeURIComponent((await params).version);
  const nonce = (await headers()).get("x-nonce") ?? "";
  return (
    <>
      {/* What the page shows is asked for while the scripts that show it are loaded. */}
      <script nonce={nonce}>{askAhead(inVersion.openVersion, { version })}</script>
      <VersionShell version={version}>{children}</VersionShell>
    </>
  );
}
