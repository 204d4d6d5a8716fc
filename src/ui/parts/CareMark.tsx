// The mark of a face that is usable with care: a cracked bar and a word, wherever the face is offered.

export function CareMark({ health }: { health: "fine" | "with-care" | "refused" }) {
  if (health === "fine") return null;
  return (
    <span
      className="inline-flex shrink-0 items-center gap-1 text-ochre"
      title="The file has faults; its page names them"
      data-care
    >
      <svg width={10} height={10} viewBox="0 0 10 10" aria-hidden>
        <path d="M0 2h4.2l-1 6H0z M6 2h4v6H5z" fill="currentColor" />
      </svg>
      with care
    </span>
  );
}
