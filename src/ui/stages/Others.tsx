"use client";
import { chakra, Flex } from "@chakra-ui/react";
import { useRouter } from "next/navigation";
import { useEffect } from "react";
import { text } from "../messages";
import { initialsOf } from "../shell/member";
import { hueOf } from "../version/presence/hues";
import { usePresence } from "../version/presence/store";
import { type StageName, stageNamed, stagePath } from "./register";

const words = text.presence;
/** So many are shown; of more, how many. */
const most = 4;

/** Who else is in this version; a click follows what they look at. */
export function Others({ version, stage }: { readonly version: string; readonly stage: string }) {
  const others = usePresence((state) => state.others);
  const following = usePresence((state) => state.following);
  const { set } = usePresence.getState();
  const router = useRouter();
  const followed = following === null ? undefined : others.get(following);
  const theirs = followed?.stage;
  useEffect(() => {
    if (theirs !== undefined && theirs !== stage && stageNamed(theirs))
      router.push(stagePath(version, theirs as StageName));
  }, [theirs, stage, version, router]);
  if (others.size === 0) return null;
  const shown = [...others.values()].sort((a, b) => a.name.localeCompare(b.name));
  return (
    <Flex as="ul" listStyleType="none" aria-label={words.title} gap="3px" flexShrink={0} data-testid="others">
      {shown.slice(0, most).map(({ window, member, name, stage: at }) => {
        const stage = stageNamed(at);
        const title = stage ? text.stages[stage.words] : at;
        const isFollowed = window === following;
        return (
          <li key={window}>
            <chakra.button
              type="button"
              aria-pressed={isFollowed}
              aria-label={isFollowed ? words.stop(name) : words.follow(name, title)}
              title={words.at(name, title)}
              w="26px"
              h="26px"
              borderRadius="full"
              fontSize="11px"
              fontWeight="700"
              color="white"
              cursor="pointer"
              borderWidth="2px"
              borderColor={isFollowed ? "ink" : "transparent"}
              style={{ backgroundColor: hueOf(member) }}
              onClick={() => set({ following: isFollowed ? null : window })}
            >
              {initialsOf(name)}
            </chakra.button>
          </li>
        );
      })}
      {shown.length > most && (
        <chakra.li fontSize="12px" color="quiet" alignSelf="center">
          +{shown.length - most}
        </chakra.li>
      )}
    </Flex>
  );
}
