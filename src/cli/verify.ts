import { createHash } from "node:crypto";
import { type PartState, verifyPackage } from "@/core/handoff";
import { counted } from "@/core/model";
import { EXIT, readBytes, UnusableInput } from "./input";

const words: { readonly [state in PartState]: string } = {
  same: "as it was handed off",
  changed: "changed since",
  missing: "missing",
  added: "added since",
};

/** `lane verify PACKAGE.zip`: whether a copy of a package is what was handed off. */
export function verify(args: readonly string[], json: boolean): number {
  const [path] = args;
  if (!path || args.length > 1) throw new UnusableInput("verify needs one package");
  const verified = verifyPackage(readBytes(path), (bytes) => createHash("sha256").update(bytes).digest("hex"));
  if (!verified.ok) throw new UnusableInput(`${path}: ${verified.problems[0]?.message}`);
  const { isWhole, parts, manifest } = verified.value;
  if (json) process.stdout.write(`${JSON.stringify({ ok: isWhole, parts }, null, 2)}\n`);
  else {
    for (const { name, state } of parts) process.stdout.write(`${name}: ${words[state]}\n`);
    const others = parts.filter(({ state }) => state !== "same").length;
    process.stdout.write(
      `${manifest.process}, ${manifest.version}, revision ${manifest.revision}, handed off by ${manifest.member} on ${manifest.date.slice(0, 10)}: ${
        isWhole
          ? `whole, ${counted(parts.length, "part")}`
          : `not whole, ${counted(others, "part")} of ${parts.length} not as handed off`
      }\n`,
    );
  }
  return isWhole ? EXIT.done : EXIT.no;
}
