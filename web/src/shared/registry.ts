/** What the program lists: parts, levers, limits, facts of a car. The page keeps no second copy of any of it. */
import { useQuery } from "@tanstack/react-query";
import { answer, api, type House, type Registry } from "../api/client";

export function useRegistry(): Registry | null {
  const query = useQuery({
    queryKey: ["registry"],
    queryFn: () => answer(api.GET("/api/v1/registry")),
    // It changes with the program only.
    staleTime: Number.POSITIVE_INFINITY,
  });
  return query.data ?? null;
}

const HOUSE_KEPT_AS = "dimensione.house";

/** The house; away from the program, what it was when last seen. */
export function useHouse(): House | null {
  const query = useQuery({
    queryKey: ["house"],
    queryFn: async () => {
      const house = await answer(api.GET("/api/v1/house"));
      localStorage.setItem(HOUSE_KEPT_AS, JSON.stringify(house));
      return house;
    },
    placeholderData: () => {
      try {
        return JSON.parse(localStorage.getItem(HOUSE_KEPT_AS) ?? "null") ?? undefined;
      } catch {
        return undefined;
      }
    },
  });
  return query.data ?? null;
}

/** The verdicts as marks of the ledger know them. */
export const STANDING_OF = {
  clears: "good",
  tight: "mind",
  measure_first: "measure",
  touches: "stop",
} as const;

export const WORD_OF = {
  clears: "clears",
  tight: "tight",
  measure_first: "measure first",
  touches: "touches",
} as const;
