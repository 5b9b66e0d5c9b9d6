import { useQuery } from "@tanstack/react-query";
import { answer, api } from "../api/client";
import { keys } from "../api/keys";
import { useSheet } from "../job/JobSheet";
import { Figure } from "./Figure";
import type { PartProps } from "./RoadTrack";

/** What to buy next: by the gap to the leaders, the log's wear, and the lists' prices. */
export function NextStep({ sheet, onChange }: Pick<PartProps, "sheet" | "onChange">) {
  const { open } = useSheet();
  const { id, job } = open;
  const next = useQuery({
    queryKey: keys.nextStep(id, job.revision, sheet),
    queryFn: () =>
      answer(api.POST("/api/v1/jobs/{id}/road/next-step", { params: { path: { id } }, body: sheet })),
    placeholderData: (before) => before,
    retry: false,
  });
  return (
    <section aria-label="What to buy next" className="mt-4">
      <h2 className="label-small font-semibold">What to buy next</h2>
      <div className="flex flex-wrap items-end gap-3">
        <Figure
          label="Behind the class's leaders"
          unit="s"
          value={sheet.gap_s}
          onPut={(gap_s) => onChange({ gap_s })}
        />
        <Figure
          label="Runs still to come this season"
          value={sheet.season_runs}
          onPut={(season_runs) => onChange({ season_runs })}
        />
      </div>
      {next.data && (
        <ol className="mt-1 max-w-[800px] list-decimal pl-5 text-body" data-next-steps>
          {next.data.steps.map((says) => (
            <li key={says}>{says}</li>
          ))}
        </ol>
      )}
      {next.data && <p className="text-note opacity-85">Common practice: {next.data.source}.</p>}
    </section>
  );
}
