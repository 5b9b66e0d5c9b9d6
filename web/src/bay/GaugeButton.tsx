import type { Schemas } from "../api/client";

/** What the gauge shows, to be taken. */
export function GaugeButton({ gauge, onTake }: { gauge: Schemas["GaugeView"]; onTake: () => void }) {
  return (
    <button
      type="button"
      className="btn h-[60px] px-3 text-left"
      data-gauge={gauge.state}
      disabled={gauge.state !== "live"}
      onClick={onTake}
    >
      <span className="block text-note leading-4 font-normal">
        gauge{" "}
        {gauge.state === "live"
          ? gauge.is_still
            ? "stands still"
            : "moves"
          : gauge.state === "lost"
            ? "lost contact"
            : "does not answer"}
      </span>
      <span className="block text-head leading-6 font-semibold">
        {gauge.value_mm == null ? "—" : `${gauge.value_mm.toFixed(2)} mm`} <span className="key">g</span>
      </span>
    </button>
  );
}
