import "@fontsource/atkinson-hyperlegible-next/latin-400.css";
import "@fontsource/atkinson-hyperlegible-next/latin-600.css";
import "@fontsource/atkinson-hyperlegible-next/latin-700.css";
import "@fontsource/atkinson-hyperlegible-next/latin-ext-400.css";
import "@fontsource/atkinson-hyperlegible-next/latin-ext-600.css";
import type { Metadata } from "next";
import type { ReactNode } from "react";
import { Providers } from "@/ui/shell/Providers";

export const metadata: Metadata = {
  title: { default: "Lucid Lane", template: "%s · Lucid Lane" },
  description: "Model, check, compare and hand off business processes.",
};

export default function RootLayout({ children }: { readonly children: ReactNode }) {
  return (
    <html lang="en" suppressHydrationWarning>
      <body>
        <Providers>{children}</Providers>
      </body>
    </html>
  );
}
