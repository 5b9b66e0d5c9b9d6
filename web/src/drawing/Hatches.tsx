/** Hatching of cut faces: metal one way, rubber the other. */
export function Hatches({ id }: { id: string }) {
  return (
    <defs>
      <pattern
        id={`${id}-metal`}
        width="6"
        height="6"
        patternUnits="userSpaceOnUse"
        patternTransform="rotate(45)"
      >
        <rect width="6" height="6" fill="var(--brass-deep)" />
        <line x1="0" y1="0" x2="0" y2="6" stroke="var(--brass)" strokeWidth="1.3" />
      </pattern>
      <pattern
        id={`${id}-rubber`}
        width="7"
        height="7"
        patternUnits="userSpaceOnUse"
        patternTransform="rotate(-45)"
      >
        <rect width="7" height="7" fill="var(--blue)" />
        <line x1="0" y1="0" x2="0" y2="7" stroke="var(--rubber)" strokeWidth="3" />
      </pattern>
    </defs>
  );
}
