import Link from "next/link";

export default function NotFound() {
  return (
    <main className="mx-auto mt-24 max-w-[460px] border border-ink bg-panel p-6">
      <h1 className="mb-2 text-22">Nothing is here</h1>
      <p className="mb-4 text-15">This sheet or site does not exist; it may have been deleted.</p>
      <Link href="/" className="button go">
        All sites
      </Link>
    </main>
  );
}
