import type { BenchAxle } from "../api/client";
import { formatInches, formatLength, formatOffset, inWords, useUnits } from "../shared/units";
import { Horizontal, Vertical } from "./Dimension";
import type { Place } from "./scale";

/** The dimension lines of one corner. Figures sit on what they measure. */
export function CornerDimensions({ data, place }: { data: BenchAxle; place: Place }) {
  const { units } = useUnits();
  const { planned, fitted, change } = data;
  // Without a plan the fitted wheel is what is dimensioned.
  const drawing = data.planned_drawing ?? data.fitted_drawing;
  const setup = data.planned_drawing ? planned : fitted;
  if (!drawing || !setup) return null;
  const length = (mm: number, signed = false) => inWords(formatLength(mm, units, signed));
  const { tire } = drawing;
  const [faceIn = 0, faceOut = 0] = drawing.flange_faces_y_mm;
  const [reachIn = 0, reachOut = 0] = drawing.reach_y_mm;
  const old = data.planned_drawing ? data.fitted_drawing : null;
  const [oldIn = 0, oldOut = 0] = old?.reach_y_mm ?? [];
  const crown = place.y(Math.max(tire?.crown_r_mm ?? 0, old?.tire?.crown_r_mm ?? 0, drawing.flange_top_r_mm));
  const outerAt = place.y(drawing.bead_seat_r_mm - 24);
  const rimAt = outerAt + 30;
  const axis = place.y(0);
  const flangeTop = place.y(drawing.flange_top_r_mm);
  // Where the arch was measured the gap itself is drawn.
  const archIsMeasured = data.fit?.clearances.some(
    (line) => line.feature === "arch" && line.nominal_mm != null,
  );
  const moved = old
    ? [
        { name: "outer-change", by: change?.outer_change_mm, from: oldOut, to: reachOut, aside: 14 },
        // Inside the wheel: on its other side stands the strut.
        { name: "inner-change", by: change?.inner_change_mm, from: oldIn, to: reachIn, aside: 44 },
      ]
    : [];
  return (
    <>
      <line
        className="axis"
        x1={place.x(drawing.center_y_mm)}
        x2={place.x(drawing.center_y_mm)}
        y1={place.y((tire?.crown_r_mm ?? drawing.flange_top_r_mm) + 6)}
        y2={axis + 34}
      />
      {setup.offset_mm != null && (
        <Horizontal
          name="offset"
          x1={place.x(drawing.center_y_mm)}
          x2={place.x(drawing.pad_y_mm)}
          y={axis + 24}
          from={[axis + 8, axis + 4]}
          label="right"
          moved
        >
          <tspan className="figure">ET {formatOffset(setup.offset_mm)}</tspan>
          <tspan className="note" x={place.x(drawing.pad_y_mm) + 8} dy="17">
            {setup.spacer_mm
              ? `${formatOffset(setup.spacer_mm)} mm spacer, effective ${formatOffset(setup.effective_offset_mm ?? 0)}`
              : `backspacing ${formatInches(setup.backspacing_mm ?? 0)} in`}
          </tspan>
        </Horizontal>
      )}
      <Horizontal
        name="rim-width"
        x1={place.x(faceIn)}
        x2={place.x(faceOut)}
        y={rimAt}
        from={[place.y(drawing.bead_seat_r_mm - 4), place.y(drawing.bead_seat_r_mm - 4)]}
        label="under"
      >
        <tspan className="figure">{setup.rim_width_in}</tspan> in
      </Horizontal>
      {tire && (
        <>
          {/* In the tire's own hollow, where nothing else stands. */}
          <Horizontal
            name="section-width"
            x1={place.x(tire.faces_y_mm[0] ?? 0)}
            x2={place.x(tire.faces_y_mm[1] ?? 0)}
            y={place.y(tire.widest_r_mm)}
            label="under"
          >
            section <tspan className="figure">{length(setup.section_width_mm ?? 0)}</tspan>
          </Horizontal>
          <Vertical
            name="overall-diameter"
            x={Math.min(place.right - 22, place.x(Math.max(reachOut, oldOut)) + 58)}
            y1={place.y(tire.crown_r_mm)}
            y2={axis}
            from={[place.x(tire.faces_y_mm[1] ?? 0) - 30, null]}
            under={outerAt + 24}
          >
            <tspan className="figure">Ø {length(setup.overall_diameter_mm ?? 0)}</tspan>
          </Vertical>
        </>
      )}
      {moved.map(
        ({ name, by, from, to, aside }) =>
          by != null && (
            <Horizontal
              key={name}
              name={name}
              x1={place.x(from)}
              x2={place.x(to)}
              y={outerAt}
              from={[flangeTop, flangeTop]}
              label="under"
              moved
            >
              <tspan className="figure" dx={aside}>
                {length(by, true)}
              </tspan>
            </Horizontal>
          ),
      )}
      {old?.tire && tire && change?.arch_gap_change_mm != null && !archIsMeasured && (
        <g className="dim" data-dimension="arch-gap-change">
          <text x={place.x(drawing.center_y_mm)} y={crown - 14} textAnchor="middle">
            arch gap <tspan className="figure">{length(change.arch_gap_change_mm, true)}</tspan>
          </text>
        </g>
      )}
    </>
  );
}
