"use client";
import { useMemo } from "react";
import { live } from "@/contract";
import type { WorkItem } from "@/contract/live";
import { type FormData, type ShownItem, shownItems, valueIn, withValueIn } from "@/core/data";
import { formOf, trustStored } from "@/core/model";
import { useAsked } from "../kernel/queries";

/** A piece of work as the server has it: its model, what its form shows, what is known of its case and what is filled in half. */
export function useWorkForm({ version, run, number, wait, element }: WorkItem) {
  const { data: opened, error, refetch } = useAsked(live.openWork, { version, run, number, wait }, { keepsLast: true });
  const model = useMemo(() => opened && trustStored(opened.model), [opened]);
  const items = useMemo<readonly ShownItem[]>(() => {
    const step = model?.elements.get(element);
    const form = step && formOf(step);
    return model && form ? shownItems(model, element, form) : [];
  }, [model, element]);
  return { opened, model, items, error, refetch };
}

/** What the form filled in, by its paths: what is only shown stays out. */
export const filledIn = (items: readonly ShownItem[], data: FormData): { readonly [name: string]: unknown } =>
  items.reduce<FormData>((values, { item, field }) => {
    const value = valueIn(data, item.path);
    return !field || item.isReadOnly || value === undefined ? values : withValueIn(values, item.path, value);
  }, {});
