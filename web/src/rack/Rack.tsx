import { useEffect } from "react";
import { useSearchParams } from "react-router";
import { useSheet } from "../job/JobSheet";
import { Catalogue } from "./Catalogue";
import { Finder } from "./Finder";
import { Ladder } from "./Ladder";

const VIEWS = [
  { code: "finder", name: "Finder" },
  { code: "ladder", name: "Size ladder" },
  { code: "lists", name: "Price lists" },
] as const;

/** The rack: what could go on this car, which sizes there are, and what can be ordered. */
export function Rack() {
  const { open, setViewKeys } = useSheet();
  const [asked, setAsked] = useSearchParams();
  const view = VIEWS.find((one) => one.code === asked.get("view"))?.code ?? "finder";
  useEffect(() => setViewKeys([]), [setViewKeys]);
  return (
    <main className="flex min-h-0 flex-1 flex-col">
      <h1 className="sr-only">Rack: {open.content.car_label}</h1>
      <nav className="border-base-300 flex border-b px-2" aria-label="On the rack">
        {VIEWS.map((one) => (
          <button
            key={one.code}
            type="button"
            aria-current={view === one.code ? "page" : undefined}
            className="plain-button aria-[current]:border-accent border-b-3 border-transparent aria-[current]:font-semibold"
            onClick={() => setAsked(one.code === "finder" ? {} : { view: one.code }, { replace: true })}
          >
            {one.name}
          </button>
        ))}
      </nav>
      {view === "finder" && <Finder />}
      {view === "ladder" && <Ladder />}
      {view === "lists" && <Catalogue />}
    </main>
  );
}
