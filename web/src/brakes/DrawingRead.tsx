import type { Schemas } from "../api/client";
import { upload } from "../api/upload";

export type Sheet = Schemas["SheetView"];
type Layer = Sheet["layers"][number];

/** What is drawn in a file. */
export async function readDrawing(file: File, unit: string): Promise<Sheet> {
  return upload<Sheet>(`/api/v1/profiles/read${unit ? `?unit=${unit}` : ""}`, file);
}

const range = ([least = 0, most = 0]: number[]) => `${least.toFixed(1)} to ${most.toFixed(1)}`;
const place = ([y = 0, r = 0]: number[] = []) => `y ${y.toFixed(1)}, r ${r.toFixed(1)}`;

type Props = {
  sheet: Sheet;
  unit: string;
  onUnit: (unit: string) => void;
  /** What a layer's profile can be taken for. */
  takes: [string, (layer: Layer) => void][];
};

/** A drawing's layers: each as a profile that can be taken, or why it is none; and its unit, asked for where it must be. */
export function DrawingRead({ sheet, unit, onUnit, takes }: Props) {
  return (
    <div className="border-accent mt-1 border px-2 py-1" data-drawing-read>
      {sheet.says_its_unit ? (
        <p>drawn in {sheet.unit}</p>
      ) : (
        <label className="flex items-center gap-1">
          The file does not say its unit: it is drawn in
          <select
            className="bg-base-200 h-[26px]"
            aria-label="Unit of the drawing"
            value={unit}
            onChange={(event) => onUnit(event.target.value)}
          >
            <option value="">–</option>
            <option value="mm">mm</option>
            <option value="cm">cm</option>
            <option value="in">in</option>
          </select>
        </label>
      )}
      {sheet.notes.map((note) => (
        <p key={note}>{note}</p>
      ))}
      {sheet.layers.map((layer) => (
        <div key={layer.name} className="flex flex-wrap items-baseline gap-2">
          <span className="font-medium">{layer.name}</span>
          {layer.points ? (
            <>
              <span>
                {layer.points.length} points
                {layer.drawn && `, y ${range(layer.drawn.y_mm)}, r ${range(layer.drawn.r_mm)} mm`}
                {layer.drawn?.open_ends_mm &&
                  `, open from ${place(layer.drawn.open_ends_mm[0])} to ${place(layer.drawn.open_ends_mm[1])}`}
              </span>
              {layer.drawn?.asks && (
                <span className="alert caution alert-warning w-full" role="alert" data-asks>
                  {layer.drawn.asks}
                </span>
              )}
              {takes.map(([name, take]) => (
                <button
                  key={name}
                  type="button"
                  className="plain-button text-accent"
                  onClick={() => take(layer)}
                >
                  {layer.drawn?.asks ? `It is so: ${name.toLowerCase()}` : name}
                </button>
              ))}
            </>
          ) : (
            <span className="text-warning">{layer.why_not}</span>
          )}
        </div>
      ))}
    </div>
  );
}
