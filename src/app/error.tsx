"use client";

export default function Broken({ error, reset }: { error: Error; reset: () => void }) {
  return (
    <main className="mx-auto mt-24 max-w-[560px] border border-stop bg-panel p-6">
      <h1 className="mb-2 text-22">Something here is broken</h1>
      <p className="mb-2 text-15">
        Your changes are safe: what was saved is on the server, what was not is kept in this browser and is
        sent when the page works again.
      </p>
      {/* What went wrong on the server comes here as the framework's own sentence and number, which say
          nothing to anybody. */}
      {"digest" in error ? (
        <p className="mb-4 text-13 text-ink2">
          The server could not make this page. What happened stands in its log, server.log in the data folder.
        </p>
      ) : (
        <p className="mono mb-4 text-13 text-ink2">{error.message}</p>
      )}
      <button type="button" className="button go" onClick={reset}>
        Try again
      </button>
    </main>
  );
}
