"use client";
import { chakra, Flex } from "@chakra-ui/react";
import { ArrowDown, ArrowUp, GripVertical, X } from "lucide-react";
import { useState } from "react";
import { fieldsOfProcess, rowsOf, shownItems } from "@/core/data";
import { readCondition } from "@/core/feel";
import { type Element, type Form, type FormItem, type Model, processOf } from "@/core/model";
import { TextField } from "../../../controls/fields";
import { IconTool } from "../../../controls/IconTool";
import { text } from "../../../messages";

const words = text.forms;
const dragged = "application/x-lane-form-item";

/** The fields of a form in their order: moved by hand or by key, named, explained, shown when something holds. */
export function FormItems({
  model,
  step,
  form,
  onForm,
}: {
  readonly model: Model;
  readonly step: Element;
  readonly form: Form;
  readonly onForm: (form: Form) => void;
}) {
  const [open, setOpen] = useState<number>();
  const fields = fieldsOfProcess(model, processOf(model, step.id)?.id ?? "");
  const names = [...new Set(fields.flatMap((field) => rowsOf(field).map(({ field: one }) => one.name)))];
  const items = shownItems(model, step.id, form);
  const put = (next: readonly FormItem[]) => onForm({ items: [...next] });
  const move = (from: number, to: number) => {
    if (to < 0 || to >= items.length || from === to) return;
    const rest = form.items.filter((_, at) => at !== from);
    put([...rest.slice(0, to), form.items[from] as FormItem, ...rest.slice(to)]);
    setOpen(undefined);
  };
  const change = (at: number, by: Partial<FormItem>) =>
    put(form.items.map((item, place) => (place === at ? cleaned({ ...item, ...by }) : item)));
  const used = new Set(form.items.map(({ path }) => path.join("\n")));
  const left = fields
    .flatMap((field) => rowsOf(field))
    .filter(({ field, path }) => (field.kind !== "record" || field.isList) && !used.has(path.join("\n")));
  return (
    <>
      <chakra.ol listStyleType="none" display="flex" flexDirection="column" gap={1} data-testid="form-items">
        {items.map(({ item, field, label }, at) => {
          const path = item.path.join(".");
          const isOpen = open === at;
          const conditions = [
            ["shownWhen", words.shownWhen, words.shownWhenHint],
            ["check", words.check, words.checkHint],
          ] as const;
          return (
            <chakra.li
              key={path}
              bg="paper"
              borderWidth="1px"
              borderColor="line"
              borderRadius="6px"
              onDragOver={(event) => event.dataTransfer.types.includes(dragged) && event.preventDefault()}
              onDrop={(event) => {
                const from = event.dataTransfer.getData(dragged);
                if (from === "") return;
                event.preventDefault();
                move(Number(from), at);
              }}
              onKeyDown={(event) => {
                if (!event.altKey || (event.key !== "ArrowUp" && event.key !== "ArrowDown")) return;
                event.preventDefault();
                const to = at + (event.key === "ArrowUp" ? -1 : 1);
                move(at, to);
                requestAnimationFrame(() => document.querySelector<HTMLElement>(`[data-form-item="${to}"]`)?.focus());
              }}
            >
              <Flex align="center" gap={1} pe={1}>
                <chakra.span
                  draggable
                  title={words.drag(label)}
                  cursor="grab"
                  color="quiet"
                  px={1}
                  onDragStart={(event) => event.dataTransfer.setData(dragged, String(at))}
                >
                  <GripVertical size={14} aria-hidden />
                </chakra.span>
                <chakra.button
                  type="button"
                  data-form-item={at}
                  aria-expanded={isOpen}
                  flex="1"
                  minW={0}
                  textAlign="left"
                  minH="30px"
                  cursor="pointer"
                  onClick={() => setOpen(isOpen ? undefined : at)}
                >
                  <chakra.strong>{label}</chakra.strong>{" "}
                  <chakra.span color={field ? "quiet" : "trouble"} fontSize="12px">
                    {field ? `${path} · ${text.data.kinds[field.kind]}` : words.gone}
                    {item.isReadOnly && ` · ${words.readOnly}`}
                    {item.shownWhen && ` · ${words.shownWhen.toLowerCase()} ${item.shownWhen}`}
                  </chakra.span>
                </chakra.button>
                {(
                  [
                    [words.up(label), ArrowUp, () => move(at, at - 1)],
                    [words.down(label), ArrowDown, () => move(at, at + 1)],
                    [words.out(label), X, () => put(form.items.filter((_, place) => place !== at))],
                  ] as const
                ).map(([title, Icon, run]) => (
                  <IconTool key={title} name={title} icon={Icon} onPress={run} />
                ))}
              </Flex>
              {isOpen && (
                <Flex direction="column" gap={1.5} px={3} pb={3} pt={1}>
                  {(
                    [
                      ["label", words.label],
                      ["help", words.help],
                      ["group", words.group],
                    ] as const
                  ).map(([key, title]) => (
                    <Line key={key} title={title}>
                      <TextField
                        label={`${title}: ${path}`}
                        placeholder={key === "label" ? label : ""}
                        value={item[key] ?? ""}
                        onCommit={(next) => change(at, { [key]: next.trim() })}
                      />
                    </Line>
                  ))}
                  {conditions.map(([key, title, hint]) => {
                    const said = item[key] ?? "";
                    const isFeel = said === "" || readCondition(said, names).kind === "executable";
                    return (
                      <Line key={key} title={title}>
                        <TextField
                          label={`${title}: ${path}`}
                          placeholder={hint}
                          value={said}
                          onCommit={(next) => change(at, { [key]: next.trim() })}
                        />
                        {!isFeel && (
                          <chakra.span color="trouble" fontSize="12px" role="alert">
                            ! {words.notFeel(said)}
                          </chakra.span>
                        )}
                      </Line>
                    );
                  })}
                  {item.check && (
                    <Line title={words.checkWords}>
                      <TextField
                        label={`${words.checkWords}: ${path}`}
                        value={item.checkWords ?? ""}
                        onCommit={(next) => change(at, { checkWords: next.trim() })}
                      />
                    </Line>
                  )}
                  <chakra.label display="flex" gap={2} alignItems="center" fontSize="13px">
                    <input
                      type="checkbox"
                      checked={item.isReadOnly ?? false}
                      style={{ width: 18, height: 18 }}
                      onChange={(event) => change(at, { isReadOnly: event.target.checked })}
                    />
                    {words.readOnly}
                  </chakra.label>
                </Flex>
              )}
            </chakra.li>
          );
        })}
      </chakra.ol>
      {left.length > 0 && (
        <chakra.select
          aria-label={words.putIn}
          mt={2}
          h="28px"
          bg="paper"
          borderWidth="1px"
          borderColor="line"
          borderRadius="6px"
          value=""
          onChange={(event) => {
            const found = left[Number(event.target.value)];
            if (found) put([...form.items, { path: [...found.path] }]);
          }}
        >
          <option value="">{words.putIn}…</option>
          {left.map(({ path }, at) => (
            <option key={path.join(".")} value={at}>
              {path.join(" · ")}
            </option>
          ))}
        </chakra.select>
      )}
    </>
  );
}

function Line({ title, children }: { readonly title: string; readonly children: React.ReactNode }) {
  return (
    <Flex gap={2} align="center">
      <chakra.span w="96px" flexShrink={0} fontSize="12px" color="quiet">
        {title}
      </chakra.span>
      <chakra.div flex="1" minW={0}>
        {children}
      </chakra.div>
    </Flex>
  );
}

/** An item without what says nothing. */
const cleaned = (item: FormItem): FormItem =>
  Object.fromEntries(
    Object.entries(item).filter(([, value]) => value !== "" && value !== false && value !== undefined),
  ) as FormItem;
