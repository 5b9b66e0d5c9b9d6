import type { Axle } from "../api/client";
import { Segments } from "../shared/Segments";

type Side = "left" | "right";

const CORNERS = (["front", "rear"] as const).flatMap((one) =>
  (["left", "right"] as const).map((other) => [one, other] as const),
);

type CornersProps = { axle: Axle; side: Side; onChoose: (axle: Axle, side: Side) => void };

/** The four corners as they stand under the car. */
export function Corners({ axle, side, onChoose }: CornersProps) {
  return (
    <Segments
      tall
      label="Corner"
      className="text-lead"
      value={`${axle} ${side}`}
      options={CORNERS.map(([one, other]) => [`${one} ${other}`, `${one} ${other}`])}
      onPick={(corner) => {
        const picked = CORNERS.find(([one, other]) => corner === `${one} ${other}`);
        if (picked) onChoose(...picked);
      }}
    />
  );
}
