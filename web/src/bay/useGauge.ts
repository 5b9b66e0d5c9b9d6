import { useQuery } from "@tanstack/react-query";
import { answer, api, type Schemas } from "../api/client";
import { keys } from "../api/keys";

const LOOK_MS = 200;
const LOOK_SELDOM_MS = 4000;

/** What the gauge shows, while the bay looks at it. */
export function useGauge(): Schemas["GaugeView"] | null {
  const query = useQuery({
    queryKey: keys.gauge(),
    queryFn: () => answer(api.GET("/api/v1/gauge")),
    refetchInterval: ({ state }) => (state.error || state.data?.state === "none" ? LOOK_SELDOM_MS : LOOK_MS),
    retry: false,
  });
  return query.error ? null : (query.data ?? null);
}
