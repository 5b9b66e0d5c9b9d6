import { useMutation } from "@tanstack/react-query";
import { useState } from "react";
import { Away } from "../api/client";
import { saidBy } from "../api/upload";

/**
 * What a hand asks the program to do, and the last word on it: a mutation of the query library. The work says in words
 * what was done, if anything need be said. Where the program does not answer it says what to press `again`; `told` puts any
 * other failure into words where the program's own are not enough.
 */
export function useDeed(again: string | null = null, told: (error: unknown) => string = saidBy) {
  const [says, say] = useState("");
  const inWords = (error: unknown) =>
    again && error instanceof Away
      ? `${error.message} What you wrote stays here; press ${again} again.`
      : told(error);
  const { mutate, isPending } = useMutation({
    mutationFn: (work: () => Promise<unknown>) => work(),
    onMutate: () => say(""),
    onSuccess: (said) => typeof said === "string" && say(said),
    onError: (error) => say(inWords(error)),
  });
  return { run: mutate, isBusy: isPending, says, say };
}
