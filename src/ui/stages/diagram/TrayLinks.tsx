"use client";
import { chakra, Flex } from "@chakra-ui/react";
import { Paperclip, X } from "lucide-react";
import { useRef, useState } from "react";
import { type Element, isSafeLink, type Link, linksWith } from "@/core/model";
import { complain } from "../../controls/notices";
import { NewLine } from "../../controls/trayParts";
import { sendBytes } from "../../kernel/ask";
import { text } from "../../messages";
import { useVersionStore } from "../../version/VersionContext";

/** Pages on the web and files that belong to an element. */
export function TrayLinks({ element }: { readonly element: Element }) {
  const store = useVersionStore();
  const [typed, setTyped] = useState("");
  const [sending, setSending] = useState<string | null>(null);
  const stop = useRef<AbortController | null>(null);
  const input = useRef<HTMLInputElement>(null);
  const links = linksWith(element);
  const set = (next: readonly Link[]) =>
    store.getState().dispatch({ type: "setLinks", id: element.id, links: [...next] });
  const addPage = () => {
    const words = typed.trim();
    if (words === "") return;
    const href = /^[a-z]+:/i.test(words) ? words : `https://${words}`;
    if (set([...links, { kind: "page", title: words.replace(/^https?:\/\//, ""), href }])) setTyped("");
  };
  const addFile = async (file: File | undefined) => {
    if (!file) return;
    stop.current = new AbortController();
    setSending(file.name);
    try {
      const path = `/api/files?name=${encodeURIComponent(file.name)}`;
      const kept = await sendBytes<{ id: string; name: string }>(path, file, stop.current.signal);
      const now = store.getState().model.elements.get(element.id);
      if (now) set([...linksWith(now), { kind: "file", title: kept.name, file: kept.id }]);
    } catch (reason) {
      if (!stop.current.signal.aborted) complain(reason);
    }
    setSending(null);
  };
  return (
    <chakra.div mt={3}>
      <chakra.h3 fontSize="12px" fontWeight="600" color="quiet" mb={1}>
        {text.tray.links}
      </chakra.h3>
      {links.map((link, at) => (
        <Flex key={`${link.kind} ${link.title} ${at}`} gap={1} align="center" minH="24px">
          <chakra.a
            href={
              link.kind === "page"
                ? isSafeLink(link.href)
                  ? link.href
                  : undefined
                : `/api/files?id=${encodeURIComponent(link.file)}`
            }
            target={link.kind === "page" ? "_blank" : undefined}
            rel="noreferrer"
            color="accent"
            textDecoration="underline"
            truncate
          >
            {link.title}
          </chakra.a>
          {link.kind === "file" && <Paperclip size={12} aria-hidden="true" />}
          <chakra.button
            type="button"
            aria-label={text.tray.remove(link.title)}
            color="quiet"
            minW="24px"
            h="24px"
            cursor="pointer"
            onClick={() => set(links.filter((_, index) => index !== at))}
          >
            <X size={12} />
          </chakra.button>
        </Flex>
      ))}
      {sending !== null && (
        <Flex gap={2} role="status" color="quiet">
          {text.tray.sending(sending)}
          <chakra.button type="button" color="accent" cursor="pointer" onClick={() => stop.current?.abort()}>
            {text.dialog.cancel}
          </chakra.button>
        </Flex>
      )}
      <Flex gap={1}>
        <NewLine label={text.tray.newLink} value={typed} onType={setTyped} onEnter={addPage} />
        <chakra.button
          type="button"
          aria-label={text.tray.attachFile}
          title={text.tray.attachFile}
          minW="26px"
          h="26px"
          cursor="pointer"
          onClick={() => input.current?.click()}
        >
          <Paperclip size={14} />
        </chakra.button>
        <input
          ref={input}
          type="file"
          hidden
          aria-label={text.tray.attachFile}
          onChange={(event) => {
            void addFile(event.target.files?.[0]);
            event.target.value = "";
          }}
        />
      </Flex>
    </chakra.div>
  );
}
