"use client";
import { BarChoice } from "../../controls/BarChoice";
import { text } from "../../messages";

/** How fast a run's clock goes. */
export function PaceChoice(props: { readonly value: string; readonly onChange: (pace: string) => void }) {
  const { paces, pace } = text.live;
  const isKnown = paces.some(([value]) => value === props.value);
  const options = isKnown ? paces : [...paces, [props.value, `${props.value} ×`] as const];
  return <BarChoice label={pace} value={props.value} options={options} onChange={props.onChange} />;
}
