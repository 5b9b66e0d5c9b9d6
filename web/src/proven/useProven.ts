import { useQuery } from "@tanstack/react-query";
import { answer, api } from "../api/client";
import { keys } from "../api/keys";

/** The library of proven fits, the likest car and the nearest setup first. */
export function useProven(job: number, revision: number, find: string) {
  return useQuery({
    queryKey: keys.proven(job, revision, find),
    queryFn: () => answer(api.GET("/api/v1/proven", { params: { query: { job, find } } })),
    placeholderData: (before) => before,
  });
}
