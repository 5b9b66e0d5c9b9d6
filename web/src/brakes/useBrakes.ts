import { useQuery } from "@tanstack/react-query";
import { type Axle, answer, api } from "../api/client";
import { keys } from "../api/keys";
import type { OpenJob } from "../job/useJob";

export type Shown = {
  axle: Axle;
  plannedBrakes: boolean;
  /** A wheel of the catalogue in place of the bench's. */
  setup: string | null;
  line: string | null;
  spacer: number | null;
  /** Stick-on weights on the barrel; null for none. */
  weights: { from_y_mm: number; to_y_mm: number; height_mm: number } | null;
};

/** A wheel over the job's brakes, asked for anew when the job or what is shown changes. */
export function useBrakes(open: OpenJob, shown: Shown) {
  return useQuery({
    queryKey: keys.brakes(open.id, open.job.revision, shown),
    queryFn: () =>
      answer(
        api.POST("/api/v1/jobs/{id}/brakes", {
          params: { path: { id: open.id } },
          body: {
            axle: shown.axle,
            planned_brakes: shown.plannedBrakes,
            setup: shown.setup,
            line: shown.line,
            spacer_mm: shown.spacer,
            weights: shown.weights,
          },
        }),
      ),
    placeholderData: (before) => before,
    retry: false,
  });
}

/** The catalogue's wheels over the same brakes. */
export function useWheels(open: OpenJob, axle: Axle, plannedBrakes: boolean) {
  const templates = open.job.templates;
  return useQuery({
    queryKey: keys.brakeWheels(open.id, axle, plannedBrakes, templates),
    queryFn: () =>
      answer(
        api.GET("/api/v1/jobs/{id}/brakes/wheels", {
          params: { path: { id: open.id }, query: { axle, planned_brakes: plannedBrakes } },
        }),
      ),
    enabled: templates.length > 0,
    placeholderData: (before) => before,
  });
}
