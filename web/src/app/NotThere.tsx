import { Link } from "react-router";

export function NotThere({ what }: { what: string }) {
  return (
    <main className="sheet m-6 max-w-xl p-6">
      <h1 className="text-[20px] font-semibold">There is no such {what}.</h1>
      <p className="mt-2">The address may be mistyped, or it belongs to another shop's file.</p>
      <Link to="/" className="text-primary mt-4 inline-block underline">
        To the counter
      </Link>
    </main>
  );
}
