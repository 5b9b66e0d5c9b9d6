import type { Axle, Registry } from "../api/client";
import { Caution } from "../shared/Caution";
import { useLatest } from "../shared/useLatest";
import { LeverSlider } from "./LeverSlider";
import type { PairOfLevers } from "./usePlan";

type Props = {
  registry: Registry;
  levers: PairOfLevers;
  axles: Axle[];
  /** Tried while the hand is on it: one pull is one step to undo. */
  onAttempt: (levers: PairOfLevers) => void;
  onSet: (levers: PairOfLevers) => void;
};

/** What can be done to the car, from mild to hard: pull one and drawing, ledger and window follow. */
export function Levers({ registry, levers, axles, onAttempt, onSet }: Props) {
  const onTheCar = registry.levers.filter((lever) => lever.step != null);
  const amountOf = (axle: Axle, code: string) => levers[axle].find((one) => one.lever === code)?.amount ?? 0;
  const withOne = (axle: Axle, lever: string, amount: number): PairOfLevers => {
    const others = levers[axle].filter((one) => one.lever !== lever);
    return { ...levers, [axle]: amount === 0 ? others : [...others, { lever, amount }] };
  };
  const pull = useLatest((axle: Axle, lever: string, amount: number) =>
    onAttempt(withOne(axle, lever, amount)),
  );
  const set = useLatest((axle: Axle, lever: string, amount: number) => onSet(withOne(axle, lever, amount)));
  const isSet = axles.some((axle) => levers[axle].length > 0);
  return (
    <section aria-label="Levers">
      <div className="mt-2 flex items-baseline justify-between">
        <h2 className="label-small font-semibold">Levers on the car, from mild to hard</h2>
        <button
          type="button"
          className="plain-button py-0"
          disabled={!isSet}
          onClick={() => onSet({ ...levers, ...Object.fromEntries(axles.map((axle) => [axle, []])) })}
        >
          None
        </button>
      </div>
      <ul>
        {onTheCar.map((lever) => {
          const pulled = axles.some((axle) => amountOf(axle, lever.code) !== 0);
          return (
            <li
              key={lever.code}
              className={`rule py-1 ${pulled ? "bg-accent/10" : ""}`}
              data-lever={lever.code}
            >
              <details>
                <summary className="flex cursor-pointer items-baseline justify-between gap-2 text-body">
                  <span className="font-medium">{lever.title}</span>
                  <span className="text-note opacity-80">
                    {lever.can_be_undone ? "can be undone" : "for good"} · more
                  </span>
                </summary>
                <p className="text-small leading-[18px]">
                  {lever.does} {lever.never}
                </p>
              </details>
              <div className="flex gap-3">
                {axles.map((axle) => (
                  <LeverSlider
                    key={axle}
                    lever={lever}
                    axle={axle}
                    amount={amountOf(axle, lever.code)}
                    hasName={axles.length > 1}
                    onPull={pull}
                    onSet={set}
                  />
                ))}
              </div>
              {pulled && (
                <Caution className="mt-0.5 leading-[18px]">
                  {lever.costs} {lever.caution}
                </Caution>
              )}
            </li>
          );
        })}
      </ul>
    </section>
  );
}
