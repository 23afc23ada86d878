"use client";
import { chakra } from "@chakra-ui/react";
import { review } from "@/contract";
import { PageLink } from "../controls/PageLink";
import { useAsked } from "../kernel/queries";
import { today } from "../kernel/today";
import { text } from "../messages";

const words = text.review;

/** Rounds of review that wait for one's answer; each leads to where it is given. */
export function MyReviews() {
  const { data } = useAsked(review.myReviews, {}, { keepsLast: true });
  if (!data || data.reviews.length === 0) return null;
  return (
    <chakra.section aria-label={words.mineTitle} data-testid="my-reviews">
      <chakra.h2 fontSize="13px" fontWeight="700" mb={1}>
        {words.mine(data.reviews.length)}
      </chakra.h2>
      <chakra.ul listStyleType="none">
        {data.reviews.map(({ id, version, versionName, process, question, due, name }) => (
          <chakra.li key={id} borderTopWidth="1px" borderColor="line" py={1.5}>
            <PageLink
              href={`/v/${encodeURIComponent(version)}/diagram?comments=review`}
              color="accent"
              fontWeight="600"
            >
              {process}: {versionName}
            </PageLink>
            <chakra.span display="block" fontSize="12px" color="quiet" lineClamp={2}>
              {[name, question].filter(Boolean).join(": ")}
            </chakra.span>
            {due !== null && (
              <chakra.span display="block" fontSize="12px" color={due < today() ? "trouble" : "quiet"}>
                {words.until(due)}
                {due < today() ? ` (${words.overdue})` : ""}
              </chakra.span>
            )}
          </chakra.li>
        ))}
      </chakra.ul>
    </chakra.section>
  );
}
