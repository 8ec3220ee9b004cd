/** The mark: several shoots, one root. */
export function Logo() {
  return (
    <svg
      width="22"
      height="24"
      viewBox="0 0 32 32"
      aria-hidden="true"
      fill="none"
      stroke="var(--accent)"
      strokeWidth="3"
      strokeLinecap="round"
    >
      <path d="M16 30V17" />
      <path d="M16 17C16 12 8 12 7 4" />
      <path d="M16 17C16 12 24 12 25 4" />
      <path d="M16 17V7" />
    </svg>
  );
}
