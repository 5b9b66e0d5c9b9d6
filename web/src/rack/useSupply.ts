import { useQuery } from "@tanstack/react-query";
import { answer, api, type Schemas } from "../api/client";
import { keys } from "../api/keys";

/** What the supplier has of the parts of each set; asked again every minute while they are shown. */
export function useSupply(sets: Schemas["PartCount"][][]) {
  return useQuery({
    queryKey: keys.supply(sets),
    queryFn: () => answer(api.POST("/api/v1/supply", { body: { sets } })),
    enabled: sets.length > 0,
    refetchInterval: 60_000,
    retry: false,
  });
}
