"use client";
import { Box, chakra, Flex } from "@chakra-ui/react";
import { type ReactNode, useMemo } from "react";
import { handoff } from "@/contract";
import { breaksOf } from "@/core/services";
import { ErrorPage } from "../../controls/states";
import { useAsked } from "../../kernel/queries";
import { wordsOf } from "../../kernel/wordsOf";
import { text } from "../../messages";
import { useVersion } from "../../version/VersionContext";
import { BoundSteps } from "./BoundSteps";
import { Candidates } from "./Candidates";
import { Descriptions } from "./Descriptions";
import { ParticipantsMap } from "./ParticipantsMap";
import { Weighing } from "./Weighing";

const words = text.handoff.services;

/** What a service does of a process: those that exist and what is bound to them, and those that could be built. */
export function Services() {
  const model = useVersion((state) => state.model);
  const { data, error, refetch } = useAsked(handoff.listDescriptions, {});
  const breaks = useMemo(
    () => (data?.descriptions ?? []).flatMap(({ name, description }) => breaksOf(model, name, description)),
    [model, data],
  );
  if (error && !data) return <ErrorPage message={wordsOf(error)} retry={() => void refetch()} />;
  if (!data) return <chakra.p color="quiet">{text.shell.loading}</chakra.p>;
  return (
    <Flex direction="column" gap={7} maxW="1080px">
      <Section title={words.existing}>
        <Descriptions rows={data.descriptions} onChanged={() => void refetch()} />
      </Section>
      <Section title={words.steps}>
        <BoundSteps model={model} descriptions={data.descriptions} breaks={breaks} />
      </Section>
      <Section title={words.candidates}>
        <Candidates model={model} />
      </Section>
      <Section title={words.map}>
        <ParticipantsMap model={model} />
      </Section>
      <Section title={words.weighing}>
        <Weighing model={model} />
      </Section>
    </Flex>
  );
}

function Section({ title, children }: { readonly title: string; readonly children: ReactNode }) {
  return (
    <Box as="section" aria-label={title}>
      <chakra.h2 fontSize="14px" fontWeight="700" mb={2}>
        {title}
      </chakra.h2>
      {children}
    </Box>
  );
}
