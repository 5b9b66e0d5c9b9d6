import type { Axle, LeverAmount, Registry } from "../api/client";
import { formatLength, inWords, type Units, useUnits } from "../shared/units";

type Lever = Registry["levers"][number];
type Props = {
  registry: Registry;
  levers: { front: LeverAmount[]; rear: LeverAmount[] };
  axles: Axle[];
  onSet: (change: Partial<Record<Axle, LeverAmount[]>>) => void;
  onHold: (held: boolean) => void;
};

/** What can be done to the car, from mild to hard: pull one and drawing, ledger and window follow. */
export function Levers({ registry, levers, axles, onSet, onHold }: Props) {
  const { units } = useUnits();
  const onTheCar = registry.levers.filter((lever) => lever.step != null);
  const amountOf = (axle: Axle, lever: Lever) =>
    levers[axle].find((one) => one.lever === lever.code)?.amount ?? 0;
  const set = (axle: Axle, lever: Lever, amount: number) => {
    const others = levers[axle].filter((one) => one.lever !== lever.code);
    onSet({ [axle]: amount === 0 ? others : [...others, { lever: lever.code, amount }] });
  };
  const isSet = axles.some((axle) => levers[axle].length > 0);
  return (
    <section aria-label="Levers">
      <div className="mt-2 flex items-baseline justify-between">
        <h3 className="label-small font-semibold">Levers on the car, from mild to hard</h3>
        <button
          type="button"
          className="plain-button py-0"
          disabled={!isSet}
          onClick={() => onSet(Object.fromEntries(axles.map((axle) => [axle, []])))}
        >
          None
        </button>
      </div>
      <ul>
        {onTheCar.map((lever) => {
          const pulled = axles.some((axle) => amountOf(axle, lever) !== 0);
          return (
            <li
              key={lever.code}
              className={`rule py-1 ${pulled ? "bg-accent/10" : ""}`}
              data-lever={lever.code}
            >
              <details>
                <summary className="flex cursor-pointer items-baseline justify-between gap-2 text-[15px]">
                  <span className="font-medium">{lever.title}</span>
                  <span className="text-[13px] opacity-80">
                    {lever.can_be_undone ? "can be undone" : "for good"} · more
                  </span>
                </summary>
                <p className="text-[14px] leading-[18px]">
                  {lever.does} {lever.never}
                </p>
              </details>
              <div className="flex gap-3">
                {axles.map((axle) => (
                  <label key={axle} className="flex min-w-0 flex-1 items-center gap-2 text-[14px]">
                    {axles.length > 1 && <span className="w-[34px] opacity-85">{axle}</span>}
                    <input
                      type="range"
                      className="range-lever min-w-0 flex-1"
                      aria-label={`${lever.title}, ${axle}`}
                      min={lever.least ?? 0}
                      max={lever.most ?? 0}
                      step={lever.step ?? 1}
                      value={amountOf(axle, lever)}
                      onPointerDown={() => onHold(true)}
                      onPointerUp={() => onHold(false)}
                      onChange={(event) => set(axle, lever, Number(event.target.value))}
                    />
                    <span className="w-[62px] text-right font-semibold" data-amount={axle}>
                      {said(lever, amountOf(axle, lever), units)}
                    </span>
                  </label>
                ))}
              </div>
              {pulled && (
                <p className="border-warning mt-0.5 border-l-3 pl-2 text-[14px] leading-[18px]">
                  {lever.costs} {lever.caution}
                </p>
              )}
            </li>
          );
        })}
      </ul>
    </section>
  );
}

function said(lever: Lever, amount: number, units: Units): string {
  if (amount === 0) return "—";
  if (lever.unit === "mm") return inWords(formatLength(amount, units, (lever.least ?? 0) < 0));
  return `${amount > 0 ? "+" : "−"}${Math.abs(amount).toFixed(1)}${lever.unit}`;
}
