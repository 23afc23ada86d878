"use client";
import { text } from "../messages";
import { PlainPage } from "./PlainPage";

/** What an address that leads to nothing shows. */
export const Nowhere = () => <PlainPage title={text.shell.nowhere} explain={text.shell.nowhereExplain} />;
