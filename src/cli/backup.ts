/** `npm run backup -- FILE` and `npm run restore -- FILE`: the whole workspace as one file, while the application is stopped. */
import { readFileSync, writeFileSync } from "node:fs";
import { closeDatabase } from "@/data/database";
import { endThreads, fileUseCases, localMember, runUseCase } from "@/server";
import { callerPath } from "./input";

const [mode, file] = process.argv.slice(2);
if ((mode !== "backup" && mode !== "restore") || !file) {
  console.error("A file is needed: npm run backup -- FILE, or npm run restore -- FILE.");
  process.exit(2);
}
try {
  if (mode === "backup") {
    const { bytes } = await runUseCase(localMember, fileUseCases.backup, {});
    writeFileSync(callerPath(file), bytes);
    console.log(`The workspace is in ${file} (${Math.max(1, Math.round(bytes.length / 1024))} kB).`);
  } else {
    await runUseCase(localMember, fileUseCases.restore, { bytes: new Uint8Array(readFileSync(callerPath(file))) });
    console.log(`The workspace is what ${file} holds.`);
  }
} catch (error) {
  console.error((error as Error).message);
  process.exitCode = 1;
} finally {
  await closeDatabase();
  await endThreads();
}
