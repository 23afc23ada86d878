import type { Severity } from "@/core/check";

/** A severity's sign: its form says as much as its colour. */
export function SeveritySign({ severity, size = 16 }: { readonly severity: Severity; readonly size?: number }) {
  return (
    <svg width={size} height={size} viewBox="0 0 16 16" aria-hidden="true" style={{ flexShrink: 0 }}>
      {severity === "error" && (
        <>
          <circle cx="8" cy="8" r="7" fill="var(--chakra-colors-trouble)" />
          <path d="M5.4 5.4L10.6 10.6M10.6 5.4L5.4 10.6" stroke="var(--chakra-colors-paper)" strokeWidth="1.8" />
        </>
      )}
      {severity === "warning" && (
        <>
          <path d="M8 1.2L15.2 14.2H0.8Z" fill="var(--chakra-colors-saffron)" />
          <path d="M8 5.6V10M8 11.4V12.8" stroke="#1E2430" strokeWidth="1.7" />
        </>
      )}
      {severity === "advice" && (
        <>
          <circle cx="8" cy="8" r="6.4" fill="none" stroke="var(--chakra-colors-pencil)" strokeWidth="1.4" />
          <path d="M8 7V11.6M8 4.2V5.6" stroke="var(--chakra-colors-pencil)" strokeWidth="1.6" />
        </>
      )}
    </svg>
  );
}
