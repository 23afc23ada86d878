"use client";
import { useRouter } from "next/navigation";
import { Segments } from "../../controls/Segments";
import { text } from "../../messages";
import { useVersion } from "../../version/VersionContext";

const parts = ["sheet", "data", "forms", "languages"] as const;

/** What of the process is shown as a table: its steps, its data, or its forms. */
export function Parts({ part }: { readonly part: (typeof parts)[number] }) {
  const version = useVersion((state) => state.info.version.id);
  const router = useRouter();
  return (
    <Segments
      label={text.steps.parts}
      value={part}
      small
      options={parts.map((one) => [one, text.steps.partNames[one]] as const)}
      onChoose={(next) =>
        router.push(`/v/${encodeURIComponent(version)}/steps${next === "sheet" ? "" : `?part=${next}`}`)
      }
    />
  );
}
