import { useQuery } from "@tanstack/react-query";
import { type Axle, answer, api, type Schemas } from "../api/client";
import type { OpenJob } from "../job/useJob";

export type Motion = Schemas["MotionView"];
export type MotionPart = Schemas["MotionPart"];
/** Steer in degrees, + = front edge outboard; travel in mm, + = bump. */
export type Pose = { steer: number; travel: number };

/** The plan in motion: one answer, from which every pose is drawn. */
export function useMotion(open: OpenJob, axle: Axle, envelope: string) {
  const { planned, fitted } = open.content;
  const lines = { front: planned.front ?? fitted.front, rear: planned.rear ?? fitted.rear };
  return useQuery({
    queryKey: ["motion", open.id, open.job.revision, axle, envelope, lines],
    queryFn: () =>
      answer(
        api.POST("/api/v1/jobs/{id}/motion", {
          params: { path: { id: open.id } },
          body: { axle, envelope, planned: lines },
        }),
      ),
    enabled: lines[axle] != null,
    placeholderData: (before) => before,
    retry: false,
  });
}
