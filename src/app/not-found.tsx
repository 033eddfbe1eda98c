import Link from '@/ui/Link';

export default function NotFound() {
  return (
    <main className="mx-auto max-w-[560px] px-8 py-16">
      <h1 className="mb-3 font-serif text-2xl">There is no such page</h1>
      <p className="mb-4 text-soft">The address is wrong, or what it named is gone.</p>
      <Link href="/" className="underline underline-offset-4">
        Back to the book
      </Link>
    </main>
  );
}
