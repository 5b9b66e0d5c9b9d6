import { useState } from "react";
import { type Axle, answer, api, type Registry, type Schemas } from "../api/client";
import { Fault } from "../shared/Caution";
import { FileButton } from "../shared/FileButton";
import { NumberBox } from "../shared/NumberBox";
import { useRegistry } from "../shared/registry";
import { useDeed } from "../shared/useDeed";
import { ByHand, Origin } from "./ByHand";
import { DrawingRead, readDrawing } from "./DrawingRead";

type Template = Schemas["TemplateView"];
type Sheet = Schemas["SheetView"];

type Props = {
  axle: Axle;
  /** The job's uid. */
  whose: string;
  templates: Template[];
  edited: string | null;
  onEdit: (id: string | null) => void;
  onChange: (templates: Template[]) => void;
};

const fresh = (
  axle: Axle,
  points: number[][],
  source: string,
  name: string,
  figures: Registry["figures"] | undefined,
): Template => ({
  id: crypto.randomUUID(),
  axle,
  part: "caliper",
  role: "fitted",
  name,
  source,
  plus_minus_mm:
    (source === "template" ? figures?.template_plus_minus_mm : figures?.readings_plus_minus_mm) ?? 0,
  points,
});

/** The profiles of what stands inside the barrel: from a drawing file, or point by point; and out again as a card. */
export function Templates({ axle, whose, templates, edited, onEdit, onChange }: Props) {
  const registry = useRegistry();
  const [file, setFile] = useState<File | null>(null);
  const [sheet, setSheet] = useState<Sheet | null>(null);
  const [unit, setUnit] = useState("");
  const { run, says: trouble } = useDeed();
  const [isByHand, setByHand] = useState(false);
  const here = templates.filter((one) => one.axle === axle);
  const put = (changed: Template) =>
    onChange(templates.map((one) => (one.id === changed.id ? changed : one)));
  const read = (from: File, as: string) => {
    setSheet(null);
    setFile(from);
    run(async () => {
      setSheet(await readDrawing(from, as));
    });
  };
  const take = (layer: Sheet["layers"][number]) => {
    if (!layer.points || !file) return;
    const name = file.name.replace(/\.[^.]+$/, "");
    const template = fresh(
      axle,
      layer.points,
      "template",
      `${name} · ${layer.name}`.slice(0, 80),
      registry?.figures,
    );
    onChange([...templates, template]);
    setSheet(null);
    setFile(null);
  };
  const save = (template: Template, format: string) =>
    run(async () => {
      const file = await answer(
        api.POST("/api/v1/profiles/write", {
          body: {
            format,
            name: template.name || template.part,
            note: `${axle} axle, ${template.role}`,
            points: template.points,
          },
          parseAs: "blob",
        }),
      );
      const link = document.createElement("a");
      link.href = URL.createObjectURL(file as unknown as Blob);
      link.download = `${(template.name || "profile").replace(/[^\w-]+/g, "-")}.${format}`;
      link.click();
      URL.revokeObjectURL(link.href);
    });
  return (
    <section aria-label="Profiles" className="rule mt-2 pt-1 text-small">
      <h2 className="label-small font-semibold">Inside the barrel, {axle}</h2>
      <ul>
        {here.map((one) => (
          <li key={one.id} className="rule py-1" data-template={one.id}>
            <div className="flex flex-wrap items-center gap-2">
              <input
                className="bg-base-200 h-[26px] min-w-0 flex-1 px-1"
                aria-label="Name of the profile"
                value={one.name}
                maxLength={80}
                onChange={(event) => put({ ...one, name: event.target.value })}
              />
              <select
                className="bg-base-200 h-[26px]"
                aria-label="Which part"
                value={one.part}
                onChange={(event) => put({ ...one, part: event.target.value })}
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
                onChange={(event) => put({ ...one, role: event.target.value })}
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
                onPut={(mm) => put({ ...one, plus_minus_mm: mm ?? 0 })}
              />
              mm
              <button
                type="button"
                className="plain-button"
                aria-pressed={edited === one.id}
                onClick={() => onEdit(edited === one.id ? null : one.id)}
              >
                {edited === one.id ? "Done" : "Points"}
              </button>
              <span className="ml-auto">save as</span>
              {["pdf", "dxf", "svg", "csv"].map((format) => (
                <button
                  key={format}
                  type="button"
                  className="plain-button px-1"
                  title={format === "pdf" ? "a card template at true scale" : undefined}
                  onClick={() => void save(one, format)}
                >
                  {format.toUpperCase()}
                </button>
              ))}
              <button
                type="button"
                className="plain-button"
                aria-label={`Take ${one.name} away`}
                onClick={() => onChange(templates.filter((other) => other.id !== one.id))}
              >
                ✕
              </button>
            </div>
            {edited === one.id && <Points template={one} onPut={put} />}
          </li>
        ))}
      </ul>
      {here.length === 0 && (
        <p>
          Nothing is known of this axle's brakes. Bring the template's drawing, or read a few points: the
          outermost radius, where it begins and ends, and the face at some radii.
        </p>
      )}
      <div className="mt-1 flex flex-wrap items-center gap-2">
        <FileButton
          text="Bring a DXF, SVG or CSV"
          label="Drawing file"
          accept=".dxf,.svg,.csv,.txt"
          className="border-base-300 border"
          onFile={(picked) => void read(picked, unit)}
        />
        <button
          type="button"
          className="plain-button"
          aria-pressed={isByHand}
          onClick={() => setByHand(!isByHand)}
        >
          Point by point
        </button>
      </div>
      {isByHand && (
        <ByHand
          whose={whose}
          draft={`profile.${axle}`}
          takes="Take it: it counts from here"
          onTake={(points) => {
            onChange([...templates, fresh(axle, points, "readings", "", registry?.figures)]);
            setByHand(false);
          }}
          onLeave={() => setByHand(false)}
        />
      )}
      {sheet && !isByHand && <Origin />}
      {trouble && <Fault>{trouble}</Fault>}
      {sheet && (
        <DrawingRead
          sheet={sheet}
          unit={unit}
          onUnit={(as) => {
            setUnit(as);
            if (file) void read(file, as);
          }}
          takes={[["Take it", take]]}
        />
      )}
    </section>
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
