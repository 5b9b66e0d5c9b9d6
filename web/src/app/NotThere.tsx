import { Link } from "react-router";

export function NotThere({ what }: { what: string }) {
  return (
    <div className="flex min-h-dvh flex-col p-[10px]">
      <div className="sheet flex flex-1 flex-col">
        <header className="border-base-300 flex items-stretch border-b">
          <Link to="/" className="plain-button flex items-center font-medium">
            ‹ Counter
          </Link>
        </header>
        <main className="flex flex-1 flex-col items-start justify-center gap-3 px-10">
          <svg viewBox="0 0 300 90" className="drawing w-[300px]" aria-hidden="true">
            <line className="axis" x1="10" x2="290" y1="70" y2="70" />
            <path className="phantom" d="M90 60V24Q90 12 104 12H196Q210 12 210 24V60" />
            <text className="note" x="150" y="48" textAnchor="middle">
              nothing here
            </text>
          </svg>
          <h1 className="text-head font-semibold">There is no such {what}.</h1>
          <p className="text-body">The address may be mistyped, or it belongs to another shop's file.</p>
          <Link to="/" className="btn btn-primary btn-sm">
            To the counter
          </Link>
        </main>
      </div>
    </div>
  );
}
