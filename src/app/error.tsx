"use client";

export default function Failed({ error, reset }: { error: Error & { digest?: string }; reset: () => void }) {
  return (
    <main className="p-10">
      <h1 className="text-[20px] font-bold">This view broke</h1>
      <p className="mt-2 text-basalt">
        Nothing you kept is lost. Try the view again; if it breaks again, reload the page.
      </p>
      <button type="button" className="btn mt-4" onClick={reset}>
        Try again
      </button>
      <details className="mt-4 text-basalt">
        <summary>Technical detail</summary>
        <pre className="num whitespace-pre-wrap">{error.digest ?? error.message}</pre>
      </details>
    </main>
  );
}
