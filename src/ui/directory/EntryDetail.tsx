"use client";
import { Box, Button, chakra, Flex } from "@chakra-ui/react";
import { useEffect } from "react";
import { directory } from "@/contract";
import type { ListedEntry } from "@/contract/directory";
import { roleHues } from "@/core/directory";
import { Choice, TextField } from "../controls/fields";
import { complain, tell } from "../controls/notices";
import { PageLink } from "../controls/PageLink";
import { ask } from "../kernel/ask";
import { doAct, undoLast } from "../kernel/history";
import { useAsked } from "../kernel/queries";
import { text } from "../messages";
import { NumberField } from "./NumberField";

/** One entry: what it is called and means, the people behind a role, and where it is used. */
export function EntryDetail({
  entry,
  entries,
  onChanged,
  onGone,
  onMerge,
}: {
  readonly entry: ListedEntry;
  readonly entries: readonly ListedEntry[];
  readonly onChanged: () => Promise<void>;
  readonly onGone: () => void;
  readonly onMerge: (from: string, into: string) => void;
}) {
  const { data, error } = useAsked(directory.whereUsed, { id: entry.id });
  const uses = data?.uses ?? null;
  useEffect(() => {
    if (error) complain(error);
  }, [error]);
  const change = async (fields: Partial<ListedEntry>) => {
    const before = Object.fromEntries(
      Object.keys(fields).map((field) => [field, entry[field as keyof ListedEntry]]),
    ) as Partial<ListedEntry>;
    try {
      const { versions } = await doAct(
        text.directory.changed(fields.name ?? entry.name),
        () => ask(directory.changeEntry, { id: entry.id, ...fields }),
        () => ask(directory.changeEntry, { id: entry.id, ...before }),
      );
      if (versions.length > 0) tell({ description: text.directory.renamed(versions.length) });
      await onChanged();
    } catch (reason) {
      complain(reason);
    }
  };
  const remove = async () => {
    try {
      await doAct(
        text.home.removed(entry.name),
        () => ask(directory.deleteEntry, { id: entry.id }),
        () => ask(directory.restoreEntry, { id: entry.id }),
      );
      onGone();
      await onChanged();
      tell({
        description: text.home.removed(entry.name),
        action: { label: text.home.undo, onClick: () => void undoLast().then(onChanged).catch(complain) },
      });
    } catch (reason) {
      complain(reason);
    }
  };
  const others = entries.filter((candidate) => candidate.kind === entry.kind && candidate.id !== entry.id);
  const units = entries.filter((candidate) => candidate.kind === "unit" && candidate.id !== entry.id);
  return (
    <>
      <chakra.h2 fontSize="17px" fontWeight="700" mb={4}>
        {entry.name}
      </chakra.h2>
      <Field label={text.directory.name}>
        <TextField
          label={text.directory.name}
          value={entry.name}
          onCommit={(name) => name.trim() && void change({ name: name.trim() })}
        />
      </Field>
      <Field label={text.directory.description}>
        <TextField
          label={text.directory.description}
          lines={3}
          value={entry.description}
          onCommit={(description) => void change({ description })}
        />
      </Field>
      {(entry.kind === "role" || entry.kind === "unit") && (
        <Field label={text.directory.unit}>
          <Choice
            label={text.directory.unit}
            value={entry.unit ?? ""}
            options={[["", text.directory.none], ...units.map((unit) => [unit.id, unit.name] as const)]}
            onChoose={(unit) => void change({ unit: unit === "" ? null : unit })}
          />
        </Field>
      )}
      {entry.kind === "role" && (
        <Flex gap={3}>
          {(["headcount", "costPerHour", "hoursPerWeek"] as const).map((field) => (
            <Box key={field} flex="1">
              <Field label={text.directory.figures[field]}>
                <NumberField
                  label={text.directory.figures[field]}
                  value={entry[field]}
                  most={field === "hoursPerWeek" ? 168 : 1_000_000}
                  onCommit={(value) => void change({ [field]: value })}
                />
              </Field>
            </Box>
          ))}
        </Flex>
      )}
      {entry.kind === "role" && (
        <Field label={text.directory.hue}>
          <Flex gap={1.5} wrap="wrap" role="group" aria-label={text.directory.hue}>
            {roleHues.map((hue) => (
              <chakra.button
                key={hue}
                type="button"
                aria-label={hue}
                aria-pressed={hue === entry.hue}
                onClick={() => void change({ hue })}
                w="26px"
                h="26px"
                borderRadius="6px"
                borderWidth="2px"
                borderColor={hue === entry.hue ? "ink" : "transparent"}
                style={{ background: hue }}
                cursor="pointer"
              />
            ))}
          </Flex>
        </Field>
      )}
      <chakra.h3 fontSize="14px" fontWeight="700" mt={6} mb={2}>
        {text.directory.whereUsed}
      </chakra.h3>
      {uses?.length === 0 && <chakra.p color="quiet">{text.directory.notUsed}</chakra.p>}
      <Box as="ul" listStyleType="none">
        {uses?.map((use, at) => (
          <chakra.li key={at} py={1.5} borderBottomWidth="1px" borderColor="line">
            <PageLink
              href={`/v/${encodeURIComponent(use.version)}/diagram?element=${encodeURIComponent(use.element)}`}
              color="accent"
              textDecoration="underline"
            >
              {use.elementName}
            </PageLink>
            <chakra.span color="quiet">
              {" "}
              {use.how} · {use.process}, {use.versionName}
            </chakra.span>
          </chakra.li>
        ))}
      </Box>
      {others.length > 0 && (
        <Box mt={5}>
          <Field label={text.directory.merge}>
            <Choice
              label={text.directory.merge}
              value=""
              options={[["", text.directory.mergeNone], ...others.map((other) => [other.id, other.name] as const)]}
              onChoose={(into) => into !== "" && onMerge(entry.id, into)}
            />
          </Field>
        </Box>
      )}
      <Button mt={6} size="sm" variant="outline" color="trouble" borderColor="line" bg="paper" onClick={remove}>
        {text.directory.remove}
      </Button>
    </>
  );
}

function Field({ label, children }: { readonly label: string; readonly children: React.ReactNode }) {
  return (
    <Box mb={3}>
      <chakra.div color="quiet" fontSize="12px" mb={1}>
        {label}
      </chakra.div>
      {children}
    </Box>
  );
}
