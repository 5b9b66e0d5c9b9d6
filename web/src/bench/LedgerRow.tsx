import { useEffect, useRef } from "react";
import { Link } from "react-router";
import type { Bench, LedgerLine } from "../api/client";
import { factId } from "../car/FactField";
import { StretchRow } from "../motion/StretchRow";
import type { Stretch } from "../motion/useMotion";
import { Caution } from "../shared/Caution";
import { FigureText, Phrase } from "../shared/Figures";
import { Mark, StandingWord } from "../shared/Mark";
import { formatSpeed, inWords, useUnits } from "../shared/units";
import { Likelihood } from "./Likelihood";
import { Working } from "./Working";

type Props = {
  line: LedgerLine;
  /** Its part in motion. */
  stretches: Stretch[] | null;
  isOpen: boolean;
  speeds: Bench["true_speeds"] | null;
  onToggle: () => void;
  onMark: () => void;
};

export function LedgerRow({ line, stretches, isOpen, speeds, onToggle, onMark }: Props) {
  const row = useRef<HTMLLIElement>(null);
  useEffect(() => {
    if (isOpen) row.current?.scrollIntoView({ block: "nearest" });
  }, [isOpen]);
  return (
    <li
      ref={row}
      id={`${line.code}-${line.axle ?? "car"}`}
      className="rule"
      data-code={line.code}
      data-axle={line.axle ?? "car"}
    >
      <button
        type="button"
        className="hover:bg-base-300/40 grid w-full cursor-pointer grid-cols-[20px_1fr_auto] items-center gap-x-2 py-0.5 text-left"
        aria-expanded={isOpen}
        onClick={onToggle}
        onFocus={onMark}
      >
        <Mark standing={line.standing} />
        <span className="min-w-0">
          <span className="block text-body leading-5 font-medium">{line.title}</span>
          <span className="block truncate text-note leading-4 opacity-80">
            <Phrase fragments={line.limit} />
          </span>
        </span>
        <span className="text-right">
          <span className="block leading-[23px]">
            {line.figure ? <FigureText quantity={line.figure} big /> : "—"}
          </span>
          <span className="block text-small leading-[17px]">
            <StandingWord standing={line.standing} word={line.word} />
          </span>
        </span>
      </button>
      {stretches && <StretchRow stretches={stretches} />}
      {isOpen && (
        <div className="pb-2 pl-7 text-body leading-5">
          <p>
            <Phrase fragments={line.says} />
          </p>
          {line.lacks.length > 0 && (
            <p className="flex flex-wrap items-center gap-x-2" data-lacks={line.code}>
              Not in the car's record yet:
              {line.lacks.map(({ fact, axle, title }) => (
                <Link
                  key={`${fact}-${axle}`}
                  to={`../car#${factId(fact, axle)}`}
                  className="plain-button underline"
                >
                  {axle ? `${title}, ${axle}` : title}
                </Link>
              ))}
            </p>
          )}
          {line.caution && <Caution className="mt-1">{line.caution}</Caution>}
          {line.part && line.axle && <Likelihood axle={line.axle} part={line.part} />}
          {speeds && <Speeds speeds={speeds} />}
          <Working line={line} />
        </div>
      )}
    </li>
  );
}

/** True speed at the speeds on the signs. */
function Speeds({ speeds }: { speeds: NonNullable<Bench["true_speeds"]> }) {
  const { units } = useUnits();
  const rows = units.speed === "km/h" ? speeds.metric : speeds.imperial;
  return (
    <table className="mt-1 w-full text-small">
      <thead>
        <tr className="text-left">
          <th className="font-normal">Dial shows</th>
          <th className="font-normal">True speed</th>
        </tr>
      </thead>
      <tbody>
        {rows.map((row) => (
          <tr key={row.shown_kmh} className="rule">
            <td>{inWords(formatSpeed(row.shown_kmh, units))}</td>
            <td className="font-semibold">{inWords(formatSpeed(row.true_kmh, units))}</td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}
