import type { Standing } from "../api/client";

const COLOUR: Record<Standing, string> = {
  good: "text-success",
  unknown: "text-secondary",
  measure: "text-info",
  mind: "text-warning",
  stop: "text-error",
};

/** Each standing has a shape of its own: colour only repeats what shape and word say. */
export function Mark({ standing, size = 16 }: { standing: Standing; size?: number }) {
  return (
    <svg
      className={`${COLOUR[standing]} shrink-0`}
      width={size}
      height={size}
      viewBox="0 0 16 16"
      aria-hidden="true"
    >
      <g fill="none" stroke="currentColor" strokeWidth="2.1">
        {standing === "good" && <path d="M2.5 8.5 6.5 12.5 13.5 4" />}
        {standing === "unknown" && <path d="M3 8h10" strokeDasharray="2.4 1.6" />}
        {standing === "measure" && <path d="M2 4v8M14 4v8M2 8h12M5 5.4 2.2 8 5 10.6M11 5.4 13.8 8 11 10.6" />}
        {standing === "mind" && <path d="M8 2 14.5 13.5H1.5ZM8 6.4v3.6M8 11.4v1.2" strokeWidth="1.7" />}
        {standing === "stop" && (
          <path
            d="M5 1.5h6l3.5 3.5v6L11 14.5H5L1.5 11V5ZM5.4 5.4l5.2 5.2M10.6 5.4l-5.2 5.2"
            strokeWidth="1.7"
          />
        )}
      </g>
    </svg>
  );
}

export function StandingWord({ standing, word }: { standing: Standing; word: string }) {
  return <span className={`${COLOUR[standing]} font-medium`}>{word}</span>;
}
