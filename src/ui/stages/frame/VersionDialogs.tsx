"use client";
import { Button, Text } from "@chakra-ui/react";
import { useRouter } from "next/navigation";
import { compare, home, inVersion } from "@/contract";
import { AskDialog } from "../../controls/AskDialog";
import { DialogFrame } from "../../controls/DialogFrame";
import { complain, tell } from "../../controls/notices";
import { ask } from "../../kernel/ask";
import { didMake } from "../../kernel/deletions";
import { doAct } from "../../kernel/history";
import { text } from "../../messages";
import { useVersion, useVersionStore } from "../../version/VersionContext";
import { ExportDialog } from "./ExportDialog";
import { HistoryDialog } from "./HistoryDialog";
import { LinksDialog } from "./LinksDialog";

export type VersionQuestion = "history" | "to-be" | "describe" | "adopt" | "keep" | "export" | "links";

/** What is asked about the open version: a name, an aim, a state to keep, a to-be to begin or to adopt. */
export function VersionDialogs({
  question,
  onAsk,
}: {
  readonly question: VersionQuestion;
  readonly onAsk: (next: VersionQuestion | null) => void;
}) {
  const store = useVersionStore();
  const info = useVersion((state) => state.info);
  const router = useRouter();
  const close = () => onAsk(null);
  const { version } = info;
  switch (question) {
    case "export":
      return <ExportDialog onClose={close} />;
    case "links":
      return <LinksDialog onClose={close} />;
    case "history":
      return <HistoryDialog onClose={close} onKeep={() => onAsk("keep")} />;
    case "keep":
      return (
        <AskDialog
          title={text.version.keep}
          label={text.version.keepName}
          action={text.version.keep}
          onClose={close}
          onAnswer={async (reason) => {
            await store.getState().settled();
            const { number } = await ask(inVersion.nameRevision, { version: version.id, reason });
            tell({ description: text.version.kept(number) });
          }}
        />
      );
    case "to-be":
      return (
        <AskDialog
          title={text.version.start}
          explain={text.version.startAsk}
          label={text.version.name}
          start={text.version.suggested}
          besides={{ label: text.version.aim, hint: text.version.aimHint, start: "" }}
          action={text.version.start}
          onClose={close}
          onAnswer={async (name, aim) => {
            await store.getState().settled();
            const made = await ask(compare.createToBe, { source: version.id, name, aim });
            didMake(text.home.made(name), () => ask(home.deleteVersion, { id: made.version }));
            router.push(`/v/${encodeURIComponent(made.version)}/diagram`);
          }}
        />
      );
    case "describe":
      return (
        <AskDialog
          title={text.version.describe}
          label={text.version.name}
          start={version.name}
          besides={{ label: text.version.aim, hint: text.version.aimHint, start: version.aim }}
          action={text.version.describeAction}
          onClose={close}
          onAnswer={async (name, aim) => {
            const describe = async (told: { readonly name: string; readonly aim: string }) => {
              await ask(compare.describeVersion, { id: version.id, ...told });
              store.getState().noteVersion(told);
            };
            const before = { name: version.name, aim: version.aim };
            await doAct(
              text.home.renamed(before.name, name),
              () => describe({ name, aim }),
              () => describe(before),
            );
          }}
        />
      );
    case "adopt":
      return (
        <AdoptDialog
          name={version.name}
          onClose={close}
          onAdopt={async () => {
            await store.getState().settled();
            const made = await ask(compare.adoptToBe, { version: version.id });
            tell({ description: text.version.adopted(version.name) });
            router.push(`/v/${encodeURIComponent(made.version)}/diagram`);
          }}
        />
      );
  }
}

function AdoptDialog({
  name,
  onAdopt,
  onClose,
}: {
  readonly name: string;
  readonly onAdopt: () => Promise<void>;
  readonly onClose: () => void;
}) {
  return (
    <DialogFrame
      title={text.version.adopt}
      width="460px"
      isAlert
      onClose={onClose}
      footer={
        <>
          <Button variant="ghost" onClick={onClose}>
            {text.dialog.cancel}
          </Button>
          <Button bg="accent" color="onAccent" onClick={() => onAdopt().then(onClose).catch(complain)}>
            {text.version.adopt}
          </Button>
        </>
      }
    >
      <Text>{text.version.adoptAsk(name)}</Text>
    </DialogFrame>
  );
}
