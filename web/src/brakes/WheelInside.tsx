import { useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { answer, api, type Schemas } from "../api/client";
import { keys } from "../api/keys";
import { FileButton } from "../shared/FileButton";
import { NumberBox } from "../shared/NumberBox";
import { useRegistry } from "../shared/registry";
import { useDeed } from "../shared/useDeed";
import { ByHand } from "./ByHand";
import { DrawingRead, readDrawing, type Sheet } from "./DrawingRead";

type Props = { wheel: NonNullable<Schemas["BrakeBench"]["wheel"]> /** The job's uid. */; whose: string };

/** The wheel's own inside: brought as a drawing, barrel and spoke back, and kept for its line and size. */
export function WheelInside({ wheel, whose }: Props) {
  const queries = useQueryClient();
  const [design, setDesign] = useState("");
  const [file, setFile] = useState<File | null>(null);
  const [sheet, setSheet] = useState<Sheet | null>(null);
  const [unit, setUnit] = useState("");
  const [barrel, setBarrel] = useState<number[][] | null>(null);
  const [spokes, setSpokes] = useState<number[][] | null>(null);
  const registry = useRegistry();
  const [typed, setPlusMinus] = useState<number | null>(null);
  const plusMinus = typed ?? registry?.figures.readings_plus_minus_mm ?? 0;
  const { run, says } = useDeed();
  const [hand, setHand] = useState<"barrel" | "spokes" | null>(null);
  const line = design || wheel.design;
  const read = (from: File, as: string) => {
    setFile(from);
    run(async () => {
      setSheet(await readDrawing(from, as));
    });
  };
  const keep = () =>
    run(async () => {
      if (!barrel || !spokes) return undefined;
      await answer(
        api.PUT("/api/v1/wheel-templates", {
          body: {
            line,
            size: wheel.size,
            source: "template",
            plus_minus_mm: plusMinus,
            barrel,
            spoke_back: spokes,
          },
        }),
      );
      setSheet(null);
      setBarrel(null);
      setSpokes(null);
      await queries.invalidateQueries({ queryKey: keys.allBrakes() });
      await queries.invalidateQueries({ queryKey: keys.allBrakeWheels() });
      return `Kept for ${line} ${wheel.size}.`;
    });
  return (
    <details className="rule mt-2 pt-1 text-small">
      <summary className="label-small cursor-pointer font-semibold">
        Inside of {wheel.design || "this wheel"} {wheel.size}
        {wheel.source === "estimate" ? ": not measured" : ": measured"}
      </summary>
      <div className="mt-1 flex flex-wrap items-center gap-2">
        <input
          className="bg-base-200 h-[28px] min-w-0 flex-1 px-2"
          aria-label="Line of the wheel"
          placeholder={wheel.design || "line or design"}
          value={design}
          maxLength={80}
          onChange={(event) => setDesign(event.target.value)}
        />
        ±
        <NumberBox
          label="How far the wheel's inside may be off, mm"
          value={plusMinus}
          onPut={(mm) => setPlusMinus(mm ?? 0)}
        />
        mm
        <FileButton
          text="Bring its drawing"
          label="Drawing of the wheel's inside"
          accept=".dxf,.svg,.csv,.txt"
          className="border-base-300 border"
          onFile={(picked) => void read(picked, unit)}
        />
      </div>
      <div className="flex flex-wrap items-center gap-1">
        or by hand:
        {(["barrel", "spokes"] as const).map((one) => (
          <button
            key={one}
            type="button"
            className="plain-button"
            aria-pressed={hand === one}
            onClick={() => setHand(hand === one ? null : one)}
          >
            the {one}
          </button>
        ))}
      </div>
      {hand && (
        <ByHand
          key={hand}
          whose={whose}
          draft={`inside.${wheel.size}.${hand}`}
          takes={`Take it for the ${hand}`}
          onTake={(points) => {
            if (hand === "barrel") setBarrel(points);
            else setSpokes(points);
            setHand(null);
          }}
          onLeave={() => setHand(null)}
        />
      )}
      <p>
        y counts from the mounting pad, outboard positive. Barrel and spokes are lines, or layers, of their
        own.
      </p>
      {sheet && (
        <DrawingRead
          sheet={sheet}
          unit={unit}
          onUnit={(as) => {
            setUnit(as);
            if (file) void read(file, as);
          }}
          takes={[
            ["as the barrel", (layer) => setBarrel(layer.points ?? null)],
            ["as the spokes", (layer) => setSpokes(layer.points ?? null)],
          ]}
        />
      )}
      {(barrel || spokes) && (
        <button
          type="button"
          className="btn btn-primary btn-sm mt-1"
          disabled={!barrel || !spokes || !line.trim()}
          onClick={() => void keep()}
        >
          {barrel && spokes
            ? `Keep for ${line || "…"} ${wheel.size}`
            : `now the ${barrel ? "spokes" : "barrel"}`}
        </button>
      )}
      {says && <p role="status">{says}</p>}
    </details>
  );
}
