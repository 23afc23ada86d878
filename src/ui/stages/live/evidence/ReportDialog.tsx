"use client";
import { Button, chakra, Flex } from "@chakra-ui/react";
import type { LogFilter } from "@/core/evidence";
import { BookletKinds } from "../../../controls/BookletKinds";
import { DialogFrame } from "../../../controls/DialogFrame";
import { text } from "../../../messages";
import { useVersion, useVersionStore } from "../../../version/VersionContext";
import { filterWords } from "./said";

const words = text.handbook;

/** What the log says of the version, to be taken as a file. */
export function ReportDialog(props: {
  readonly version: string;
  readonly log: string;
  readonly filters: readonly LogFilter[];
  readonly onClose: () => void;
}) {
  const { version, log, filters, onClose } = props;
  const store = useVersionStore();
  const process = useVersion((state) => state.info.process);
  return (
    <DialogFrame
      title={words.reportTitle}
      width="480px"
      onClose={onClose}
      footer={
        <Button variant="outline" onClick={onClose}>
          {text.dialog.close}
        </Button>
      }
    >
      <Flex direction="column" gap={3}>
        <chakra.p color="quiet">{words.reportExplain}</chakra.p>
        {filters.length > 0 && (
          <chakra.p>
            {text.evidence.filters.label} {filters.map(filterWords).join("; ")}
          </chakra.p>
        )}
        <BookletKinds
          path="/api/logs/report"
          input={{ version, log, filters }}
          name={`${process.name} evidence`}
          before={() => store.getState().settled()}
        />
      </Flex>
    </DialogFrame>
  );
}
