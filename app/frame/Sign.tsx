/** The sign of Juncture: a line that forks. */
export function Sign() {
  return (
    <svg
      aria-hidden
      viewBox="0 0 24 24"
      className="h-6 w-6 fill-none stroke-accent stroke-[1.9] [stroke-linecap:round]"
    >
      <path d="M1 12h7c6 0 6-5.5 15-5.5M8 12c6 0 6 5.5 15 5.5" />
    </svg>
  );
}
