/** A small picture of where the gauge goes, by the side from which the part stands in the wheel's way. */
export function PlaceMark({ bears }: { bears: string | null }) {
  const gauge: Record<string, string> = {
    inboard: "M2 16H10",
    outboard: "M38 13H46",
    above: "M24 1V6",
    ahead_or_behind: "M38 20L46 26",
    barrel: "M20 24V31",
    spoke: "M22 35H31",
  };
  return (
    <svg width="48" height="44" viewBox="0 0 48 44" aria-hidden="true">
      <path
        d="M12 22V11q0 -4 4 -4h16q4 0 4 4v11l-4 -3h-16z"
        fill="none"
        stroke="currentColor"
        strokeWidth="1.4"
        opacity="0.75"
      />
      <path d="M13 22l4 -1h14l4 1l-3 10v6h-4v-6l2 -9H17z" fill="currentColor" opacity="0.3" />
      {bears && gauge[bears] ? (
        <path d={gauge[bears]} className="stroke-accent" strokeWidth="3" strokeLinecap="round" />
      ) : (
        <path d="M12 3H36M12 1v4M36 1v4" className="stroke-accent" strokeWidth="2.4" />
      )}
    </svg>
  );
}
