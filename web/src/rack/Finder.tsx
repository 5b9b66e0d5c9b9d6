import { useMutation } from "@tanstack/react-query";
import { useEffect, useRef } from "react";
import { useNavigate } from "react-router";
import { answer, api, Refused, type Schemas } from "../api/client";
import { useBench } from "../bench/useBench";
import { usePlan } from "../bench/usePlan";
import { asLine } from "../job/content";
import { useSheet } from "../job/JobSheet";
import { Caution, Fault } from "../shared/Caution";
import { useRegistry } from "../shared/registry";
import { FoundFirst } from "./FoundFirst";
import { type Chosen, FoundSetup } from "./FoundSetup";
import { OwnersQuestions } from "./OwnersQuestions";
import { useSupply } from "./useSupply";
import { type Sought, Wishes } from "./Wishes";

/** From what the owner wants to complete setups that can be ordered, each with its reasons and its price. */
export function Finder() {
  const { open } = useSheet();
  const { content, edit, id } = open;
  const registry = useRegistry();
  // What was asked once, at the job, is known here; what is changed here is kept with the job.
  const sought: Sought = { ...registry?.wishes.start, ...content.wishes };
  const { bench } = useBench(usePlan(open), () => {});
  const isReady = registry != null;
  const navigate = useNavigate();
  const search = useMutation({
    mutationFn: () =>
      answer(
        api.POST("/api/v1/jobs/{id}/finder", { params: { path: { id } }, body: { ...sought, count: 12 } }),
      ),
  });
  // The first answer comes by itself, an empty page would say nothing, and so does the next one when a weight changes: while one
  // is under way the newest weights wait for it.
  const { mutate, isPending } = search;
  const weights = JSON.stringify(sought.weights ?? {});
  const weighed = useRef<string>(undefined);
  useEffect(() => {
    if (!isReady || isPending || weighed.current === weights) return;
    weighed.current = weights;
    mutate();
  }, [mutate, isReady, isPending, weights]);
  const found = search.data;
  const supply = useSupply(found?.setups.map((setup) => setup.parts) ?? []);
  const { answered } = content;
  const questions = found?.questions ?? [];
  const plan = (setup: Chosen) => {
    const isNew = (row: Schemas["PickedView"]) =>
      setup.picked.every((one) => one.kind !== row.kind || one.row !== row.row);
    // The newest first: a setup line finds its own row, and the list does not grow without end.
    const picked = [...setup.picked, ...content.picked.filter(isNew)].slice(0, registry?.figures.most_picked);
    edit({ planned: setup.lines, levers: setup.levers, picked });
    navigate(`/jobs/${id}/bench`);
  };
  return (
    <div className="flex min-h-0 flex-1 flex-col min-[1000px]:flex-row">
      <Wishes
        sought={sought}
        choices={registry?.wishes ?? null}
        criteria={found?.criteria ?? null}
        isBusy={isPending}
        className={content.road?.class?.name ?? null}
        onChange={(change) => edit({ wishes: { ...sought, ...change } })}
        onSearch={() => search.mutate()}
      />
      <section className="min-h-0 min-w-0 flex-1 overflow-y-auto px-4 py-2" aria-label="Setups found">
        {search.error && (
          <Fault className="text-body">
            {search.error instanceof Refused
              ? search.error.problem.errors.map((one) => one.detail).join("; ") || search.error.message
              : "The program does not answer; press Find again."}
          </Fault>
        )}
        {!found ? (
          <p className="mt-2 max-w-prose text-body">
            Say what the car is for and press Find. Every wheel of the price lists is tried with every tire on
            both axles: against what was measured, the load, the speed and the house's limits.
            {asLine(content.fitted) === "" && " State what is fitted first: everything is held against it."}
          </p>
        ) : (
          <>
            <p className="text-small" role="status" data-found={found.setups.length}>
              {found.looked_at.wheels} wheels and {found.looked_at.tires} tires looked at;{" "}
              {found.passing.front.wheels} and {found.passing.front.tires} of them can go on the front axle,{" "}
              {found.passing.rear.wheels} and {found.passing.rear.tires} on the rear.
            </p>
            <FoundFirst found={found} id={id} />

            {supply.data?.state === "away" && (
              <Caution className="mt-1" data-supplier="away">
                The supplier does not answer: {supply.data.why}. Shown is what was heard before, and the price
                lists.
              </Caution>
            )}
            {questions.length > 0 && (
              <OwnersQuestions
                questions={questions}
                answered={answered}
                onAnswer={(answered) => edit({ answered })}
              />
            )}
            <ol>
              {found.setups.map((setup, at) => (
                <FoundSetup
                  key={`${setup.lines.front}-${setup.lines.rear}`}
                  place={at + 1}
                  setup={setup}
                  criteria={found.criteria}
                  supply={supply.data?.sets[at]}
                  supplier={supply.data?.state}
                  fitted={{
                    front: bench?.axles.front.fitted_drawing ?? null,
                    rear: bench?.axles.rear.fitted_drawing ?? null,
                  }}
                  onPlan={plan}
                />
              ))}
            </ol>
            {found.setups.length > 0 && (
              <Caution className="mt-2">
                {found.caution} {found.setups[0]?.fastener_caution}
              </Caution>
            )}
          </>
        )}
      </section>
    </div>
  );
}
