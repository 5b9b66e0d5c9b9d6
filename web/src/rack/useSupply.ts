import { useQuery } from "@tanstack/react-query";
import { answer, api, type Schemas } from "../api/client";

type Found = Schemas["FoundView"];

/** Two of each part for each axle, rows that are the same on both as four. */
function partsOf(setup: Found): Schemas["PartCount"][] {
  const counts = new Map<string, Schemas["PartCount"]>();
  for (const [kind, parts] of [
    ["wheels", setup.wheels],
    ["tires", setup.tires],
  ] as const) {
    for (const part of [parts.front, parts.rear]) {
      if (part.row == null) continue;
      const known = counts.get(`${kind} ${part.row}`);
      if (known) known.count += 2;
      else counts.set(`${kind} ${part.row}`, { kind, row: part.row, count: 2 });
    }
  }
  return [...counts.values()];
}

/** What the supplier has of the setups found; asked again every minute while they are shown. */
export function useSupply(setups: Found[]) {
  const sets = setups.map(partsOf);
  return useQuery({
    queryKey: ["supply", JSON.stringify(sets)],
    queryFn: () => answer(api.POST("/api/v1/supply", { body: { sets } })),
    enabled: sets.length > 0,
    refetchInterval: 60_000,
    retry: false,
  });
}
