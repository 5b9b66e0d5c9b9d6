import type { Axle, BenchAxle, Drawing } from "../api/client";
import { useRegistry } from "../shared/registry";
import { CornerDimensions } from "./CornerDimensions";
import { FitRuler } from "./FitRuler";
import { BodyObstacles, InboardObstacles } from "./Obstacles";
import { type Place, path } from "./scale";
import { type DragProps, useWheelDrag } from "./useWheelDrag";

type Props = DragProps & {
  data: BenchAxle;
  place: Place;
  hatch: string;
  isChosen: boolean;
};

const NAMES: Record<Axle, string> = { front: "Front", rear: "Rear" };

/**
 * One corner: hub, the fitted wheel as a phantom, the planned one solid, what was measured round it with its gaps,
 * edges not measured, dimensions. Camber leans the wheel with all that it carries; the body stands still.
 */
export function Corner({ axle, data, place, hatch, isChosen, onDrag, onHold }: Props) {
  const { fitted, planned, fitted_drawing, planned_drawing } = data;
  const drag = useWheelDrag({ axle, onDrag, onHold }, place.k);
  const limit = useRegistry()?.figures.offset_limit_mm;
  const shown = planned ?? fitted;
  const grip = planned_drawing && onDrag;
  const fit = data.fit ?? null;
  const drawings = [fitted_drawing, planned_drawing].filter((drawing) => drawing != null);
  const center = (planned_drawing ?? fitted_drawing)?.center_y_mm ?? 0;
  const lean = fit?.camber_deg ? `rotate(${fit.camber_deg} ${place.x(center)} ${place.y(0)})` : undefined;
  return (
    <g data-corner={axle}>
      <text className="name" x={place.left + 16} y={26}>
        {NAMES[axle].toUpperCase()}
        {isChosen && onDrag && <tspan fill="var(--brass)"> ◂</tspan>}
      </text>
      <text className="note" x={place.left + 16} y={44}>
        {shown
          ? [shown.wheel, shown.offset_mm != null && `ET ${shown.offset_mm}`].filter(Boolean).join(" ")
          : "nothing planned"}
      </text>
      <text className="note" x={place.left + 16} y={60}>
        {shown?.tire ?? ""}
      </text>
      <BodyObstacles fit={fit} drawings={drawings} place={place} />
      <InboardObstacles fit={fit} drawings={drawings} place={place} ofTheBody />
      <g transform={lean}>
        <line className="axis" x1={place.left + 12} x2={place.right - 12} y1={place.y(0)} y2={place.y(0)} />
        <Hub place={place} bore={33} />
        <InboardObstacles fit={fit} drawings={drawings} place={place} ofTheBody={false} />
        {fitted_drawing && <Phantom drawing={fitted_drawing} place={place} />}
        {planned_drawing && (
          // biome-ignore lint/a11y/useAriaPropsSupportedByRole: with a grip the wheel is a slider, without it has no role and no value
          <g
            className={grip ? "wheel" : ""}
            role={grip ? "slider" : undefined}
            tabIndex={grip ? 0 : undefined}
            aria-label={grip ? `${NAMES[axle]} wheel, offset` : undefined}
            aria-valuenow={grip ? (planned?.offset_mm ?? 0) : undefined}
            aria-valuetext={grip ? `ET ${planned?.offset_mm}` : undefined}
            aria-valuemin={grip && limit != null ? -limit : undefined}
            aria-valuemax={grip ? limit : undefined}
            {...(grip ? drag : {})}
          >
            {grip && <Reachable drawing={planned_drawing} place={place} />}
            <Solid drawing={planned_drawing} place={place} hatch={hatch} />
          </g>
        )}
        <CornerDimensions data={data} place={place} />
      </g>
      {fit && planned && onDrag && (
        <FitRuler axle={axle} fit={fit} planned={planned} place={place} onDrag={onDrag} onHold={onHold} />
      )}
    </g>
  );
}

/** The hand may take hold anywhere on the wheel, not only where it is cut. */
function Reachable({ drawing, place }: { drawing: Drawing; place: Place }) {
  const [inner = 0, outer = 0] = drawing.reach_y_mm;
  const top = place.y(drawing.tire?.crown_r_mm ?? drawing.flange_top_r_mm);
  return (
    <rect
      x={place.x(inner)}
      width={(outer - inner) * place.k}
      y={top}
      height={place.y(0) - top}
      fill="transparent"
    />
  );
}

function Solid({ drawing, place, hatch }: { drawing: Drawing; place: Place; hatch: string }) {
  const { tire } = drawing;
  return (
    <>
      {drawing.pad_y_mm > 0 && (
        <rect
          className="rim"
          fill="var(--brass)"
          x={place.x(0)}
          width={drawing.pad_y_mm * place.k}
          y={place.y(78)}
          height={45 * place.k}
        />
      )}
      {tire && (
        <>
          <path className="rubber" d={path(tire.outline, place)} fill={`url(#${hatch}-rubber)`} />
          {tire.grooves.map((groove) => (
            <path
              key={groove[0]?.[0]}
              d={path(groove, place)}
              fill="var(--blue)"
              stroke="var(--scribe)"
              strokeWidth="1"
            />
          ))}
        </>
      )}
      <path className="rim" d={path(drawing.rim, place)} fill={`url(#${hatch}-metal)`} />
    </>
  );
}

function Phantom({ drawing, place }: { drawing: Drawing; place: Place }) {
  return (
    <g data-phantom>
      <path className="phantom" d={path(drawing.rim, place)} />
      {drawing.tire && <path className="phantom" d={path(drawing.tire.outline, place)} />}
    </g>
  );
}

/** Hub flange, spigot and carrier: schematic, the face at y = 0 is what everything is measured from. */
function Hub({ place, bore }: { place: Place; bore: number }) {
  const outline = [
    [-70, 0],
    [-70, 34],
    [-18, 34],
    [-18, 72],
    [0, 72],
    [0, bore - 1],
    [9, bore - 2],
    [9, 0],
  ];
  const face = place.x(0);
  return (
    <g>
      <path className="hub" d={path(outline, place)} />
      <line x1={face} x2={face} y1={place.y(84)} y2={place.y(-8)} stroke="var(--scribe)" strokeWidth="1.6" />
    </g>
  );
}
