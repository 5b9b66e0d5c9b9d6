import { useQuery } from "@tanstack/react-query";
import { type Axle, answer, api, type Lines, type Schemas, type TireChoice } from "../api/client";
import { keys } from "../api/keys";
import type { OpenJob } from "../job/useJob";

export type Motion = Schemas["MotionView"];
export type MotionPart = Schemas["MotionPart"];
export type Stretch = Schemas["StretchView"];
export type StretchedAxle = Schemas["StretchedAxle"];
export type Lift = Schemas["LiftView"];
/** What a plan is swept over. */
export type Usage = Required<Schemas["UsageRequest"]>;
/** Steer in degrees, + = front edge outboard; travel in mm, + = bump. */
export type Pose = { steer: number; travel: number };

/** On the road, with nothing on the tire. */
export const ON_THE_ROAD: Usage = { envelope: "road", speed_kmh: 0, chains_mm: 0, mud_mm: 0 };

/** The plan, and without one what is fitted. */
function linesOf(open: OpenJob): Lines {
  const { planned, fitted } = open.content;
  return { front: planned.front ?? fitted.front, rear: planned.rear ?? fitted.rear };
}

/** What is asked of a plan on an axle, and whether there is one to ask of. */
function question(open: OpenJob, axle: Axle, usage: Usage) {
  const planned = linesOf(open);
  return {
    params: { path: { id: open.id } },
    body: { axle, usage, planned },
    key: [open.id, open.job.revision, axle, usage, planned],
    enabled: planned[axle] != null,
  };
}

/** The plan in motion: one answer, from which every pose is drawn. */
export function useMotion(open: OpenJob, axle: Axle, usage: Usage) {
  const { params, body, key, enabled } = question(open, axle, usage);
  return useQuery({
    queryKey: keys.motion(key),
    queryFn: () => answer(api.POST("/api/v1/jobs/{id}/motion", { params, body })),
    enabled,
    placeholderData: (before) => before,
    retry: false,
  });
}

/** What turns the verdict, each remedy by itself. */
export function useRemedies(open: OpenJob, axle: Axle, usage: Usage, isWanted: boolean) {
  const { params, body, key, enabled } = question(open, axle, usage);
  return useQuery({
    queryKey: keys.remedies(key),
    queryFn: () => answer(api.POST("/api/v1/jobs/{id}/motion/remedies", { params, body })),
    enabled: enabled && isWanted,
    retry: false,
  });
}

/** The tallest tire at each height of lift. */
export function useLift(open: OpenJob, axle: Axle, usage: Usage) {
  const { params, body, key, enabled } = question(open, axle, usage);
  return useQuery({
    queryKey: keys.lift(key),
    queryFn: () => answer(api.POST("/api/v1/jobs/{id}/motion/lift", { params, body })),
    enabled,
    placeholderData: (before) => before,
    retry: false,
  });
}

/** The fit window that clears on the road, inside the one that stands. */
export function useMovingWindow(open: OpenJob, axle: Axle, tireChoice: TireChoice) {
  const { params, body, key, enabled } = question(open, axle, ON_THE_ROAD);
  return useQuery({
    queryKey: keys.movingWindow(key, tireChoice),
    queryFn: () =>
      answer(
        api.POST("/api/v1/jobs/{id}/motion/window", {
          params,
          body: { motion: body, tire_choice: tireChoice },
        }),
      ),
    enabled: enabled && open.content.planned[axle] != null,
    placeholderData: (before) => before,
    retry: false,
  });
}

/** Plans on the road, stretch by stretch; none until it is known. */
export function useStretches(open: OpenJob, plans: Schemas["PlanRequest"][]): Schemas["StretchedPlan"][] {
  const query = useQuery({
    queryKey: keys.stretches(open.id, open.job.revision, plans),
    queryFn: () =>
      answer(
        api.POST("/api/v1/jobs/{id}/motion/stretches", {
          params: { path: { id: open.id } },
          body: { plans, usage: ON_THE_ROAD },
        }),
      ),
    enabled: plans.length > 0 && open.save.is !== "saving",
    placeholderData: (before) => before,
    retry: false,
  });
  return query.data ?? [];
}
