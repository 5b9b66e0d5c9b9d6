import { useQuery } from "@tanstack/react-query";
import { answer, api, type Schemas } from "../api/client";
import { keys } from "../api/keys";

/** What a job's road and track sheet comes to; nothing is asked while there is no sheet. */
export function useRoadSheet(id: number, revision: number, sheet: Schemas["RoadSheet"] | null) {
  return useQuery({
    queryKey: keys.road(id, revision, sheet),
    queryFn: () =>
      answer(api.POST("/api/v1/jobs/{id}/road", { params: { path: { id } }, body: sheet ?? {} })),
    enabled: sheet !== null,
    placeholderData: (before) => before,
    retry: false,
  });
}
