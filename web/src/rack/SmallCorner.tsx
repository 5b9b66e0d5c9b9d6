import type { Drawing } from "../api/client";

type Props = { drawing: Drawing | null; fitted: Drawing | null; name: string };

const WIDTH = 96;
const HEIGHT = 84;
/** Millimetres of a corner that the little sheet shows: its upper half about the hub face. */
const SHOWN = { from_y: -190, to_y: 150, from_r: 170, to_r: 400 };
const K = Math.min(WIDTH / (SHOWN.to_y - SHOWN.from_y), HEIGHT / (SHOWN.to_r - SHOWN.from_r));

const place = ([y = 0, r = 0]: number[]) =>
  `${((y - SHOWN.from_y) * K).toFixed(1)} ${((SHOWN.to_r - r) * K).toFixed(1)}`;
const outline = (points: number[][]) => `M${points.map(place).join("L")}Z`;

/** A corner cut through, small: the proposed wheel solid, the fitted one as a phantom, the hub face as a line. */
export function SmallCorner({ drawing, fitted, name }: Props) {
  const face = (0 - SHOWN.from_y) * K;
  return (
    <svg
      className="drawing block shrink-0"
      width={WIDTH}
      height={HEIGHT}
      viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
      role="img"
      aria-label={`${name}: proposed wheel over the fitted one, cut through`}
    >
      <line x1={face} x2={face} y1={0} y2={HEIGHT} stroke="var(--scribe)" strokeWidth="0.8" />
      {fitted && <path className="phantom" d={outline(fitted.rim)} />}
      {fitted?.tire && <path className="phantom" d={outline(fitted.tire.outline)} />}
      {drawing?.tire && (
        <path
          d={outline(drawing.tire.outline)}
          fill="var(--scribe)"
          fillOpacity="0.22"
          stroke="var(--scribe)"
        />
      )}
      {drawing && (
        <path d={outline(drawing.rim)} fill="var(--brass)" fillOpacity="0.5" stroke="var(--scribe)" />
      )}
      <text x="4" y={HEIGHT - 5} className="note">
        {name}
      </text>
    </svg>
  );
}
