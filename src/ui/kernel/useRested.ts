"use client";
import { useEffect, useState } from "react";

/** A value once it has stayed the same for some milliseconds: so that what is typed is not asked for letter by letter. */
export function useRested<Value>(value: Value, milliseconds: number): Value {
  const [rested, setRested] = useState(value);
  useEffect(() => {
    const timer = setTimeout(() => setRested(value), milliseconds);
    return () => clearTimeout(timer);
  }, [value, milliseconds]);
  return rested;
}
