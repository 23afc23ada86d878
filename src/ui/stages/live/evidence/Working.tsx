"use client";
import { Button, chakra, Flex } from "@chakra-ui/react";
import { text } from "../../../messages";

const words = text.evidence;

/** Long work on a log: how far it is and how it is stopped; what stood in its way, and that it is asked for again. */
export function Working(props: {
  readonly share: number | undefined;
  readonly error: string | undefined;
  readonly onAgain: () => void;
  readonly onStop?: () => void;
}) {
  const { share, error, onAgain, onStop } = props;
  if (error !== undefined)
    return (
      <Flex p={4} gap={3} align="center">
        <chakra.p color="trouble" role="alert">
          {error}
        </chakra.p>
        <Button size="xs" variant="outline" onClick={onAgain}>
          {words.again}
        </Button>
      </Flex>
    );
  if (share === undefined) return null;
  return (
    <Flex p={4} gap={3} align="center" role="status">
      <chakra.progress value={share} max={1} w="160px" aria-label={text.shell.loading} />
      <chakra.span color="quiet">{words.working(Math.round(share * 100))}</chakra.span>
      {onStop && (
        <Button size="xs" variant="outline" onClick={onStop}>
          {words.stop}
        </Button>
      )}
    </Flex>
  );
}
