import "@fontsource/atkinson-hyperlegible-next/latin-400.css";
import "@fontsource/atkinson-hyperlegible-next/latin-600.css";
import "@fontsource/atkinson-hyperlegible-next/latin-700.css";
import "@fontsource/atkinson-hyperlegible-next/latin-ext-400.css";
import "@fontsource/atkinson-hyperlegible-next/latin-ext-600.css";
import type { Metadata } from "next";
import { headers } from "next/headers";
import type { ReactNode } from "react";
import { feedPosition } from "@/server/kernel/events";
import { Providers } from "@/ui/shell/Providers";
import { languageAsked } from "./language";

export const metadata: Metadata = {
  title: { default: "Lucid Lane", template: "%s · Lucid Lane" },
  description: "Model, check, compare and hand off business processes.",
};

export default async function RootLayout({ children }: { readonly children: ReactNode }) {
  // The number that this page's own scripts carry; see `proxy.ts`.
  const nonce = (await headers()).get("x-nonce") ?? "";
  const language = await languageAsked();
  // Before anything is looked at for this page.
  const position = feedPosition();
  return (
    <html lang={language} data-feed-position={position} suppressHydrationWarning>
      <body>
        <Providers nonce={nonce} language={language}>
          {children}
        </Providers>
      </body>
    </html>
  );
}
