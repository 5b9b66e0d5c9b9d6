import { type Ref, useImperativeHandle, useRef, useState } from "react";
import { Link } from "react-router";
import type { Axle, AxleFit, Bench, LedgerLine, Schemas } from "../api/client";
import { Phrase } from "../shared/Figures";
import { Mark } from "../shared/Mark";
import { useVerdicts } from "../shared/registry";
import { Causes } from "./Causes";
import { grouped } from "./grouping";
import { LedgerRow } from "./LedgerRow";
import { ProposalNote } from "./ProposalNote";

export type LedgerHandle = { toggleWorking: () => void };

type Props = {
  bench: Bench | null;
  /** The plan on the road, stretch by stretch, as far as it is known. */
  moving: Schemas["StretchedPlan"] | null;
  hasPlan: boolean;
  hasFitted: boolean;
  /** Tries a proposal: its setup line and what is done to the car. */
  onPropose: (axle: Axle, proposal: NonNullable<AxleFit["proposal"]>) => void;
  ref?: Ref<LedgerHandle>;
};

const keyOf = (line: LedgerLine) => `${line.code}-${line.axle ?? "car"}`;

/** One line per question: word, figure, limit. Open a line to see what it means, its working and its source. */
export function Ledger({ bench, moving, hasPlan, hasFitted, onPropose, ref }: Props) {
  const [openLine, setOpenLine] = useState<string | null>(null);
  const marked = useRef<string | null>(null);
  const lines = bench?.ledger ?? [];
  const groups = grouped(lines);
  const toggle = (key: string) => setOpenLine((now) => (now === key ? null : key));
  useImperativeHandle(ref, () => ({
    toggleWorking: () => {
      const first = lines.find((line) => line.standing === "stop") ?? lines[0];
      const key = marked.current ?? (first && keyOf(first));
      if (key) toggle(key);
    },
  }));
  return (
    <>
      {bench && hasPlan && (
        <Causes
          headline={bench.headline}
          ledger={lines}
          onOpen={(code, axle) => {
            const line = lines.find((one) => one.code === code && (axle === null || one.axle === axle));
            if (line) setOpenLine(keyOf(line));
          }}
        />
      )}
      {hasPlan &&
        (["front", "rear"] as const).map((axle) => {
          const proposal = bench?.axles[axle].fit?.proposal;
          return (
            proposal && (
              <ProposalNote
                key={axle}
                axle={axle}
                proposal={proposal}
                onTake={() => onPropose(axle, proposal)}
              />
            )
          );
        })}
      {moving && <OnTheRoad moving={moving} />}
      <div className="px-3 pb-2">
        {(!hasPlan || !hasFitted) && (
          <p className="mt-2 text-body">
            {hasFitted
              ? "Type the planned setup into the line above: the corners are drawn and judged as you type."
              : "Type what is fitted now, then the plan: everything is held against the fitted setup."}
          </p>
        )}
        {groups.map((group) => (
          <section key={group.title}>
            <h2 className="label-small mt-2 mb-0.5 font-semibold">{group.title}</h2>
            <ul>
              {group.lines.map((line) => (
                <LedgerRow
                  key={keyOf(line)}
                  line={line}
                  stretches={stretchesOf(moving, line)}
                  isOpen={openLine === keyOf(line)}
                  speeds={line.code === "speedometer" ? (bench?.true_speeds ?? null) : null}
                  onToggle={() => toggle(keyOf(line))}
                  onMark={() => {
                    marked.current = keyOf(line);
                  }}
                />
              ))}
            </ul>
          </section>
        ))}
      </div>
    </>
  );
}

/** What a line's part comes to in motion; nothing for what is not of a part. */
function stretchesOf(moving: Props["moving"], line: LedgerLine) {
  const axle = line.axle ? moving?.[line.axle] : null;
  return axle?.parts.find((part) => part.ledger_code === line.code)?.stretches ?? null;
}

/** The plan in a few words, as the program says it. */
export function Verdict({ bench }: { bench: Bench | null }) {
  if (!bench) return <p className="text-body font-semibold">Ledger</p>;
  const { standing, sentence, judged_for } = bench.headline;
  return (
    <>
      <p className="text-note leading-4 opacity-80" data-judged-for>
        judged for {judged_for}
      </p>
      <p
        className={`text-lead font-semibold ${standing === "stop" ? "text-error" : ""}`}
        role="status"
        data-verdict={standing}
      >
        <Phrase fragments={sentence} />
      </p>
    </>
  );
}

/** Each axle's word on the road, with the way to see it move. */
function OnTheRoad({ moving }: { moving: Schemas["StretchedPlan"] }) {
  const verdict = useVerdicts();
  const axles = (["front", "rear"] as const).filter((axle) => moving[axle]?.parts.length);
  if (axles.length === 0) return null;
  return (
    <p className="flex flex-wrap items-center gap-x-3 px-3 pt-1 text-body" data-on-the-road>
      On the road:
      {axles.map((axle) => {
        const { standing, word } = verdict(moving[axle]?.verdict ?? "");
        return (
          <Link
            key={axle}
            to={`../motion?axle=${axle}`}
            className="plain-button flex items-center gap-1 px-1"
          >
            {axle} <Mark standing={standing} size={13} /> {word}
          </Link>
        );
      })}
    </p>
  );
}
