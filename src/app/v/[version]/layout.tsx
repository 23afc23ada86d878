import type { ReactNode } from "react";
import { VersionShell } from "@/ui/stages/VersionShell";

export default async function Layout({
  params,
  children,
}: {
  readonly params: Promise<{ version: string }>;
  readonly children: ReactNode;
}) {
  const { version } = await params;
  return <VersionShell version={decodeURIComponent(version)}>{children}</VersionShell>;
}
