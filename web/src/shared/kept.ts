/**
 * What the browser keeps for this page. One that keeps nothing (blocked, full, private, cleared) holds nothing up: this
 * page then remembers it itself while it is open, and says so once.
 */
import { useSyncExternalStore } from "react";

/** What is typed into a field and not handed on, by whose it is. */
export const DRAFTS = "dimensione.draft.";
export const LINES = "dimensione.line.";

type Where = "always" | "window";

/** What the browser did not take, by its name. */
const here = new Map<string, string>();
let isRefused = false;
let version = 0;
const listeners = new Set<() => void>();

function store(where: Where): Storage | null {
  try {
    return where === "always" ? localStorage : sessionStorage;
  } catch {
    // Site data are blocked: even to ask for the store is refused.
    return null;
  }
}

function changed() {
  version += 1;
  for (const listener of listeners) listener();
}

function of(where: Where) {
  return {
    get(name: string): string | null {
      const remembered = here.get(name);
      if (remembered !== undefined) return remembered;
      try {
        return store(where)?.getItem(name) ?? null;
      } catch {
        return null;
      }
    },
    put(name: string, text: string) {
      try {
        const browser = store(where);
        if (!browser) throw new Error("no store");
        browser.setItem(name, text);
        here.delete(name);
      } catch {
        here.set(name, text);
        isRefused = true;
      }
      changed();
    },
    drop(name: string) {
      here.delete(name);
      try {
        store(where)?.removeItem(name);
      } catch {
        // What is not kept is gone already.
      }
      changed();
    },
    /** Names of what is kept that begin so. */
    names(beginning: string): string[] {
      const names = new Set([...here.keys()]);
      try {
        const browser = store(where);
        for (let at = 0; browser && at < browser.length; at += 1) names.add(browser.key(at) ?? "");
      } catch {
        // Only what this page remembers.
      }
      return [...names].filter((name) => name.startsWith(beginning)).sort();
    },
    /** Something that was kept as JSON; nothing where it is none any more. */
    read<T>(name: string): T | null {
      try {
        return JSON.parse(this.get(name) ?? "null") as T | null;
      } catch {
        return null;
      }
    },
    write(name: string, value: unknown) {
      this.put(name, JSON.stringify(value));
    },
  };
}

/** Kept until it is dropped, for all windows of this browser. */
export const kept = of("always");
/** Kept for this window alone. */
export const keptHere = of("window");

const subscribe = (listener: () => void) => {
  listeners.add(listener);
  return () => listeners.delete(listener);
};

/** Draws anew when something is kept or dropped by this page. */
export const useKept = () => useSyncExternalStore(subscribe, () => version);

/** Whether the browser refused to keep something. */
export const useIsRefused = () => useSyncExternalStore(subscribe, () => isRefused);
