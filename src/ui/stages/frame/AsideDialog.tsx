"use client";
import { Button, chakra } from "@chakra-ui/react";
import { DialogFrame } from "../../controls/DialogFrame";
import { text } from "../../messages";
import { useVersion, useVersionStore } from "../../version/VersionContext";

/** Changes that the server will never take, each with its reason. */
export function AsideDialog({ onClose }: { readonly onClose: () => void }) {
  const store = useVersionStore();
  const aside = useVersion((state) => state.setAside);
  const done = () => {
    store.getState().forgetAside();
    onClose();
  };
  return (
    <DialogFrame
      title={text.saved.asideTitle}
      width="620px"
      onClose={onClose}
      footer={
        <Button bg="accent" color="onAccent" onClick={done}>
          {text.saved.asideDone}
        </Button>
      }
    >
      <chakra.p mb={3}>{text.saved.asideWhy}</chakra.p>
      <chakra.ul listStyleType="none">
        {aside.map(({ batch, label, reason }) => (
          <chakra.li key={batch} py={2} borderTopWidth="1px" borderColor="line" wordBreak="break-word">
            <chakra.span fontWeight="700">{label.slice(0, 200)}</chakra.span>
            <chakra.p color="quiet">{reason}</chakra.p>
          </chakra.li>
        ))}
      </chakra.ul>
    </DialogFrame>
  );
}
