import type { Schemas } from "../api/client";
import { NumberBox } from "../shared/NumberBox";
import { useRegistry } from "../shared/registry";

type Template = Schemas["TemplateView"];
type Props = {
  one: Template;
  /** Whether its points are being edited. */
  isEdited: boolean;
  onEdit: (id: string | null) => void;
  onPut: (changed: Template) => void;
  onSave: (format: string) => void;
  onRemove: () => void;
};

/** A profile: its name, part and doubt, its points, and its files. */
export function TemplateRow({ one, isEdited, onEdit, onPut, onSave, onRemove }: Props) {
  const registry = useRegistry();
  return (
    <li className="rule py-1" data-template={one.id}>
      <div className="flex flex-wrap items-center gap-2">
        <input
          className="bg-base-200 h-[26px] min-w-0 flex-1 px-1"
          aria-label="Name of the profile"
          value={one.name}
          maxLength={80}
          onChange={(event) => onPut({ ...one, name: event.target.value })}
        />
        <select
          className="bg-base-200 h-[26px]"
          aria-label="Which part"
          value={one.part}
          onChange={(event) => onPut({ ...one, part: event.target.value })}
        >
          {registry?.brake_parts.map((part) => (
            <option key={part.code} value={part.code}>
              {part.name}
            </option>
          ))}
        </select>
        <select
          className="bg-base-200 h-[26px]"
          aria-label="On the car or planned"
          value={one.role}
          onChange={(event) => onPut({ ...one, role: event.target.value })}
        >
          <option value="fitted">on the car</option>
          <option value="planned">planned</option>
        </select>
      </div>
      <div className="flex flex-wrap items-center gap-1">
        ±
        <NumberBox
          label="How far the profile may be off, mm"
          value={one.plus_minus_mm}
          onPut={(mm) => onPut({ ...one, plus_minus_mm: mm ?? 0 })}
        />
        mm
        <button
          type="button"
          className="plain-button"
          aria-pressed={isEdited}
          onClick={() => onEdit(isEdited ? null : one.id)}
        >
          {isEdited ? "Done" : "Points"}
        </button>
        <span className="ml-auto">save as</span>
        {["pdf", "dxf", "svg", "csv"].map((format) => (
          <button
            key={format}
            type="button"
            className="plain-button px-1"
            title={format === "pdf" ? "a card template at true scale" : undefined}
            onClick={() => onSave(format)}
          >
            {format.toUpperCase()}
          </button>
        ))}
        <button
          type="button"
          className="plain-button"
          aria-label={`Take ${one.name} away`}
          onClick={onRemove}
        >
          ✕
        </button>
      </div>
      {isEdited && <Points template={one} onPut={onPut} />}
    </li>
  );
}

/** A profile's points as figures, and its whole section mirrored about the axis. */
function Points({ template, onPut }: { template: Template; onPut: (template: Template) => void }) {
  const points = template.points;
  const put = (at: number, which: 0 | 1, value: number | null) => {
    if (value == null) return;
    onPut({
      ...template,
      points: points.map((point, index) =>
        index === at ? [which === 0 ? value : (point[0] ?? 0), which === 1 ? value : (point[1] ?? 0)] : point,
      ),
    });
  };
  const insert = (at: number) => {
    const [a = [0, 100], b = a] = [points[at], points[at + 1]];
    const middle = [((a[0] ?? 0) + (b[0] ?? 0)) / 2, ((a[1] ?? 0) + (b[1] ?? 0)) / 2 + (b === a ? 5 : 0)];
    onPut({ ...template, points: [...points.slice(0, at + 1), middle, ...points.slice(at + 1)] });
  };
  const d = (sign: 1 | -1) =>
    points.map(([y = 0, r = 0], at) => `${at === 0 ? "M" : "L"}${y} ${-sign * r}`).join("");
  return (
    <div className="flex gap-2">
      <table className="text-note">
        <thead>
          <tr>
            <th className="font-normal">y, mm</th>
            <th className="font-normal">r, mm</th>
            <td />
          </tr>
        </thead>
        <tbody>
          {points.slice(0, 60).map(([y, r], at) => (
            // biome-ignore lint/suspicious/noArrayIndexKey: a point is known by its place in the line
            <tr key={at}>
              <td>
                <NumberBox
                  label={`y of point ${at + 1}, mm`}
                  value={y}
                  onPut={(value) => put(at, 0, value)}
                />
              </td>
              <td>
                <NumberBox
                  label={`r of point ${at + 1}, mm`}
                  value={r}
                  onPut={(value) => put(at, 1, value)}
                />
              </td>
              <td className="whitespace-nowrap">
                <button
                  type="button"
                  className="plain-button px-1"
                  aria-label={`A point after ${at + 1}`}
                  onClick={() => insert(at)}
                >
                  +
                </button>
                <button
                  type="button"
                  className="plain-button px-1"
                  aria-label={`Without point ${at + 1}`}
                  disabled={points.length < 3}
                  onClick={() => onPut({ ...template, points: points.filter((_, index) => index !== at) })}
                >
                  ✕
                </button>
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      <svg
        className="drawing h-[170px] flex-1"
        viewBox="-130 -260 260 520"
        role="img"
        aria-label="mirrored about the axis"
      >
        <line className="axis" x1={-130} x2={130} y1={0} y2={0} strokeWidth={2} />
        <path className="obstacle" d={d(1)} strokeWidth={4} />
        <path className="phantom" d={d(-1)} strokeWidth={3} />
      </svg>
    </div>
  );
}
