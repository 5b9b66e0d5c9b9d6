import { useQuery } from "@tanstack/react-query";
import { Link } from "react-router";
import { answer as answered, api } from "../api/client";
import { keys } from "../api/keys";
import { Caution } from "../shared/Caution";
import { Mark } from "../shared/Mark";
import { NextStep } from "./NextStep";
import type { PartProps } from "./RoadTrack";

const range = (range: number[] | null | undefined, unit: string) =>
  range ? `${range[0]} to ${range[1]} ${unit}` : "not limited";

/** The class the car runs in: what it leaves, and clause by clause what it says of the bench and of what is kept. */
export function ClassSheet({ sheet, answer, onChange }: PartProps) {
  const clubs = useQuery({ queryKey: keys.clubs(), queryFn: () => answered(api.GET("/api/v1/clubs")) });
  const all = (clubs.data ?? []).flatMap(({ club, from, counts, classes }) =>
    classes.map((one) => ({
      ...one,
      counts,
      of: { club, from },
      title: `${club}: ${one.name}${counts ? "" : `, rules of ${from}`}`,
    })),
  );
  // What a job took may be of rules that count no longer: its club and day tell which.
  const taken = all.find(
    (one) =>
      one.name === sheet.class?.name &&
      (!sheet.class_of || (one.of.club === sheet.class_of.club && one.of.from === sheet.class_of.from)),
  );
  const take = (chosen: (typeof all)[number] | undefined) =>
    onChange({
      class: chosen ? { name: chosen.name, clauses: chosen.clauses } : null,
      class_of: chosen?.of ?? null,
    });
  const now = all.find(
    (one) => one.counts && one.of.club === sheet.class_of?.club && one.name === sheet.class?.name,
  );
  const judged = answer?.class;
  return (
    <section aria-label="Class">
      <label className="block text-body">
        <span className="label-small block">Runs in</span>
        <select
          className="bg-base-200 h-[34px] px-2"
          value={taken?.title ?? sheet.class?.name ?? ""}
          onChange={(event) => {
            take(all.find((one) => one.title === event.target.value));
          }}
        >
          <option value="">no class</option>
          {sheet.class?.name && !taken && <option>{sheet.class.name}</option>}
          {all.map((one) => (
            <option key={one.title}>{one.title}</option>
          ))}
        </select>
      </label>
      <Link to="/house/clubs" className="plain-button px-0 text-small">
        Rules of the clubs
      </Link>
      {judged?.news && (
        <p role="status" className="flex items-start gap-1 text-body" data-news>
          <Mark standing="mind" size={14} />
          {judged.news}
          {now && (
            <button type="button" className="plain-button py-0" onClick={() => take(now)}>
              Take the rules of {now.of.from}
            </button>
          )}
        </p>
      )}
      {judged ? (
        <>
          <p className="mt-2 text-body" data-allowed>
            The most it leaves: rims {range(judged.allowed.rim_diameter_in, "in")}, width{" "}
            {range(judged.allowed.width_in, "in")}, offset {range(judged.allowed.offset_mm, "mm")}.
          </p>
          <div className="mt-2 flex flex-wrap gap-6">
            {judged.plans.map((plan) => (
              <div key={plan.letter ?? "bench"} data-classed={plan.letter ?? "bench"}>
                <h2 className="flex items-center gap-1 text-lead font-semibold">
                  {plan.letter ?? "On the bench"}
                  <Mark standing={plan.legal ? "good" : "stop"} size={14} />
                  {plan.legal ? "legal" : "not legal, or not known to be"}
                </h2>
                <table className="text-body">
                  <tbody>
                    {plan.clauses.map((one) => (
                      <tr key={one.clause} className="rule">
                        <th scope="row" className="pr-4 text-left font-normal">
                          {one.title}
                        </th>
                        <td>
                          <span className="flex items-center gap-1">
                            <Mark
                              standing={one.ok == null ? "unknown" : one.ok ? "good" : "stop"}
                              size={12}
                            />
                            {one.says}
                          </span>
                        </td>
                      </tr>
                    ))}
                  </tbody>
                </table>
              </div>
            ))}
          </div>
          <Caution className="mt-3 max-w-[800px]">
            The club's current rulebook and its scrutineer decide. Treadwear and construction come from the
            rows that were picked; what nobody stated is never legal.
          </Caution>
        </>
      ) : (
        <p className="mt-2 text-body">Choose the class: bench and candidates are then held against it.</p>
      )}
      <NextStep sheet={sheet} onChange={onChange} />
    </section>
  );
}
