"use client";
import dynamic from "next/dynamic";
import { useSearchParams } from "next/navigation";
import { LoadingPage } from "../../controls/states";
import { text } from "../../messages";
import { SheetPart } from "./SheetPart";

// Loaded when somebody opens them; the sheet is what most come for.
const loading = () => <LoadingPage label={text.steps.opening} />;
const DataPart = dynamic(() => import("./data/DataPart").then((file) => file.DataPart), { loading });
const FormsPart = dynamic(() => import("./forms/FormsPart").then((file) => file.FormsPart), { loading });

const TextsPart = dynamic(() => import("./texts/TextsPart").then((file) => file.TextsPart), { loading });

/** The process as tables: its steps, the data it handles, the forms its people fill in, and its texts in other languages. */
export function StepsStage() {
  const part = useSearchParams().get("part");
  if (part === "data") return <DataPart />;
  if (part === "languages") return <TextsPart />;
  return part === "forms" ? <FormsPart /> : <SheetPart />;
}
