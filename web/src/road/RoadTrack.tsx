import { useEffect } from "react";
import { useSearchParams } from "react-router";
import { Refused, type Schemas } from "../api/client";
import { useSheet } from "../job/JobSheet";
import { Fault } from "../shared/Caution";
import { Tabs } from "../shared/Tabs";
import { ClassSheet } from "./ClassSheet";
import { Road } from "./Road";
import { Track } from "./Track";
import { TreadLog } from "./TreadLog";
import { useRoadSheet } from "./useRoadSheet";

export type Sheet = Schemas["RoadSheet"];
export type SheetAnswer = Schemas["RoadSheetView"];
/** What each part of the sheet works on. */
export type PartProps = {
  sheet: Sheet;
  answer: SheetAnswer | null;
  onChange: (change: Partial<Sheet>) => void;
};

const PARTS = [
  { code: "road", name: "Road" },
  { code: "track", name: "Track" },
  { code: "class", name: "Class" },
  { code: "tread", name: "Tread log" },
] as const;

/** What the plan does once it rolls: dial and gears, corner loads and pressures, its class, and how its tires wear. */
export function RoadTrack() {
  const { open, setViewKeys } = useSheet();
  const { content, edit, id, job } = open;
  const [asked, setAsked] = useSearchParams();
  const part = PARTS.find(({ code }) => code === asked.get("part"))?.code ?? "road";
  useEffect(() => setViewKeys([]), [setViewKeys]);
  const sheet: Sheet = content.road ?? {};
  const query = useRoadSheet(id, job.revision, sheet);
  const props: PartProps = {
    sheet,
    answer: query.data ?? null,
    onChange: (change) => edit({ road: { ...sheet, ...change } }),
  };
  return (
    <main className="flex min-h-0 flex-1 flex-col">
      <h1 className="sr-only">Road &amp; track: {content.car_label}</h1>
      <Tabs
        label="Parts of the sheet"
        value={part}
        tabs={PARTS}
        onShow={(code) => setAsked({ part: code }, { replace: true })}
      />
      {query.error && (
        <Fault className="px-4 pt-2 text-body">
          {query.error instanceof Refused
            ? query.error.problem.errors.map((one) => one.detail).join("; ") || query.error.message
            : "The program does not answer; what you type is kept."}
        </Fault>
      )}
      <div className="min-h-0 flex-1 overflow-y-auto px-4 py-2">
        {part === "road" && <Road {...props} />}
        {part === "track" && <Track {...props} />}
        {part === "class" && <ClassSheet {...props} />}
        {part === "tread" && <TreadLog {...props} />}
      </div>
    </main>
  );
}
