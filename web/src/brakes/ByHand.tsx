import { useState } from "react";
import { NumberBox } from "../shared/NumberBox";
import { useDraft } from "../shared/useDraft";

type Props = {
  /** Under which name what is typed and does not count yet is kept. */
  /** The job's uid, and under which name what is typed is kept. */
  whose: string;
  draft: string;
  /** What it becomes, on the button. */
  takes: string;
  onTake: (points: number[][]) => void;
  onLeave: () => void;
};

const EMPTY: number[][] = [];
/** A line has a shape from so many points on. */
const SHAPE = 3;

/** A profile read off point by point: it begins empty, and counts for nothing until it has a shape and is taken. */
export function ByHand({ whose, draft, takes, onTake, onLeave }: Props) {
  const [points, setPoints] = useDraft<number[][]>(whose, draft, EMPTY);
  const [y, setY] = useState<number | null>(null);
  const [r, setR] = useState<number | null>(null);
  const add = () => {
    if (y == null || r == null) return;
    setPoints([...points, [y, r]]);
    setY(null);
    setR(null);
  };
  const line = points.map(([y = 0, r = 0], at) => `${at === 0 ? "M" : "L"}${y} ${-r}`).join("");
  return (
    <div className="border-accent mt-1 border px-2 py-1" data-by-hand={points.length}>
      <div className="flex gap-2">
        <div className="min-w-0 flex-1">
          <form
            className="flex flex-wrap items-center gap-1"
            onSubmit={(event) => {
              event.preventDefault();
              add();
            }}
          >
            y
            <NumberBox label="y of the next point, mm" value={y} placeholder="mm" onPut={setY} />
            r
            <NumberBox label="r of the next point, mm" value={r} placeholder="mm" onPut={setR} />
            <button type="submit" className="btn btn-sm" disabled={y == null || r == null}>
              Add
            </button>
          </form>
          <ol className="text-note">
            {points.map(([y, r], at) => (
              // biome-ignore lint/suspicious/noArrayIndexKey: a point is known by its place in the line
              <li key={at} className="flex items-center gap-2">
                y {y} · r {r}
                <button
                  type="button"
                  className="plain-button px-1 py-0"
                  aria-label={`Without point ${at + 1}`}
                  onClick={() => setPoints(points.filter((_, index) => index !== at))}
                >
                  ✕
                </button>
              </li>
            ))}
          </ol>
          <p className="text-note">
            {points.length < SHAPE
              ? `Judges nothing yet: ${SHAPE - points.length} more ${SHAPE - points.length === 1 ? "point makes" : "points make"} a shape.`
              : "It counts once it is taken."}
          </p>
        </div>
        <Origin line={line} />
      </div>
      <button
        type="button"
        className="btn btn-primary btn-sm"
        disabled={points.length < SHAPE}
        onClick={() => {
          onTake(points);
          setPoints(EMPTY);
        }}
      >
        {takes}
      </button>
      <button type="button" className="plain-button" onClick={onLeave}>
        Leave it
      </button>
    </div>
  );
}

/** Where a profile's figures count from: the hub face along the axle, the axle outward. */
export function Origin({ line = "" }: { line?: string }) {
  return (
    <svg
      className="drawing h-[150px] w-[170px] shrink-0"
      viewBox="-110 -250 220 270"
      role="img"
      aria-label="y counts along the axle from the hub face, outboard positive; r counts outward from the axle"
    >
      <line className="axis" x1={-110} x2={110} y1={0} y2={0} strokeWidth={2} />
      <path className="hub" d="M-60 0V-34H-18V-72H0V0Z" strokeWidth={2} />
      <line x1={0} x2={0} y1={-230} y2={10} stroke="var(--scribe)" strokeWidth={2} />
      <path d="M0 -90H70M62 -95L70 -90L62 -85" fill="none" stroke="var(--brass)" strokeWidth={2.5} />
      <path d="M-85 0V-60M-90 -52L-85 -60L-80 -52" fill="none" stroke="var(--brass)" strokeWidth={2.5} />
      <text className="note" x={34} y={-98} style={{ fontSize: 26 }}>
        y +
      </text>
      <text className="note" x={-106} y={-70} style={{ fontSize: 26 }}>
        r
      </text>
      <text className="note" x={6} y={-214} style={{ fontSize: 26 }}>
        hub face
      </text>
      <path className="obstacle" d={line} strokeWidth={3.5} fill="none" />
    </svg>
  );
}
