import { useQuery } from "@tanstack/react-query";
import { answer, api } from "../api/client";
import { keys } from "../api/keys";
import type { OpenJob } from "../job/useJob";

/** What the job's trials come to, asked for anew with every change of the job. */
export function useTrials(open: OpenJob) {
  return useQuery({
    queryKey: keys.trials(open.id, open.job.revision),
    queryFn: () => answer(api.GET("/api/v1/jobs/{id}/trials", { params: { path: { id: open.id } } })),
    placeholderData: (before) => before,
  });
}
