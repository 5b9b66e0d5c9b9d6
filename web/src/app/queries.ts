import type { DefaultOptions } from "@tanstack/react-query";

/**
 * How the program is asked. It is on this machine or in this house: it is asked again when the window comes back, not
 * by the clock, and whatever the browser thinks of the network beyond.
 */
export const ASKED: DefaultOptions = {
  queries: { retry: 1, staleTime: 0, refetchOnWindowFocus: true, networkMode: "always" },
  mutations: { networkMode: "always" },
};
