import { useState } from "react";
import { type Axle, answer, api, type Registry, type Schemas } from "../api/client";
import { Fault } from "../shared/Caution";
import { FileButton } from "../shared/FileButton";
import { useRegistry } from "../shared/registry";
import { useDeed } from "../shared/useDeed";
import { ByHand, Origin } from "./ByHand";
import { DrawingRead, readDrawing } from "./DrawingRead";
import { TemplateRow } from "./TemplateRow";

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
          <TemplateRow
            key={one.id}
            one={one}
            isEdited={edited === one.id}
            onEdit={onEdit}
            onPut={put}
            onSave={(format) => void save(one, format)}
            onRemove={() => onChange(templates.filter((other) => other.id !== one.id))}
          />
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
