/** The product's mark: two lanes and a flow that finds its way from one into the other. */
export function Mark() {
  return (
    <svg width="26" height="22" viewBox="0 0 26 22" aria-hidden="true">
      <rect
        x="1"
        y="1"
        width="24"
        height="20"
        rx="4"
        fill="var(--chakra-colors-paper)"
        stroke="var(--chakra-colors-ink)"
        strokeWidth="1.6"
      />
      <path d="M1 11H25" stroke="var(--chakra-colors-line)" strokeWidth="1.2" />
      <path
        d="M5 6.5H12Q14 6.5 14 9V13Q14 15.5 16 15.5H18"
        fill="none"
        stroke="var(--chakra-colors-accent)"
        strokeWidth="2.2"
        strokeLinecap="round"
      />
      <circle cx="20.5" cy="15.5" r="2.2" fill="var(--chakra-colors-saffron)" />
    </svg>
  );
}
