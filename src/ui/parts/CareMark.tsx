// The mark of a face that is usable with care: a cracked bar and a word, wherever the face is offered.

/** @param compact - the word is only read out: always, or where its container is narrow. */
export function CareMark({
  health,
  compact = false,
}: {
  health: "fine" | "with-care" | "refused";
  compact?: boolean | "if-narrow";
}) {
  if (health === "fine") return null;
  return (
    <span
      className="inline-flex shrink-0 items-center gap-1 text-ochre"
      title="Minor problems in the file; see File on its page"
      data-care
    >
      <svg width={10} height={10} viewBox="0 0 10 10" aria-hidden>
        <path d="M0 2h4.2l-1 6H0z M6 2h4v6H5z" fill="currentColor" />
      </svg>
      <span className={compact === "if-narrow" ? "@max-[420px]:sr-only" : compact ? "sr-only" : undefined}>
        with care
      </span>
    </span>
  );
}
