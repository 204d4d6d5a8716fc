"use client";
// Where files are dropped or chosen in Identify: pictures in one view, documents in another.
import { useRef, type ReactNode } from "react";

type Props = {
  onFiles: (files: File[]) => void;
  children: ReactNode;
  className?: string;
};

export function DropArea({
  onFiles,
  children,
  className = "flex h-full flex-col items-start justify-center px-16",
}: Props) {
  return (
    <div
      className={className}
      onDragOver={(e) => e.preventDefault()}
      onDrop={(e) => {
        e.preventDefault();
        onFiles([...e.dataTransfer.files]);
      }}
    >
      {children}
    </div>
  );
}

type ChooserProps = {
  onFiles: (files: File[]) => void;
  /** On the button. */
  label: string;
  /** What is chosen, for screen readers. */
  what: string;
  accept: string;
  act?: boolean;
  multiple?: boolean;
};

export function Chooser({ onFiles, label, what, accept, act, multiple }: ChooserProps) {
  const input = useRef<HTMLInputElement>(null);
  return (
    <>
      <button type="button" className={`btn ${act ? "btn-act" : ""}`} onClick={() => input.current?.click()}>
        {label}
      </button>
      <input
        ref={input}
        type="file"
        hidden
        aria-label={what}
        accept={accept}
        multiple={multiple}
        onChange={(e) => {
          onFiles([...(e.target.files ?? [])]);
          e.target.value = "";
        }}
      />
    </>
  );
}
