"use client";
import { Button, chakra, Flex } from "@chakra-ui/react";
import { useRouter } from "next/navigation";
import { useState } from "react";
import { home } from "@/contract";
import type { LogRow } from "@/contract/evidence";
import type { LogFilter } from "@/core/evidence";
import { processesOf } from "@/core/model";
import { DialogFrame } from "../../../controls/DialogFrame";
import { ask, sendBytes } from "../../../kernel/ask";
import { didMake } from "../../../kernel/deletions";
import { wordsOf } from "../../../kernel/wordsOf";
import { text } from "../../../messages";
import type { LogRunner } from "../../../version/logRunner";
import { useVersion } from "../../../version/VersionContext";
import { Choice, Typed } from "./FilterDialog";

const words = text.evidence.map;
const noises = () => Object.entries(words.noises);

/** Asks how much of a log a process is made of, and makes it. */
export function DiscoverDialog(props: {
  readonly log: LogRow;
  readonly runner: LogRunner;
  readonly filters: readonly LogFilter[];
  readonly onClose: () => void;
}) {
  const { runner, filters, onClose } = props;
  const process = useVersion((state) => state.info.process);
  const router = useRouter();
  const version = useVersion((state) => state.info.version.id);
  // Called as it is called there, so that both are told to be the same process.
  const own = useVersion((state) => processesOf(state.model)[0]?.id);
  const [kind, setKind] = useState<keyof typeof words.kinds>("toBe");
  const [noise, setNoise] = useState("0");
  const [name, setName] = useState(words.usualName(process.name));
  const [isBusy, setBusy] = useState(false);
  const [problem, setProblem] = useState("");
  const make = async () => {
    setBusy(true);
    setProblem("");
    try {
      const title = name.trim();
      const bytes = await runner.run(
        "discoverLog",
        {},
        { filters, noise: Number(noise), name: title, ...(kind === "toBe" && own && { process: own }) },
      );
      if (kind === "toBe") {
        const beside = new URLSearchParams({ name: title, source: version });
        const made = await sendBytes<{ version: string }>(`/api/import?${beside}`, bytes.slice().buffer);
        didMake(words.making(title), () => ask(home.deleteVersion, { id: made.version }));
        router.push(`/v/${made.version}/diagram`);
        return;
      }
      // It stands beside the process whose log it is.
      const { processes } = await ask(home.openHome, { text: process.name.slice(0, 100) });
      const area = processes.find(({ id }) => id === process.id)?.area ?? "";
      const into = new URLSearchParams({ name: `${title}.bpmn`, area });
      const made = await sendBytes<{ process: string; version: string }>(`/api/import?${into}`, bytes.slice().buffer);
      didMake(words.making(title), () => ask(home.deleteProcess, { id: made.process }));
      router.push(`/v/${made.version}/diagram`);
    } catch (error) {
      setProblem(wordsOf(error));
      setBusy(false);
    }
  };
  return (
    <DialogFrame
      title={words.discoverTitle}
      width="480px"
      onClose={onClose}
      footer={
        <>
          <Button variant="outline" onClick={onClose}>
            {text.dialog.cancel}
          </Button>
          <Button bg="accent" color="onAccent" disabled={isBusy || name.trim() === ""} onClick={() => void make()}>
            {words.make}
          </Button>
        </>
      }
    >
      <Flex direction="column" gap={3}>
        <chakra.p color="quiet">{words.discoverExplain}</chakra.p>
        <Typed label={words.name} value={name} onChange={setName} />
        <Choice
          label={words.becomes}
          value={kind}
          options={(["toBe", "process"] as const).map((one) => [one, words.kinds[one]] as const)}
          onChange={(one) => setKind(one as typeof kind)}
        />
        <Choice label={words.noise} value={noise} options={noises()} onChange={setNoise} />
        {problem !== "" && (
          <chakra.p color="trouble" role="alert">
            {problem}
          </chakra.p>
        )}
      </Flex>
    </DialogFrame>
  );
}
