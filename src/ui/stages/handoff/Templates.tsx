"use client";
import { Button, chakra, Flex } from "@chakra-ui/react";
import { nanoid } from "nanoid";
import { useRef, useState } from "react";
import { handbook } from "@/contract";
import type { TemplateRow } from "@/contract/handbook";
import type { BookletFont } from "@/core/booklet";
import { type HandbookTemplate, handbookParts, mostLogoLetters } from "@/core/handbook";
import { AskDialog } from "../../controls/AskDialog";
import { FormRow } from "../../controls/FormRow";
import { Choice } from "../../controls/fields";
import { complain } from "../../controls/notices";
import { ask } from "../../kernel/ask";
import { doAct } from "../../kernel/history";
import { lookAgain, useAsked } from "../../kernel/queries";
import { text } from "../../messages";
import { useHandbookChoice } from "./handbookChoice";

const words = text.handbook.templates;
const nothing: readonly TemplateRow[] = [];
const again = () => lookAgain([{ kind: "workspace" }]);

/** Templates of handbooks, and what they hold besides the parts: taken, kept under a name, changed and deleted. */
export function Templates() {
  const { template, parts, lenses, isNumbered, font, logo, choose } = useHandbookChoice();
  const { data } = useAsked(handbook.listTemplates, {}, { keepsLast: true });
  const rows = data?.templates ?? nothing;
  const own = rows.find(({ id }) => id === template);
  const [isNaming, setNaming] = useState(false);
  const picker = useRef<HTMLInputElement>(null);
  const chosen = parts.flatMap(({ part, isIn }) => (isIn ? [part] : []));
  const content = (name: string): HandbookTemplate => ({
    name,
    parts: chosen,
    lenses: [...lenses],
    isNumbered,
    font,
    logo,
  });
  const take = (id: string) => {
    const found = rows.find((row) => row.id === id)?.template;
    if (!found) return choose({ template: "" });
    choose({
      template: id,
      lenses: found.lenses,
      isNumbered: found.isNumbered,
      font: found.font,
      logo: found.logo,
      // What it leaves out stands behind, to be taken in again.
      parts: [
        ...found.parts.map((part) => ({ part, isIn: true })),
        ...handbookParts.flatMap((part) => (found.parts.includes(part) ? [] : [{ part, isIn: false }])),
      ],
    });
  };
  /** Keeps what is chosen: as a new one, or in the place of the one that was taken. */
  const keep = async (name: string, before: TemplateRow | undefined) => {
    const id = before?.id ?? nanoid(12);
    let revision = before?.revision ?? 0;
    const save = async (wanted: HandbookTemplate) => {
      ({ revision } = await ask(handbook.saveTemplate, { id, template: wanted, revision }));
    };
    const wanted = content(name);
    await doAct(
      words.kept(name),
      () => save(wanted),
      () => (before ? save(before.template) : ask(handbook.deleteTemplate, { id })),
      // Whoever was told that somebody else changed it sees it as it is now.
    ).finally(again);
    choose({ template: id });
  };
  const remove = ({ id, template: { name } }: TemplateRow) =>
    doAct(
      words.removed(name),
      () => ask(handbook.deleteTemplate, { id }),
      () => ask(handbook.restoreTemplate, { id }),
    )
      .then(again)
      .then(() => choose({ template: "" }))
      .catch(complain);
  const takeLogo = async (file: File | undefined) => {
    if (!file) return;
    try {
      choose({ logo: await addressOf(file) });
    } catch (error) {
      complain(error);
    }
  };
  const isChanged = own !== undefined && JSON.stringify(content(own.template.name)) !== JSON.stringify(own.template);
  return (
    <chakra.div data-testid="templates">
      <FormRow label={words.title} width="84px">
        <Choice
          label={words.title}
          value={own ? template : ""}
          options={[["", words.none], ...rows.map((row) => [row.id, row.template.name] as const)]}
          onChoose={take}
        />
      </FormRow>
      <Flex gap={2} wrap="wrap" my={1}>
        <Button size="2xs" variant="outline" disabled={chosen.length === 0} onClick={() => setNaming(true)}>
          {words.keep}
        </Button>
        {own && isChanged && (
          <Button size="2xs" variant="outline" onClick={() => void keep(own.template.name, own).catch(complain)}>
            {words.change(own.template.name)}
          </Button>
        )}
        {own && (
          <Button size="2xs" variant="ghost" onClick={() => void remove(own)}>
            {words.remove(own.template.name)}
          </Button>
        )}
      </Flex>
      <chakra.label display="flex" gap={2} alignItems="center" minH="26px">
        <input
          type="checkbox"
          checked={isNumbered}
          onChange={(event) => choose({ isNumbered: event.target.checked })}
        />
        {words.numbers}
      </chakra.label>
      <FormRow label={words.font} width="84px">
        <Choice
          label={words.font}
          value={font}
          options={Object.entries(words.fonts)}
          onChoose={(value) => choose({ font: value as BookletFont })}
        />
      </FormRow>
      <FormRow label={words.logo} width="84px">
        {logo !== null && <chakra.img src={logo} alt={words.logo} maxH="24px" maxW="72px" />}
        <Button size="2xs" variant="outline" onClick={() => picker.current?.click()}>
          {logo === null ? words.chooseLogo : words.otherLogo}
        </Button>
        {logo !== null && (
          <Button size="2xs" variant="ghost" onClick={() => choose({ logo: null })}>
            {words.noLogo}
          </Button>
        )}
        <input
          ref={picker}
          type="file"
          hidden
          accept="image/png"
          aria-label={words.chooseLogo}
          onChange={(event) => {
            void takeLogo(event.target.files?.[0]);
            event.target.value = "";
          }}
        />
      </FormRow>
      {isNaming && (
        <AskDialog
          title={words.keep}
          explain={words.explain}
          label={words.name}
          start={own?.template.name ?? ""}
          action={words.save}
          onClose={() => setNaming(false)}
          onAnswer={(name) => keep(name, undefined)}
        />
      )}
    </chakra.div>
  );
}

/** A PNG as the address that holds it; what is none, or too large, is refused in words. */
async function addressOf(file: File): Promise<string> {
  const bytes = new Uint8Array(await file.arrayBuffer());
  const isPng = [0x89, 0x50, 0x4e, 0x47].every((byte, at) => bytes[at] === byte);
  if (!isPng) throw new Error(words.noPng(file.name));
  let letters = "";
  for (const byte of bytes) letters += String.fromCharCode(byte);
  const address = `data:image/png;base64,${btoa(letters)}`;
  if (address.length > mostLogoLetters) throw new Error(words.tooLarge(file.name));
  return address;
}
