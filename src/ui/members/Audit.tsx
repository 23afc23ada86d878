"use client";
import { Button, chakra, Flex } from "@chakra-ui/react";
import { useState } from "react";
import { membership } from "@/contract";
import { auditPage, type MemberRow } from "@/contract/members";
import { Choice } from "../controls/fields";
import { momentWords } from "../controls/moment";
import { EmptyState, ErrorPage, LoadingPage } from "../controls/states";
import { useAsked } from "../kernel/queries";
import { text } from "../messages";

const words = text.members.log;

/** What was done, by whom, the last first; what was refused too. */
export function Audit({ members }: { readonly members: readonly MemberRow[] }) {
  const [member, setMember] = useState("");
  const [from, setFrom] = useState(0);
  const asked = { member: member === "" ? null : member, from };
  const { data, error, refetch } = useAsked(membership.listAudit, asked, { keepsLast: true });
  if (error && !data) return <ErrorPage message={error.message} retry={() => void refetch()} />;
  if (!data) return <LoadingPage label={text.shell.loading} />;
  return (
    <Flex direction="column" gap={3}>
      <Flex gap={3} align="center" wrap="wrap">
        <chakra.span color="quiet">{words.whose}</chakra.span>
        <Choice
          label={words.whose}
          value={member}
          options={[["", words.all] as const, ...members.map(({ id, name }) => [id, name] as const)]}
          onChoose={(next) => {
            setMember(next);
            setFrom(0);
          }}
        />
        {data.total > auditPage && (
          <Flex gap={2} align="center" ms="auto">
            <Button
              size="xs"
              variant="outline"
              disabled={from === 0}
              onClick={() => setFrom(Math.max(0, from - auditPage))}
            >
              {words.newer}
            </Button>
            <span>{words.range(from + 1, Math.min(from + auditPage, data.total), data.total)}</span>
            <Button
              size="xs"
              variant="outline"
              disabled={from + auditPage >= data.total}
              onClick={() => setFrom(from + auditPage)}
            >
              {words.older}
            </Button>
          </Flex>
        )}
      </Flex>
      {data.rows.length === 0 ? (
        <EmptyState>{words.empty}</EmptyState>
      ) : (
        <chakra.table
          w="100%"
          fontSize="13px"
          data-testid="audit-rows"
          css={{ "& td, & th": { padding: "4px 8px 4px 0", textAlign: "start", verticalAlign: "top" } }}
        >
          <thead>
            <tr>
              <th>{words.at}</th>
              <th>{words.who}</th>
              <th>{words.what}</th>
              <th>{words.about}</th>
            </tr>
          </thead>
          <tbody>
            {data.rows.map((row) => (
              <chakra.tr key={row.id} borderTopWidth="1px" borderColor="line">
                <chakra.td whiteSpace="nowrap">{momentWords(row.at)}</chakra.td>
                <td>{row.memberName || words.nobody}</td>
                <td>
                  {text.acts[row.act] ?? row.act}
                  {row.isRefused && <chakra.span color="trouble"> ({words.refused})</chakra.span>}
                </td>
                <td>{row.about}</td>
              </chakra.tr>
            ))}
          </tbody>
        </chakra.table>
      )}
    </Flex>
  );
}
