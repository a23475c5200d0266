import Link from 'next/link';

export default function NotFound() {
  return (
    <main className="mx-auto max-w-2xl px-6 py-16">
      <h1 className="mb-2 text-xl font-semibold">There is no such page</h1>
      <p className="mb-4 text-ink-2">The address may have been typed wrong.</p>
      <Link className="text-action underline" href="/">
        Back to Projects
      </Link>
    </main>
  );
}
