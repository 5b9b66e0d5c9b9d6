import { useQuery } from "@tanstack/react-query";
import { type Axle, answer, api, type Schemas } from "../api/client";
import { keys } from "../api/keys";
import type { OpenJob } from "../job/useJob";
import { formatOffset } from "../shared/units";

type Look = Schemas["LookView"];

/** Looks of the plan in figures; none while it is not known. */
export function useLooks(open: OpenJob) {
  const { planned, levers } = open.content;
  const query = useQuery({
    queryKey: keys.looks(open.id, open.job.revision, planned, levers),
    queryFn: () =>
      answer(api.POST("/api/v1/jobs/{id}/looks", { params: { path: { id: open.id } }, body: planned })),
    enabled: open.save.is !== "saving" && (planned.front != null || planned.rear != null),
    placeholderData: (before) => before,
    retry: false,
  });
  return query.data ?? null;
}

const range = (least: number | null | undefined, most: number | null | undefined) =>
  least == null && most == null
    ? "any"
    : least == null
      ? `≤ ${formatOffset(Math.round((most ?? 0) * 10) / 10)}`
      : most == null
        ? `≥ ${formatOffset(Math.round(least * 10) / 10)}`
        : `${formatOffset(Math.round(least * 10) / 10)} … ${formatOffset(Math.round(most * 10) / 10)}`;

/** For each look the offsets that give it on each width, and which of them clear. */
export function Looks({ axle, looks }: { axle: Axle; looks: Look[] }) {
  if (looks.length === 0) return null;
  const widths = looks[0]?.widths.map((one) => one.rim_width_in) ?? [];
  return (
    <details className="mt-1 text-note" data-looks={axle}>
      <summary className="cursor-pointer text-small">looks in figures: which offsets give them</summary>
      <div className="overflow-x-auto">
        <table className="w-full">
          <thead>
            <tr className="text-left">
              <td className="pr-2">ET on a rim of</td>
              {widths.map((width) => (
                <th key={width} scope="col" className="pr-2 font-semibold whitespace-nowrap">
                  {width} in
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {looks.map((look) => (
              <tr key={look.code} className="rule align-top">
                <th scope="row" className="pr-2 text-left font-semibold">
                  {look.code}
                </th>
                {look.widths.map((one) => (
                  <td key={one.rim_width_in} className="pr-2 whitespace-nowrap">
                    {range(one.offset_min_mm, one.offset_max_mm)}
                    <span className="block opacity-85">
                      {one.clears
                        ? `clears ${range(one.clears_min_mm, one.clears_max_mm)}`
                        : one.measure_first
                          ? "measure first"
                          : "none clears"}
                    </span>
                  </td>
                ))}
              </tr>
            ))}
          </tbody>
        </table>
      </div>
      {looks.map((look) => (
        <p key={look.code}>
          <strong>{look.code}.</strong> {look.asks}
        </p>
      ))}
    </details>
  );
}
