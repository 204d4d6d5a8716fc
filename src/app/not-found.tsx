import Link from "next/link";

export default function NotFound() {
  return (
    <main className="p-10">
      <h1 className="text-[20px] font-bold">Nothing is here</h1>
      <p className="mt-2 text-basalt">This brief or face was deleted or never existed.</p>
      <Link href="/" className="btn mt-4 inline-block">
        Go to the first brief
      </Link>
    </main>
  );
}
