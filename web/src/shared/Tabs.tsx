import type { KeyboardEvent, ReactNode } from "react";

type Props<Code extends string> = {
  /** What the tabs are parts of, for a screen reader. */
  label: string;
  value: Code;
  tabs: readonly { code: Code; name: ReactNode; key?: string | null }[];
  onShow: (code: Code) => void;
  className?: string;
};

/** Parts of one screen of which one is shown. Arrow keys go from one to the next, as tabs do everywhere. */
export function Tabs<Code extends string>({ label, value, tabs, onShow, className = "" }: Props<Code>) {
  const step = (event: KeyboardEvent<HTMLDivElement>) => {
    const by = { ArrowLeft: -1, ArrowRight: 1 }[event.key];
    if (!by) return;
    event.preventDefault();
    event.stopPropagation();
    const at = tabs.findIndex((tab) => tab.code === value);
    const next = tabs[(at + by + tabs.length) % tabs.length];
    if (!next) return;
    onShow(next.code);
    event.currentTarget.querySelector<HTMLElement>(`[data-tab="${next.code}"]`)?.focus();
  };
  return (
    <div role="tablist" aria-label={label} className={`tabs tabs-border ${className}`} onKeyDown={step}>
      {tabs.map((tab) => (
        <button
          key={tab.code}
          type="button"
          role="tab"
          className={`tab ${tab.code === value ? "tab-active" : ""}`}
          aria-selected={tab.code === value}
          tabIndex={tab.code === value ? 0 : -1}
          data-tab={tab.code}
          onClick={() => onShow(tab.code)}
        >
          {tab.name}
          {tab.key && <span className="key ml-1">{tab.key}</span>}
        </button>
      ))}
    </div>
  );
}
