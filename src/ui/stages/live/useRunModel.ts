import { useEffect, useState } from "react";
import { live } from "@/contract";
import { type Model, trustStored } from "@/core/model";
import { complain } from "../../controls/notices";
import { ask } from "../../kernel/ask";

/** What a run runs, asked for once: it never changes, however often what happens in it is looked at again. */
export function useRunModel(version: string, run: string): Model | undefined {
  const [model, setModel] = useState<Model>();
  useEffect(() => {
    let isStale = false;
    ask(live.runModel, { version, run })
      .then((answer) => !isStale && setModel(trustStored(answer.model)))
      .catch(complain);
    return () => {
      isStale = true;
    };
  }, [version, run]);
  return model;
}
