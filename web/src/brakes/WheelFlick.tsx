import type { Schemas } from "../api/client";

type Props = {
  /** Null: the bench's. */
  wheel: Schemas["CatalogueWheel"] | null;
  onFlick: (by: number) => void;
  onBack: () => void;
};

/** Which wheel is over the brake, and on to the catalogue's next. */
export function WheelFlick({ wheel, onFlick, onBack }: Props) {
  return (
    <span className="flex items-center gap-1">
      <button type="button" className="plain-button" onClick={() => onFlick(-1)} title="the one before (←)">
        ‹
      </button>
      <span className="font-medium" data-wheel>
        {wheel ? `${wheel.line} ${wheel.setup}` : "the bench's wheel"}
      </span>
      <button type="button" className="plain-button" onClick={() => onFlick(1)} title="next wheel (→)">
        ›
      </button>
      {wheel && (
        <button type="button" className="plain-button" onClick={onBack}>
          Back to the bench's
        </button>
      )}
    </span>
  );
}
