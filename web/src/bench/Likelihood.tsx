import { useQuery } from "@tanstack/react-query";
import { type Axle, answer, api } from "../api/client";
import { keys } from "../api/keys";
import { useSheet } from "../job/JobSheet";

/** How likely a part is touched, where its word hangs on how what may be off is added; nothing elsewhere. */
export function Likelihood({ axle, part }: { axle: Axle; part: string }) {
  const { open } = useSheet();
  const { planned } = open.content;
  const { data } = useQuery({
    queryKey: keys.likelihood(open.id, open.job.revision, axle, part, planned),
    queryFn: () =>
      answer(
        api.POST("/api/v1/jobs/{id}/likelihood", {
          params: { path: { id: open.id } },
          body: { axle, part, planned },
        }),
      ),
    retry: false,
  });
  if (!data?.says) return null;
  return (
    <p className="mt-1" data-likelihood={part}>
      With everything drawn at once as it may be off, {data.says}; {data.short} of {data.cases} have less room
      than the house wants.
    </p>
  );
}
