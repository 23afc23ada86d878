"use client";
import { Box, chakra } from "@chakra-ui/react";
import { useState } from "react";
import { compare, inVersion } from "@/contract";
import { counterpartsOf, type Element } from "@/core/model";
import { Chip } from "../../controls/Chip";
import { Keycap } from "../../controls/Keycap";
import { momentWords } from "../../controls/moment";
import { PageLink } from "../../controls/PageLink";
import { Row } from "../../controls/trayParts";
import { useAsked } from "../../kernel/queries";
import { useRested } from "../../kernel/useRested";
import { text } from "../../messages";
import { placeOf } from "../../version/counterparts";
import { useVersion, useVersionStore } from "../../version/VersionContext";

/** Milliseconds an element has to stay chosen before its past is asked for. */
const restBeforeAsking = 350;

/** An element's other lives: where it is in other versions, and who changed it last. */
export function TrayPast({ element }: { readonly element: Element }) {
  const version = useVersion((state) => state.info.version.id);
  const hasOthers = useVersion((state) => state.info.siblings.length > 1);
  const isStored = useVersion((state) => state.pending.length === 0);
  const { dispatch } = useVersionStore().getState();
  const [all, setAll] = useState(false);
  const rested = useRested(element, restBeforeAsking);
  const about = { version, element: element.id };
  const isWanted = isStored && rested === element;
  const found = useAsked(compare.listCounterparts, about, { isWanted: isWanted && hasOthers }).data?.counterparts ?? [];
  const past = useAsked(inVersion.elementHistory, about, { isWanted }).data?.changes ?? [];
  const links = counterpartsOf(element);
  const shown = all ? past : past.slice(0, 1);
  return (
    <Box mt={2}>
      {found.length > 0 && (
        <Row label={text.counterpart.elsewhere}>
          {found.map((one, at) => (
            <Chip
              key={`${one.version} ${one.element}`}
              {...(links.includes(one.element) && {
                removeLabel: text.counterpart.unlink(one.versionName),
                onRemove: () =>
                  dispatch({
                    type: "setCounterparts",
                    id: element.id,
                    counterparts: links.filter((link) => link !== one.element),
                  }),
              })}
            >
              <PageLink href={placeOf(one)} color="accent">
                {one.versionName}: {one.name || one.type}
              </PageLink>{" "}
              {at === 0 && <Keycap>,</Keycap>}
            </Chip>
          ))}
        </Row>
      )}
      {shown.length > 0 && (
        <Row label={text.counterpart.lastChange}>
          <chakra.ul listStyleType="none" fontSize="13px" data-testid="element-history">
            {shown.map((change) => (
              <li key={change.sequence}>
                {change.label}
                <chakra.span color="quiet">
                  {" "}
                  {change.member}, {momentWords(change.at)}
                </chakra.span>
              </li>
            ))}
          </chakra.ul>
          {past.length > 1 && (
            <chakra.button type="button" color="accent" fontSize="13px" cursor="pointer" onClick={() => setAll(!all)}>
              {all ? text.counterpart.fewer : text.counterpart.more(past.length - 1)}
            </chakra.button>
          )}
        </Row>
      )}
    </Box>
  );
}
