import { useQuery } from "@tanstack/react-query";
import { answer, api } from "../api/client";
import { keys } from "../api/keys";

const STEPS = {
  waiting: "Sending the list",
  reading: "Reading its rows",
  comparing: "Comparing with what is known",
  writing: "Writing",
} as const;

/** How far a list under way has come, asked for four times a second. */
export function ListProgress({ ticket }: { ticket: string }) {
  const query = useQuery({
    queryKey: keys.progress(ticket),
    queryFn: () => answer(api.GET("/api/v1/catalogue/progress/{ticket}", { params: { path: { ticket } } })),
    refetchInterval: 250,
    retry: false,
  });
  const { what, done, of } = query.data ?? { what: "waiting", done: 0, of: 0 };
  const says = STEPS[what as keyof typeof STEPS] ?? what;
  return (
    <p className="mt-1 text-small" role="status" data-progress={what}>
      {says}
      {of > 0 && `: ${done} of ${of}`}
      <progress
        className="progress w-full"
        aria-label={says}
        max={of > 0 ? of : undefined}
        value={of > 0 ? done : undefined}
      />
    </p>
  );
}
