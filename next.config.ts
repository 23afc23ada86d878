import type { NextConfig } from "next";

const config: NextConfig = {
  serverExternalPackages: ["@electric-sql/pglite", "pg", "drizzle-orm", "@resvg/resvg-js", "pdfkit", "piscina"],
  experimental: {
    // Read by nobody: what a browser gets has none, and the server's lines are readable as they are.
    turbopackSourceMaps: false,
    // A build of everything is made once; what would make the next one quicker is a third of its work, and 200 MB.
    turbopackFileSystemCacheForBuild: false,
    optimizePackageImports: ["@chakra-ui/react", "lucide-react"],
    // Nobody fetches it; it is a third of what a build takes, and what went wrong is told by lines one can read.
    serverMinification: false,
  },
  poweredByHeader: false,
  devIndicators: false,
  typescript: { ignoreBuildErrors: true },
  headers: async () => [
    {
      source: "/:path*",
      headers: [
        { key: "X-Content-Type-Options", value: "nosniff" },
        { key: "X-Frame-Options", value: "DENY" },
        { key: "Referrer-Policy", value: "same-origin" },
      ],
    },
  ],
};

export default config;
