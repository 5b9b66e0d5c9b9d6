import { Link } from "react-router";
import type { Bench, Measure, Schemas } from "../api/client";
import { PlaceMark } from "../bay/PlaceMark";
import { Phrase } from "../shared/Figures";
import { useRegistry } from "../shared/registry";
import { formatLength, inWords, useUnits } from "../shared/units";

type Group = Schemas["MeasureGroupView"];
type Props = { id: number; bench: Bench | null };

/** What the plan still needs from the bay by what one reading answers, the most decisive first. */
export function MeasureList({ id, bench }: Props) {
  const groups = bench?.measure ?? [];
  const rest = groups.filter((group) => !group.told_first);
  const more = rest.reduce((count, group) => count + group.items.length, 0);
  return (
    <div className="px-3 pb-2">
      <p className="flex flex-wrap items-baseline justify-between gap-2 py-1 text-small">
        <span>Ordered by how likely each is to decide the plan.</span>
        <Link className="plain-button text-accent font-medium" to={`/jobs/${id}/bay-sheet`}>
          Bay sheet to print
        </Link>
      </p>
      {groups.length === 0 && (
        <p className="mt-2 text-body">
          {bench && (bench.axles.front.fit || bench.axles.rear.fit)
            ? "Nothing has to be measured: what was read decides this plan. Trial fit it all the same."
            : "State what is fitted and what is planned, each with its offset: then it can be said what to measure."}
        </p>
      )}
      <Groups id={id} groups={groups.filter((group) => group.told_first)} />
      {more > 0 && (
        <details>
          <summary className="cursor-pointer py-2 text-body">and {more} more that may matter</summary>
          <Groups id={id} groups={rest} />
        </details>
      )}
    </div>
  );
}

function Groups({ id, groups }: { id: number; groups: Group[] }) {
  return (
    <ol>
      {groups.map((group) => (
        <li key={`${group.axle}-${group.items[0]?.feature}`} data-measure-group={group.items.length}>
          {group.says && (
            <p className="rule pt-1.5 text-body font-semibold">
              <Phrase fragments={group.says} />
            </p>
          )}
          <ol className={group.says ? "border-base-300 border-l-2 pl-2" : ""}>
            {group.items.map((one) => (
              <Row key={one.feature} id={id} one={one} />
            ))}
          </ol>
        </li>
      ))}
    </ol>
  );
}

function Row({ id, one }: { id: number; one: Measure }) {
  const registry = useRegistry();
  const { units } = useUnits();
  return (
    <li className="rule" data-measure={`${one.axle}-${one.feature}`}>
      <Link
        className="hover:bg-base-300/40 grid min-h-[56px] grid-cols-[52px_1fr_auto] items-center gap-x-2 py-1"
        to={`/jobs/${id}/bay?axle=${one.axle}&part=${one.feature}`}
      >
        <span className="row-span-2">
          <PlaceMark bears={registry?.parts.find((part) => part.code === one.feature)?.bears ?? null} />
        </span>
        <span className="text-lead leading-5 font-medium">
          {one.title}, {one.axle}
          {one.at_lock && " at lock"}
        </span>
        <span className="text-right text-lead font-semibold whitespace-nowrap">
          {one.must_find_mm != null && `≥ ${inWords(formatLength(one.must_find_mm, units))}`}
        </span>
        <span className="text-small leading-[18px]">
          <Phrase fragments={one.why} />
        </span>
        <span className="text-info self-start text-right text-note font-medium">
          {one.decides ? "decides" : "may matter"}
        </span>
      </Link>
    </li>
  );
}
