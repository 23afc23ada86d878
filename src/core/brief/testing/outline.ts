import type { FrameItem, FramePath } from "../frames";

/** What was read, an item a line, for comparing: steps with who does them, decisions with their answers and where these lead. */
export function outline(items: readonly FrameItem[], withDoers = true, all = items): string[] {
  const inner = (more: readonly FrameItem[]) => outline(more, withDoers, all);
  const path = (name: string, { items: own, ends, back }: FramePath) => [
    `  ${name}${ends ? ` → ${ends.name}` : ""}${back ? ` ↺ ${nameOf(all, back.to)}` : ""}`,
    ...inner(own).map((line) => `    ${line}`),
  ];
  return items.flatMap((item): string[] => {
    switch (item.kind) {
      case "step":
        return [
          withDoers ? `${item.name} (${item.role?.name ?? item.awaits?.name ?? "nobody"})` : item.name,
          ...(item.deadline ? path(`late: ${item.deadline.name}`, item.deadline.path) : []),
        ];
      case "decision":
        return [item.question, ...item.paths.flatMap((one) => path(one.answer, one))];
      case "part":
        return [`[${item.part.name}]`, ...inner(item.items).map((line) => `  ${line}`)];
      case "parallel":
        return [
          "together",
          ...item.branches.flatMap((branch) => inner(branch).map((line, at) => `  ${at === 0 ? "|" : " "} ${line}`)),
        ];
      default:
        return [`${item.kind}: ${item.name}`];
    }
  });
}

/** The name of the step a mark became; its id where the step stands outside these items. */
function nameOf(items: readonly FrameItem[], mark: string): string {
  for (const item of items) {
    if (item.kind === "step" && item.mark === mark) return item.name;
    const inside =
      item.kind === "decision"
        ? item.paths.flatMap((one) => one.items)
        : item.kind === "parallel"
          ? item.branches.flat()
          : item.kind === "part"
            ? item.items
            : [];
    const found = inside.length > 0 ? nameOf(inside, mark) : mark;
    if (found !== mark) return found;
  }
  return mark;
}
