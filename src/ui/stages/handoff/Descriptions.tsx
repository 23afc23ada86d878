"use client";
import { Button, chakra, Flex, Table } from "@chakra-ui/react";
import { useRef, useState } from "react";
import { handoff } from "@/contract";
import type { DescriptionRow } from "@/contract/handoff";
import { momentWords } from "../../controls/moment";
import { complain, tell } from "../../controls/notices";
import { ask } from "../../kernel/ask";
import { text } from "../../messages";

const words = text.handoff.services;

/** How a description begins: a version of OpenAPI, or the definitions of WSDL. */
const describes = /^\s*[{"']?\s*["']?(?:openapi|swagger)["']?\s*:|<(?:[\w.-]+:)?definitions[\s>]/m;

/** The descriptions of services that exist, as they were last read. */
export function Descriptions(props: { readonly rows: readonly DescriptionRow[]; readonly onChanged: () => void }) {
  const { rows, onChanged } = props;
  const picker = useRef<HTMLInputElement>(null);
  const [busy, setBusy] = useState(false);
  const read = async (files: FileList | null) => {
    setBusy(true);
    const given = await Promise.all(
      [...(files ?? [])].map(async (file) => ({ name: file.name, text: await file.text() })),
    );
    // Of several, those that describe services are read; the others are what they lead to.
    const describing = given.filter(({ text }) => describes.test(text));
    for (const { name, text } of describing.length > 0 ? describing : given)
      try {
        const beside = given.filter((one) => one.name !== name);
        const { operations, problems } = await ask(handoff.importDescription, { name, text, beside });
        tell({ description: words.read(name, operations, problems.length) });
      } catch (error) {
        complain(error);
      }
    onChanged();
    setBusy(false);
  };
  const remove = async (name: string) => {
    try {
      await ask(handoff.removeDescription, { name });
    } catch (error) {
      complain(error);
    }
    onChanged();
  };
  return (
    <>
      {rows.length === 0 && (
        <chakra.p color="quiet" mb={2} maxW="76ch">
          {words.noDescriptions}
        </chakra.p>
      )}
      {rows.length > 0 && (
        <Table.Root size="sm" bg="paper" borderWidth="1px" borderColor="line" mb={3} data-testid="descriptions">
          <Table.Header>
            <Table.Row bg="sheet">
              {[words.file, words.kind, words.interfaces, words.readAt].map((head) => (
                <Table.ColumnHeader key={head} color="quiet">
                  {head}
                </Table.ColumnHeader>
              ))}
              <Table.ColumnHeader>
                <chakra.span srOnly>{words.remove}</chakra.span>
              </Table.ColumnHeader>
            </Table.Row>
          </Table.Header>
          <Table.Body>
            {rows.map(({ name, description, member, at }) => (
              <Table.Row key={name} bg="paper">
                <Table.Cell fontWeight="700">{name}</Table.Cell>
                <Table.Cell>
                  {description.format}
                  {description.version && `, ${words.version(description.version)}`}
                </Table.Cell>
                <Table.Cell>
                  {description.interfaces.map((service) => (
                    <chakra.div key={service.name}>
                      {words.interfaceWords(service.name, service.operations.length)}
                    </chakra.div>
                  ))}
                  {description.problems.map(({ text: problem }) => (
                    <chakra.div key={problem} color="attention">
                      {problem}
                    </chakra.div>
                  ))}
                </Table.Cell>
                <Table.Cell>
                  {momentWords(at)}, {member}
                </Table.Cell>
                <Table.Cell textAlign="end">
                  <Button
                    size="xs"
                    variant="ghost"
                    aria-label={words.removeNamed(name)}
                    onClick={() => void remove(name)}
                  >
                    {words.remove}
                  </Button>
                </Table.Cell>
              </Table.Row>
            ))}
          </Table.Body>
        </Table.Root>
      )}
      <Flex>
        <input
          ref={picker}
          type="file"
          multiple
          hidden
          accept=".json,.yaml,.yml,.wsdl,.xml,.xsd"
          data-testid="description-file"
          onChange={(event) => {
            void read(event.target.files);
            event.target.value = "";
          }}
        />
        <Button size="sm" variant="outline" loading={busy} onClick={() => picker.current?.click()}>
          {words.import}
        </Button>
      </Flex>
    </>
  );
}
