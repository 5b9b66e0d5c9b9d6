import { type ReactNode, useEffect, useRef } from "react";

/** A modal of the browser's own: focus stays inside, Escape closes. */
export function Dialog({
  title,
  onClose,
  children,
}: {
  title: string;
  onClose: () => void;
  children: ReactNode;
}) {
  const dialog = useRef<HTMLDialogElement>(null);
  useEffect(() => {
    const element = dialog.current;
    element?.showModal();
    return () => element?.close();
  }, []);
  return (
    <dialog ref={dialog} aria-label={title} onClose={onClose} className="modal">
      <div className="modal-box">
        <div className="border-base-300 flex items-center justify-between border-b px-4 py-2">
          <h2 className="text-lead font-semibold">{title}</h2>
          <button type="button" className="plain-button" onClick={onClose}>
            Close <span className="key">Esc</span>
          </button>
        </div>
        <div className="p-4">{children}</div>
      </div>
    </dialog>
  );
}

export function KeysDialog({
  groups,
  onClose,
}: {
  groups: { title: string; keys: { shown: string; does: string }[] }[];
  onClose: () => void;
}) {
  return (
    <Dialog title="Keys" onClose={onClose}>
      <p className="mb-3 text-small">They work when no field has the focus.</p>
      <div className="grid grid-cols-2 gap-x-8 gap-y-4">
        {groups.map((group) => (
          <section key={group.title}>
            <h3 className="label-small mb-1">{group.title}</h3>
            <dl className="grid grid-cols-[auto_1fr] gap-x-3 gap-y-1 text-small">
              {group.keys.map((key) => (
                <div key={key.shown + key.does} className="contents">
                  <dt>
                    <span className="key">{key.shown}</span>
                  </dt>
                  <dd>{key.does}</dd>
                </div>
              ))}
            </dl>
          </section>
        ))}
      </div>
    </Dialog>
  );
}
