import type { AxleFit, SetupView } from "../api/client";
import { formatOffset } from "../shared/units";
import type { Place } from "./scale";
import { type DragProps, useWheelDrag } from "./useWheelDrag";

type Props = DragProps & {
  fit: AxleFit;
  planned: SetupView;
  place: Place;
};

/** Millimetres of offset either way of its middle. */
const SPAN = 26;

/** The fit window at the present rim width: offsets that clear, each edge named by what binds. In is left. */
export function FitRuler({ axle, fit, planned, place, onDrag, onHold }: Props) {
  const left = place.left + 20;
  const right = place.right - 20;
  const middle = (left + right) / 2;
  const k = (right - left) / 2 / SPAN;
  const drag = useWheelDrag({ axle, onDrag, onHold }, k);
  const window = fit.window.find((width) => width.rim_width_in === planned.rim_width_in);
  const here = planned.offset_mm;
  if (!window || here == null) return null;
  const fitted = fit.marks.find((mark) => mark.kind === "fitted");
  // Still under a dragged wheel: laid out round the fitted one, or in coarse steps when that is far.
  const isNear = fitted && Math.abs(fitted.offset_mm - here) < SPAN - 6;
  const center = isNear ? fitted.offset_mm : Math.round(here / 20) * 20;
  const x = (offset: number) => middle - (offset - center) * k;
  const inside = (at: number) => Math.min(right, Math.max(left, at));
  const y = place.bottom - 66;
  const { offset_min_mm: least, offset_max_mm: most, clears } = window;
  const from = most == null ? left : inside(x(most));
  const to = least == null ? right : inside(x(least));
  const ticks: number[] = [];
  for (let at = Math.ceil((center - SPAN) / 5) * 5; at <= center + SPAN; at += 5) ticks.push(at);
  return (
    <g className="ruler" data-ruler={axle} {...drag}>
      <rect x={left} width={right - left} y={y} height={16} className="ruler-ground" />
      {clears && to > from && (
        <rect
          x={from}
          width={to - from}
          y={y}
          height={16}
          // A side nobody measured has no verdict, and none's colour.
          className={least == null || most == null ? "ruler-open" : "ruler-clears"}
          data-clears
        />
      )}
      {most != null && x(most) > left && x(most) < right && (
        <path className="ruler-edge" d={`M${x(most)} ${y - 2}v20`} />
      )}
      {least != null && x(least) > left && x(least) < right && (
        <path className="ruler-edge" d={`M${x(least)} ${y - 2}v20`} />
      )}
      <text className="note" x={left} y={y - 13}>
        {most == null ? "inboard not measured" : `${window.max_bound_name} at ET ${most.toFixed(1)}`}
      </text>
      <text className="note" x={right} y={y - 13} textAnchor="end">
        {least != null
          ? `${window.min_bound_name} at ET ${least.toFixed(1)}`
          : window.past_the_lip === "clears"
            ? "outside the lip, as wanted"
            : window.past_the_lip
              ? "outside the lip: measure first"
              : "outboard not measured"}
      </text>
      {!clears && (
        <text className="note gap-touches" x={(left + right) / 2} y={y - 13} textAnchor="middle">
          {window.short_by_mm != null ? `no offset clears` : "blocked at any offset"}
        </text>
      )}
      {ticks.map((at) => (
        <g key={at}>
          <path className="ruler-tick" d={`M${x(at)} ${y + 16}v4`} />
          <text className="note" x={x(at)} y={y + 32} textAnchor="middle">
            {formatOffset(at)}
          </text>
        </g>
      ))}
      {fitted && x(fitted.offset_mm) > left && x(fitted.offset_mm) < right && (
        <path
          className="mark-fitted"
          d={`M${x(fitted.offset_mm)} ${y + 1}l6 7l-6 7l-6 -7z`}
          data-mark="fitted"
        >
          <title>fitted wheel</title>
        </path>
      )}
      <path className="mark-planned" d={`M${x(here)} ${y + 17}V${y}l-6 -9h12l-6 9`} data-mark="planned" />
    </g>
  );
}
