import { checkModel, type Finding, type ProcessVerdict, processVerdicts } from "@/core/check";
import { counted, isAnonymous, type Model, nameOf } from "@/core/model";
import { EXIT, readModel, UnusableInput } from "./input";

interface Checked {
  readonly processes: readonly ProcessVerdict[];
  readonly findings: readonly Pick<Finding, "rule" | "severity" | "elements" | "message" | "witness">[];
}

/** `lane check FILE.bpmn…`: findings, and whether one is an error. */
export function check(files: readonly string[], json: boolean): number {
  if (files.length === 0) throw new UnusableInput("check needs at least one file");
  const checked = files.map((file) => {
    const model = readModel(file);
    return { file, model, result: checkOne(model) };
  });
  const isBad = checked.some(({ result }) => result.findings.some((finding) => finding.severity === "error"));
  if (json) {
    const [only] = checked;
    const answer =
      checked.length === 1 ? only?.result : { files: checked.map(({ file, result }) => ({ file, ...result })) };
    process.stdout.write(`${JSON.stringify(answer, null, 2)}\n`);
  } else for (const { file, model, result } of checked) print(file, model, result);
  return isBad ? EXIT.no : EXIT.done;
}

function checkOne(model: Model): Checked {
  // Ids in the output are the ids in the file: what has none there is left out, and a doubled one is spelled as it was.
  const fileId = (id: string) =>
    isAnonymous(id) ? ((model.elements.get(id)?.spelling?.id as string | undefined) ?? []) : id;
  return {
    processes: processVerdicts(model),
    findings: checkModel(model).map(({ rule, severity, elements, message, witness }) => ({
      rule,
      severity,
      elements: elements.flatMap(fileId),
      message,
      ...(witness && { witness }),
    })),
  };
}

function print(file: string, model: Model, { findings }: Checked): void {
  const count = (severity: string) => findings.filter((finding) => finding.severity === severity).length;
  process.stdout.write(
    `${file}: ${counted(count("error"), "error")}, ${counted(count("warning"), "warning")}, ${counted(count("advice"), "piece", "pieces")} of advice\n`,
  );
  for (const finding of findings) {
    const where = finding.elements.map((id) => nameOf(model, id) || id).join(", ");
    process.stdout.write(`  ${finding.severity.padEnd(7)} ${finding.rule} at ${where}\n          ${finding.message}\n`);
  }
}
