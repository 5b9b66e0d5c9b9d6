/** What the program lists: parts, levers, limits, facts of a car. The page keeps no second copy of any of it. */

import { useQuery } from "@tanstack/react-query";
import { answer, api, type House, type Registry } from "../api/client";
import { fileId } from "../api/file";
import { keys } from "../api/keys";
import { kept } from "./kept";

export function useRegistry(): Registry | null {
  const query = useQuery({
    queryKey: keys.registry(),
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
    queryKey: keys.house(),
    queryFn: async () => {
      const house = await answer(api.GET("/api/v1/house"));
      kept.write(HOUSE_KEPT_AS, house);
      return house;
    },
    placeholderData: () => {
      const last = kept.read<House>(HOUSE_KEPT_AS);
      // Of another file's house nothing is shown.
      return last && (!fileId() || last.file_id === fileId()) ? last : undefined;
    },
  });
  return query.data ?? null;
}

type Verdict = Pick<Registry["verdicts"][number], "standing" | "word">;

/** Until the program has said what a verdict is, nothing is said of it. */
const NOT_HEARD: Verdict = { standing: "unknown", word: "" };

/** A verdict's word and mark, as the program has them. */
export function useVerdicts(): (code: string) => Verdict {
  const verdicts = useRegistry()?.verdicts;
  return (code) => verdicts?.find((one) => one.code === code) ?? NOT_HEARD;
}
