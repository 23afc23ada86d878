"use client";
import { chakra } from "@chakra-ui/react";
import { useRef, useState } from "react";
import { finding, inVersion } from "@/contract";
import { complain } from "../../controls/notices";
import { useAsked, useAskedEach } from "../../kernel/queries";
import { text } from "../../messages";
import { useVersion } from "../../version/VersionContext";
import { readModelFile } from "./readModelFile";
import { readRef, type SideRef, writeRef } from "./sides";

/** What stands on one side: a version of this process, a kept state, a version of another process, or a file. */
export function SidePicker({
  label,
  value,
  title,
  onChoose,
}: {
  readonly label: string;
  readonly value: SideRef | undefined;
  readonly title: string | undefined;
  readonly onChoose: (ref: SideRef) => void;
}) {
  const { siblings, process } = useVersion((state) => state.info);
  const [looked, setLooked] = useState(false);
  const file = useRef<HTMLInputElement>(null);
  // Kept states and other processes are asked for when somebody is about to choose.
  const revisions = useAskedEach(
    inVersion.listRevisions,
    siblings.map(({ id }) => ({ version: id })),
    looked,
  );
  const callable = useAsked(finding.listCallable, {}, { isWanted: looked }).data?.callable ?? [];
  const others = callable.filter((one) => one.name !== process.name);
  const known = value && (value.kind === "file" ? "file" : writeRef(value));
  const isListed = value?.kind === "version" && siblings.some(({ id }) => id === value.version);
  return (
    <>
      <chakra.select
        aria-label={label}
        value={known ?? ""}
        h="28px"
        maxW="230px"
        px={1.5}
        bg="paper"
        color="ink"
        borderWidth="1px"
        borderColor="line"
        borderRadius="6px"
        fontSize="13px"
        fontWeight="600"
        onFocus={() => setLooked(true)}
        onPointerEnter={() => setLooked(true)}
        onChange={(event) => {
          if (event.target.value === "new file") return file.current?.click();
          const ref = readRef(event.target.value);
          if (ref) onChoose(ref);
        }}
      >
        {known === undefined && <option value="">{text.compare.chooseSide}</option>}
        {known !== undefined && !isListed && <option value={known}>{title ?? known}</option>}
        <optgroup label={text.compare.versionsHere}>
          {siblings.map(({ id, name }) => (
            <option key={id} value={id}>
              {name}
            </option>
          ))}
        </optgroup>
        {siblings.map(({ id, name }, at) => {
          const kept = (revisions[at]?.revisions ?? []).filter((one) => `${id}@${one.number}` !== known);
          return kept.length === 0 ? null : (
            <optgroup key={id} label={text.compare.revisionsOf(name)}>
              {kept.map(({ number, reason }) => (
                <option key={number} value={`${id}@${number}`}>
                  {text.compare.revision(number, reason)}
                </option>
              ))}
            </optgroup>
          );
        })}
        {others.map(({ name, versions }) => (
          <optgroup key={name} label={name}>
            {versions.map((version) => (
              <option key={version.id} value={version.id}>
                {version.name}
              </option>
            ))}
          </optgroup>
        ))}
        <option value="new file">{text.compare.aFile}</option>
      </chakra.select>
      <input
        ref={file}
        type="file"
        accept=".bpmn,.xml"
        hidden
        aria-label={text.compare.aFile}
        onChange={(event) => {
          const [chosen] = event.target.files ?? [];
          event.target.value = "";
          if (chosen) readModelFile(chosen).then(onChoose).catch(complain);
        }}
      />
    </>
  );
}
