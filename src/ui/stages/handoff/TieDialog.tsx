"use client";
import { chakra, Flex } from "@chakra-ui/react";
import { useState } from "react";
import type { PlaceRow } from "@/contract/handoff";
import { AskDialog } from "../../controls/AskDialog";
import { Choice } from "../../controls/fields";
import { text } from "../../messages";
import { useVersion } from "../../version/VersionContext";

const words = text.handoff.builds;

/** A name as files and branches carry it. */
const plain = (name: string) =>
  name
    .normalize("NFKD")
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, "-")
    .replace(/^-+|-+$/g, "") || "process";

/** Asks which file of which place a version is tied to. */
export function TieDialog(props: {
  readonly places: readonly PlaceRow[];
  readonly onTie: (spot: { place: string; branch: string; path: string }) => Promise<void>;
  readonly onClose: () => void;
}) {
  const { places, onTie, onClose } = props;
  const process = useVersion((state) => state.info.process.name);
  const version = useVersion((state) => state.info.version.name);
  const name = `${plain(process)}-${plain(version)}`;
  const [place, setPlace] = useState(places[0]?.id ?? "");
  const isGit = place.startsWith("git:");
  const [branch, setBranch] = useState(`lucid-lane/${name}`);
  return (
    <AskDialog
      title={words.tieTitle}
      explain={words.tieExplain}
      label={words.path}
      start={`processes/${name}.bpmn`}
      action={words.tieAction}
      onAnswer={(path) => onTie({ place, branch: isGit ? branch : "", path })}
      onClose={onClose}
    >
      <Flex direction="column" gap={3} mt={4}>
        <div>
          <chakra.span display="block" mb={1}>
            {words.place}
          </chakra.span>
          <Choice
            label={words.place}
            value={place}
            options={places.map((one) => [one.id, words.placeNames(one.kind, one.isDemo ? null : one.at)] as const)}
            onChoose={setPlace}
          />
        </div>
        {isGit && (
          <label>
            <chakra.span display="block" mb={1}>
              {words.branch}
            </chakra.span>
            <chakra.input
              aria-label={words.branch}
              value={branch}
              onChange={(event) => setBranch(event.target.value)}
              w="100%"
              h="32px"
              px={2}
              bg="paper"
              borderWidth="1px"
              borderColor="line"
              borderRadius="6px"
            />
          </label>
        )}
      </Flex>
    </AskDialog>
  );
}
