/** Light and dark shop: by the system's choice until the advisor chooses. */
import { useState } from "react";
import { kept } from "./kept";

const KEPT_AS = "dimensione.theme";
type Theme = "layout-light" | "layout-dark";

function apply(theme: Theme) {
  document.documentElement.dataset.theme = theme;
}

export function startTheme() {
  const chosen = kept.get(KEPT_AS);
  if (chosen === "layout-light" || chosen === "layout-dark") apply(chosen);
}

function isDarkNow(): boolean {
  const chosen = document.documentElement.dataset.theme;
  return chosen ? chosen === "layout-dark" : window.matchMedia("(prefers-color-scheme: dark)").matches;
}

export function useTheme() {
  const [isDark, setDark] = useState(isDarkNow);
  const toggle = () => {
    const theme: Theme = isDark ? "layout-light" : "layout-dark";
    kept.put(KEPT_AS, theme);
    apply(theme);
    setDark(!isDark);
  };
  return { isDark, toggle };
}
