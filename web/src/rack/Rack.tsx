import { useEffect } from "react";
import { useSearchParams } from "react-router";
import { useSheet } from "../job/JobSheet";
import { Tabs } from "../shared/Tabs";
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
      <Tabs
        label="On the rack"
        value={view}
        tabs={VIEWS}
        onShow={(code) => setAsked(code === "finder" ? {} : { view: code }, { replace: true })}
      />
      {view === "finder" && <Finder />}
      {view === "ladder" && <Ladder />}
      {view === "lists" && <Catalogue />}
    </main>
  );
}
