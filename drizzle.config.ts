import { defineConfig } from "drizzle-kit";

export default defineConfig({ dialect: "postgresql", schema: "./src/data/schema.ts", out: "./src/data/migrations" });
