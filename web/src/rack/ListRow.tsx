import type { Schemas } from "../api/client";

type Props = {
  list: Schemas["ListView"];
  isBusy: boolean;
  /** Whether its file is about to be removed for good. */
  isAsked: boolean;
  onUndo: () => void;
  onAsk: (remove: boolean) => void;
  onRemove: () => void;
};

/** A list that was brought: undone, or its file removed. */
export function ListRow({ list, isBusy, isAsked, onUndo, onAsk, onRemove }: Props) {
  return (
    <li className="rule flex items-center gap-2 py-1 text-small" data-list={list.id}>
      <span className="min-w-0 flex-1 truncate">
        {list.supplier}, {list.kind} · {list.file_name}
      </span>
      <span>
        {list.state === "taken"
          ? `${list.changed_rows} rows`
          : list.state === "undone"
            ? "undone"
            : "not taken"}
      </span>
      {list.state === "taken" && (
        <button type="button" className="plain-button py-0" disabled={isBusy} onClick={onUndo}>
          Undo
        </button>
      )}
      {list.is_removed ? (
        <span className="opacity-85">file removed</span>
      ) : isAsked ? (
        <>
          <button type="button" className="plain-button text-error py-0" disabled={isBusy} onClick={onRemove}>
            Remove for good
          </button>
          <button type="button" className="plain-button py-0" onClick={() => onAsk(false)}>
            Keep
          </button>
        </>
      ) : (
        <button
          type="button"
          className="plain-button py-0"
          title="The file as it came takes room; what was taken of it stays, and can still be undone."
          onClick={() => onAsk(true)}
        >
          Remove file…
        </button>
      )}
    </li>
  );
}
