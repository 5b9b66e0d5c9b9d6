import type { OpenJob } from "./useJob";

/** What is said of readings that the program does not have yet. */
export const keptHere = (waiting: number) =>
  `${waiting === 1 ? "One reading is" : `${waiting} readings are`} kept here until the program answers`;

const time = (at: string) =>
  new Date(at).toLocaleTimeString([], { hour: "2-digit", minute: "2-digit", hour12: false });

/** Where what was typed and read stands, and whether that is as it should be. */
function saved({ save, isConnected, readings }: OpenJob): [words: string, isWell: boolean] {
  switch (save.is) {
    case "saving":
      return ["saving…", true];
    case "away":
      return ["not saved: program away, kept here, trying again", false];
    case "held":
      return [`all saved but: ${save.errors.map((error) => error.detail).join("; ") || save.why}`, false];
    case "refused":
      return [`not saved: ${save.why}`, false];
    case "stale":
      return ["not saved: changed elsewhere", false];
    case "saved":
      if (readings.areKept) return [keptHere(readings.waiting), false];
      if (readings.waiting > 0) return ["saving…", true];
      if (!isConnected) return ["program away: what is shown may be old", false];
      return [`saved ${time(save.at)}`, true];
  }
}

/** Whether what is on the sheet is in the shop's file. */
export function SaveMark({ open }: { open: OpenJob }) {
  const [words, isWell] = saved(open);
  return (
    <output
      className={`px-2 text-small ${isWell ? "" : "text-error font-semibold"}`}
      data-save={open.save.is === "saved" && open.readings.waiting > 0 ? "saving" : open.save.is}
      title={open.message || undefined}
    >
      {words}
    </output>
  );
}
