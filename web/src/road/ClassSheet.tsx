import { useQuery } from "@tanstack/react-query";
import { answer as answered, api } from "../api/client";
import { Mark } from "../shared/Mark";
import type { PartProps } from "./RoadTrack";

const range = (range: number[] | null | undefined, unit: string) =>
  range ? `${range[0]} to ${range[1]} ${unit}` : "not limited";

/** The class the car runs in: what it leaves, and clause by clause what it says of the bench and of what is kept. */
export function ClassSheet({ sheet, answer, onChange }: PartProps) {
  const clubs = useQuery({ queryKey: ["clubs"], queryFn: () => answered(api.GET("/api/v1/clubs")) });
  const all = (clubs.data ?? []).flatMap((club) =>
    club.classes.map((one) => ({ ...one, title: `${club.club}: ${one.name}` })),
  );
  const judged = answer?.class;
  return (
    <section aria-label="Class">
      <label className="block text-[15px]">
        <span className="label-small block">Runs in</span>
        <select
          className="bg-base-200 h-[34px] px-2"
          value={all.find((one) => one.name === sheet.class?.name)?.title ?? ""}
          onChange={(event) => {
            const chosen = all.find((one) => one.title === event.target.value);
            onChange({ class: chosen ? { name: chosen.name, clauses: chosen.clauses } : null });
          }}
        >
          <option value="">no class</option>
          {all.map((one) => (
            <option key={one.title}>{one.title}</option>
          ))}
        </select>
      </label>
      {judged ? (
        <>
          <p className="mt-2 text-[15px]" data-allowed>
            The most it leaves: rims {range(judged.allowed.rim_diameter_in, "in")}, width{" "}
            {range(judged.allowed.width_in, "in")}, offset {range(judged.allowed.offset_mm, "mm")}.
          </p>
          <div className="mt-2 flex flex-wrap gap-6">
            {judged.plans.map((plan) => (
              <div key={plan.letter ?? "bench"} data-classed={plan.letter ?? "bench"}>
                <h2 className="flex items-center gap-1 text-[16px] font-semibold">
                  {plan.letter ?? "On the bench"}
                  <Mark standing={plan.legal ? "good" : "stop"} size={14} />
                  {plan.legal ? "legal" : "not legal, or not known to be"}
                </h2>
                <table className="text-[15px]">
                  <tbody>
                    {plan.clauses.map((one) => (
                      <tr key={one.clause} className="rule">
                        <th scope="row" className="pr-4 text-left font-normal">
                          {one.clause.replaceAll("_", " ")}
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
          <p className="border-warning mt-3 max-w-[800px] border-l-3 pl-2 text-[14px]">
            The club's current rulebook and its scrutineer decide. Treadwear and construction come from the
            rows that were picked; what nobody stated is never legal.
          </p>
        </>
      ) : (
        <p className="mt-2 text-[15px]">Choose the class: bench and candidates are then held against it.</p>
      )}
    </section>
  );
}
