import { useMutation } from "@tanstack/react-query";
import { useState } from "react";
import { saidBy } from "../api/upload";

/**
 * What a hand asks the program to do, and the last word on it: a mutation of the query library. The work says in words
 * what was done, if anything need be said; `told` puts a failure into words where the program's own are not enough.
 */
export function useDeed(told: (error: unknown) => string = saidBy) {
  const [says, say] = useState("");
  const { mutate, isPending } = useMutation({
    mutationFn: (work: () => Promise<unknown>) => work(),
    onMutate: () => say(""),
    onSuccess: (said) => typeof said === "string" && say(said),
    onError: (error) => say(told(error)),
  });
  return { run: mutate, isBusy: isPending, says, say };
}
