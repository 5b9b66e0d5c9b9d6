import type { OpenJob } from "./useJob";

/** Told in full when the job was changed elsewhere while it was edited here: nothing is written over unasked. */
export function StaleNotice({ open }: { open: OpenJob }) {
  const { save, settle, message, setMessage } = open;
  if (save.is === "stale") {
    const { current } = save;
    return (
      <div
        role="alert"
        className="border-error text-base-content flex flex-wrap items-center gap-3 border-b-2 px-3 py-2"
      >
        <p className="flex-1 text-body">
          <strong>This job was changed elsewhere</strong> and is at revision {current.revision} now. What you
          changed here is not saved yet.
        </p>
        <button type="button" className="btn btn-sm" onClick={() => settle("theirs", current)}>
          Take revision {current.revision}
        </button>
        <button type="button" className="btn btn-sm" onClick={() => settle("ours", current)}>
          Put mine on top
        </button>
      </div>
    );
  }
  if (!message) return null;
  return (
    <div className="bg-base-200 border-base-300 flex items-center gap-3 border-b px-3 py-0.5 text-small">
      <p className="flex-1" data-message>
        {message}
      </p>
      <button type="button" className="plain-button" onClick={() => setMessage("")}>
        Dismiss
      </button>
    </div>
  );
}
