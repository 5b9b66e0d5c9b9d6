import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { answer, api, type Car, type Drive, type Lines, type Schemas } from "../api/client";
import { keys } from "../api/keys";
import { asLine } from "../job/content";

type Props = {
  isEmpty: boolean;
  /** This job: its own record is no memory. */
  own: number;
  onTake: (car: Car, drive: Drive | null) => void;
  onFit: (lines: Lines) => void;
};

/** The cars the shop has had: one press carries a model's record over to this job. */
export function Memory({ isEmpty, own, onTake, onFit }: Props) {
  const [find, setFind] = useState("");
  const [isOpen, setOpen] = useState(isEmpty);
  const query = useQuery({
    queryKey: keys.cars(find),
    queryFn: () => answer(api.GET("/api/v1/cars", { params: { query: { find } } })),
    enabled: isOpen,
    placeholderData: (before) => before,
  });
  const cars = (query.data ?? []).filter((car) => car.job_id !== own);
  if (!isOpen) {
    return (
      <button
        type="button"
        className="plain-button text-accent mt-1 font-medium"
        onClick={() => setOpen(true)}
      >
        Take the model over from an earlier job
      </button>
    );
  }
  return (
    <section className="border-accent mt-2 border px-3 py-2" aria-label="Cars the shop has had">
      <div className="flex flex-wrap items-center gap-3">
        <h2 className="text-body font-semibold">From the shop's memory</h2>
        <input
          type="search"
          className="input input-sm w-[240px] text-body"
          aria-label="Find a car the shop has had"
          placeholder="model, body, generation or brakes"
          value={find}
          onChange={(event) => setFind(event.target.value)}
        />
        <button type="button" className="plain-button ml-auto" onClick={() => setOpen(false)}>
          Close
        </button>
      </div>
      {cars.length === 0 ? (
        <p className="mt-1 text-body">
          {find
            ? "No car of these words was written down before."
            : "No other car was written down yet. Fill in the model below, and the next one like it starts from here."}
        </p>
      ) : (
        <ul>
          {cars.map((car) => (
            <li key={car.job_id} className="rule flex flex-wrap items-center gap-x-4 py-1 text-body">
              <strong>{said(car, "model")}</strong>
              <span>
                {["body", "generation", "brake_package"]
                  .map((fact) => said(car, fact))
                  .filter(Boolean)
                  .join(", ")}
              </span>
              <span className="opacity-80">
                job {car.job_number}, {car.car.facts.length} facts
              </span>
              <span className="ml-auto flex">
                {asLine(factory(car)) && (
                  <button type="button" className="plain-button" onClick={() => onFit(factory(car))}>
                    Its factory setup is fitted
                  </button>
                )}
                <button
                  type="button"
                  className="plain-button text-accent font-medium"
                  onClick={() => {
                    onTake(car.car, car.drive ?? null);
                    setOpen(false);
                  }}
                >
                  Take over
                </button>
              </span>
            </li>
          ))}
        </ul>
      )}
      <p className="mt-1 text-note opacity-85">
        Alignment, fender and suspension work belong to the one car and are not carried over.
      </p>
    </section>
  );
}

type Known = Schemas["KnownCar"];

const said = (car: Known, fact: string) =>
  String(car.car.facts.find((one) => one.fact === fact)?.value ?? "");

function factory(car: Known): Lines {
  const line = (axle: "front" | "rear") => {
    const value = car.car.facts.find((fact) => fact.fact === "factory_setup" && fact.axle === axle)?.value;
    return value === undefined ? null : String(value);
  };
  return { front: line("front"), rear: line("rear") };
}
