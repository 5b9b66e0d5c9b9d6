import { useState } from "react";
import { useIsRefused } from "../shared/kept";

/** Said once: everything works, and what is on its way goes with this page. */
export function KeepsNothing() {
  const isRefused = useIsRefused();
  const [isSeen, setSeen] = useState(false);
  if (!isRefused || isSeen) return null;
  return (
    <div
      role="status"
      className="bg-base-200 border-base-300 print:hidden flex items-center gap-3 border-b px-3 py-1 text-small"
    >
      <p className="flex-1">
        This browser keeps nothing for us (its storage is blocked or full). Everything works; what the program
        does not have yet is lost when this page is closed.
      </p>
      <button type="button" className="plain-button" onClick={() => setSeen(true)}>
        Dismiss
      </button>
    </div>
  );
}
