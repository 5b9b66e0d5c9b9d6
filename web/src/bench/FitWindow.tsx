import { memo, type PointerEvent, useId } from "react";
import type { Axle, AxleFit, Schemas, Width } from "../api/client";
import { formatOffset } from "../shared/units";

type Props = {
  axle: Axle;
  fit: AxleFit;
  /** The same widths as they clear on the road as well; null while that is not known. */
  moving: Width[] | null;
  width: number;
  height: number;
  /** Fits that other cars of the model proved, with how they did. */
  proven: NonNullable<Schemas["ProvenView"]["marks"]["front"]>[];
  /** Where the job's class leaves a wheel. */
  classBox: Schemas["ClassBoxView"] | null;
  /** A place on the window was pointed at: a rim width and a whole offset. */
  onPick: (axle: Axle, rim_width_in: number, offset_mm: number) => void;
};

const ROOM = { left: 40, right: 10, top: 18, bottom: 30 };
/** Offsets shown either way of the marks, and how far an edge may stretch the picture. */
const MARGIN = 8;
const MOST = 45;

type Corner = { x: number; y: number };
/** A stretch of an edge with one part that binds. */
type Stretch = { name: string; points: Corner[] };

/** The fit window: width across, offset up; where this corner clears, each edge named by what binds. */
export const FitWindow = memo(function FitWindow({
  axle,
  fit,
  moving,
  width,
  height,
  proven,
  classBox,
  onPick,
}: Props) {
  const id = useId().replaceAll(":", "");
  const { window: widths, marks } = fit;
  const first = widths[0];
  const last = widths.at(-1);
  if (!first || !last || first === last) return null;
  const range = offsets(fit);
  const x = (rim: number) =>
    ROOM.left +
    14 +
    ((rim - first.rim_width_in) / (last.rim_width_in - first.rim_width_in)) *
      (width - ROOM.left - ROOM.right - 28);
  const y = (offset: number) =>
    ROOM.top + ((range.most - offset) / (range.most - range.least)) * (height - ROOM.top - ROOM.bottom);
  const top = ROOM.top;
  const bottom = height - ROOM.bottom;
  const inside = (at: number) => Math.min(bottom, Math.max(top, at));
  const upper = (all: Width[]) =>
    all.map((one) => ({
      x: x(one.rim_width_in),
      y: one.offset_max_mm == null ? top : y(one.offset_max_mm),
    }));
  const lower = (all: Width[]) =>
    all.map((one) => ({
      x: x(one.rim_width_in),
      y: one.offset_min_mm == null ? bottom : y(one.offset_min_mm),
    }));
  const isOpen = widths.every((one) => one.offset_max_mm == null && one.offset_min_mm == null);
  const pick = (event: PointerEvent<SVGSVGElement>) => {
    const box = event.currentTarget.getBoundingClientRect();
    const at = { x: event.clientX - box.left, y: event.clientY - box.top };
    const near = widths.reduce((best, one) =>
      Math.abs(x(one.rim_width_in) - at.x) < Math.abs(x(best.rim_width_in) - at.x) ? one : best,
    );
    const share = (at.y - top) / (bottom - top);
    if (share < 0 || share > 1) return;
    onPick(axle, near.rim_width_in, Math.round(range.most - share * (range.most - range.least)));
  };
  const ticks: number[] = [];
  for (let at = Math.ceil(range.least / 10) * 10; at <= range.most; at += 10) ticks.push(at);
  return (
    <svg
      className="fit-window"
      width={width}
      height={height}
      viewBox={`0 0 ${width} ${height}`}
      role="img"
      aria-label={`Fit window, ${axle} axle`}
      data-window={axle}
      onPointerUp={pick}
    >
      <clipPath id={`${id}-plot`}>
        <rect x={ROOM.left} y={top} width={width - ROOM.left - ROOM.right} height={bottom - top} />
      </clipPath>
      <rect
        className="plot"
        x={ROOM.left}
        y={top}
        width={width - ROOM.left - ROOM.right}
        height={bottom - top}
      />
      {ticks.map((at) => (
        <g key={at}>
          <path className="grid" d={`M${ROOM.left} ${y(at)}H${width - ROOM.right}`} />
          <text className="note" x={ROOM.left - 5} y={y(at) + 4} textAnchor="end">
            {at === ticks.at(-1) ? `ET ${formatOffset(at)}` : at < 0 ? `−${-at}` : at}
          </text>
        </g>
      ))}
      <g clipPath={`url(#${id}-plot)`}>
        {regions(widths, upper(widths), lower(widths)).map(({ one, d }) => (
          <path key={one.rim_width_in} className={regionClass(one)} d={d} />
        ))}
        {moving &&
          regions(moving, upper(moving), lower(moving))
            .filter(({ one }) => regionClass(one) === "clears")
            .map(({ one, d }) => (
              <path
                key={one.rim_width_in}
                className="clears-moving"
                d={d}
                data-clears-moving={one.rim_width_in}
              />
            ))}
        {moving && (
          <path
            className="edge-moving"
            d={stroke(stretches(moving, x, y, "max")) + stroke(stretches(moving, x, y, "min"))}
          />
        )}
        <Wanted widths={widths} x={x} y={y} />
        {classBox?.has_place && (
          <ClassBox box={classBox} x={x} y={y} across={[ROOM.left, width - ROOM.right]} up={[top, bottom]} />
        )}
        <path className="edge" d={stroke(stretches(widths, x, y, "max"))} />
        <path className="edge" d={stroke(stretches(widths, x, y, "min"))} />
      </g>
      {isOpen && (
        <text className="note" x={width - ROOM.right - 4} y={bottom - 6} textAnchor="end">
          nothing measured: open on every side
        </text>
      )}
      {(["max", "min"] as const).map((which) => (
        <EdgeNames
          key={which}
          stretches={stretches(widths, x, y, which)}
          above={which === "max"}
          top={top}
          bottom={bottom}
          right={width - ROOM.right}
          away={marks.map((mark) => x(mark.rim_width_in))}
        />
      ))}
      {widths.map((one) => (
        <text
          key={one.rim_width_in}
          className={`width ${one.clears && one.tire_permitted ? "" : "off"}`}
          x={x(one.rim_width_in)}
          y={bottom + 14}
          textAnchor="middle"
          data-width={one.rim_width_in}
          data-clears={one.clears}
        >
          {one.rim_width_in}
        </text>
      ))}
      <text className="note" x={width - ROOM.right} y={bottom + 27} textAnchor="end">
        rim width, in
      </text>
      <text className="note" x={ROOM.left} y={bottom + 27}>
        up: further in
      </text>
      {proven.map((one, index) => {
        const at = { x: x(one.rim_width_in), y: y(one.offset_mm) };
        if (at.y !== inside(at.y) || at.x < ROOM.left || at.x > width - ROOM.right) return null;
        return (
          // biome-ignore lint/suspicious/noArrayIndexKey: the library's order
          <g key={index} data-proven-mark={one.rub ?? ""} transform={`translate(${at.x} ${at.y})`}>
            <title>
              proven: ET {formatOffset(one.offset_mm)}, {one.words}
            </title>
            {one.rub === "none" ? (
              <path className="proven proven-none" d="M-4 0.5L-1 3.5L4.5 -3.5" />
            ) : (
              <path className="proven proven-rubbed" d="M-3.5 -3.5L3.5 3.5M3.5 -3.5L-3.5 3.5" />
            )}
          </g>
        );
      })}
      {marks.map((mark) => {
        const at = { x: x(mark.rim_width_in), y: y(mark.offset_mm) };
        if (at.y !== inside(at.y)) return null;
        return (
          <g
            key={`${mark.kind}-${mark.letter}`}
            data-mark={mark.kind}
            transform={`translate(${at.x} ${at.y})`}
          >
            <title>
              {mark.letter ?? mark.kind}: ET {formatOffset(mark.offset_mm)}
            </title>
            {mark.kind === "fitted" && <path className="mark-fitted" d="M0 -7L6 0L0 7L-6 0Z" />}
            {mark.kind === "planned" && (
              <>
                <path className="mark-cross" d="M-13 0H13M0 -13V13" />
                <circle className="mark-planned" r={5.5} />
              </>
            )}
            {mark.kind === "kept" && (
              <>
                <rect className="mark-kept" x={-8} y={-8} width={16} height={16} />
                <text className="letter" y={5} textAnchor="middle">
                  {mark.letter}
                </text>
              </>
            )}
          </g>
        );
      })}
    </svg>
  );
});

/** Offsets to be shown: marks and the edges near them. */
function offsets({ window: widths, marks }: AxleFit): { least: number; most: number } {
  const marked = marks.map((mark) => mark.offset_mm);
  const middle = marks.find((mark) => mark.kind === "planned")?.offset_mm ?? marked[0] ?? 35;
  const near = widths
    .filter((one) => one.clears)
    .flatMap((one) => [one.offset_min_mm, one.offset_max_mm])
    .filter((at) => at != null)
    .filter((at) => Math.abs(at - middle) < MOST);
  const all = [...marked, ...near, middle - 12, middle + 12];
  const coarse = (at: number) => Math.round(at / 5) * 5;
  return { least: coarse(Math.min(...all) - MARGIN), most: coarse(Math.max(...all) + MARGIN) };
}

/** A side nobody measured is open: it has no verdict, and none's colour. */
function regionClass(one: Width): string {
  if (one.blocked_by.length > 0) return "blocked";
  if (one.offset_min_mm == null || one.offset_max_mm == null) return "open-side";
  return one.tire_permitted ? "clears" : "clears-unfit";
}

/** What clears, as one shape for each width's column, half way to its neighbours. */
function regions(widths: Width[], upper: Corner[], lower: Corner[]): { one: Width; d: string }[] {
  const between = (a: Corner | undefined, b: Corner | undefined): Corner =>
    a && b ? { x: (a.x + b.x) / 2, y: (a.y + b.y) / 2 } : (a ?? b ?? { x: 0, y: 0 });
  return widths.map((one, at) => {
    const [u, l] = [upper[at], lower[at]];
    if (!u || !l) return { one, d: "" };
    const before = { u: between(upper[at - 1], u), l: between(lower[at - 1], l) };
    const after = { u: between(upper[at + 1], u), l: between(lower[at + 1], l) };
    return { one, d: open(before, { u, l }) + open({ u, l }, after) };
  });
}

type Gap = { u: Corner; l: Corner };

/** The part of a strip in which the upper edge stands over the lower one. */
function open(from: Gap, to: Gap): string {
  const [a, b] = [from.l.y - from.u.y, to.l.y - to.u.y];
  if (a <= 0 && b <= 0) return "";
  const at = (gap: Gap, which: "u" | "l") => `${gap[which].x.toFixed(1)} ${gap[which].y.toFixed(1)}`;
  if (a >= 0 && b >= 0) return `M${at(from, "u")}L${at(to, "u")}L${at(to, "l")}L${at(from, "l")}Z`;
  const share = a / (a - b);
  const tip = {
    x: from.u.x + share * (to.u.x - from.u.x),
    y: from.u.y + share * (to.u.y - from.u.y),
  };
  const side = a > 0 ? from : to;
  return `M${at(side, "u")}L${tip.x.toFixed(1)} ${tip.y.toFixed(1)}L${at(side, "l")}Z`;
}

/** An edge as stretches, each bound by one part; where it is open there is none. */
function stretches(
  widths: Width[],
  x: (rim: number) => number,
  y: (offset: number) => number,
  which: "max" | "min",
): Stretch[] {
  const found: Stretch[] = [];
  for (const one of widths) {
    const offset = which === "max" ? one.offset_max_mm : one.offset_min_mm;
    const name = which === "max" ? one.max_bound_name : one.min_bound_name;
    if (offset == null || name == null) continue;
    const point = { x: x(one.rim_width_in), y: y(offset) };
    const open = found.at(-1);
    if (open?.name === name) open.points.push(point);
    // The next part takes over where the last one's stretch ends: the line runs through.
    else found.push({ name, points: [...(open ? [open.points.at(-1) ?? point] : []), point] });
  }
  return found;
}

const stroke = (all: Stretch[]) =>
  all
    .map(({ points }) => `M${points.map((point) => `${point.x.toFixed(1)} ${point.y.toFixed(1)}`).join("L")}`)
    .join("");

type NamesProps = {
  stretches: Stretch[];
  above: boolean;
  top: number;
  bottom: number;
  right: number;
  away: number[];
};

/** What binds, written along its edge where that can be seen and no mark stands. */
function EdgeNames({ stretches, above, top, bottom, right, away }: NamesProps) {
  const room = (point: Corner) => Math.min(...away.map((mark) => Math.abs(mark - point.x)));
  return (
    <>
      {stretches.map(({ name, points }) => {
        const seen = points.filter((point) => point.y > top + 2 && point.y < bottom - 2);
        const [at] = seen.toSorted((a, b) => room(b) - room(a));
        if (!at) return null;
        return (
          <text
            key={name}
            className="edge-name"
            x={at.x}
            y={above ? Math.max(top + 12, at.y - 7) : Math.min(bottom - 5, at.y + 16)}
            textAnchor={at.x < 90 ? "start" : at.x > right - 40 ? "end" : "middle"}
          >
            {name}
          </text>
        );
      })}
    </>
  );
}

type ClassBoxProps = {
  box: Schemas["ClassBoxView"];
  x: (rim: number) => number;
  y: (offset: number) => number;
  across: [number, number];
  up: [number, number];
};

/** What the class leaves; where it limits nothing the box runs out of the picture. */
function ClassBox({ box, x, y, across, up }: ClassBoxProps) {
  const [left, right] = box.width_in
    ? [x(box.width_in[0] ?? 0) - 3, x(box.width_in[1] ?? 0) + 3]
    : [across[0] - 2, across[1] + 2];
  const [low, high] = box.offset_mm
    ? [y(box.offset_mm[0] ?? 0), y(box.offset_mm[1] ?? 0)]
    : [up[1] + 2, up[0] - 2];
  return (
    <rect
      className="class-box"
      data-class-box
      x={left}
      y={high}
      width={right - left}
      height={Math.max(0, low - high)}
    />
  );
}

type WantedProps = { widths: Width[]; x: (rim: number) => number; y: (offset: number) => number };

/** The offsets of the wanted style, as a brass band. */
function Wanted({ widths, x, y }: WantedProps) {
  const there = widths.filter((one) => one.wanted_min_mm != null || one.wanted_max_mm != null);
  if (there.length === 0) return null;
  const edge = (of: "wanted_min_mm" | "wanted_max_mm") => {
    const points = there
      .filter((one) => one[of] != null)
      .map((one) => `${x(one.rim_width_in)} ${y(one[of] ?? 0)}`);
    return points.length > 1 ? `M${points.join("L")}` : "";
  };
  return <path className="wanted" d={edge("wanted_min_mm") + edge("wanted_max_mm")} data-wanted />;
}
