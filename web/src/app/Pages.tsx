import { type ComponentType, lazy, Suspense, useEffect } from "react";
import { Navigate, Route, Routes, useParams } from "react-router";
import { Counter } from "../counter/Counter";
import { JobSheet } from "../job/JobSheet";
import { NotThere } from "./NotThere";

const fetchers: (() => Promise<unknown>)[] = [];
const TRY_AGAIN_MS = 1000;

/**
 * A screen that is fetched when it is first opened, and beforehand while nobody waits: the counter does not wait for all of
 * them, and on a job the next screen is there when the hand goes to it. While the program does not answer it is asked for again.
 */
function screen<Name extends string>(fetchIt: () => Promise<Record<Name, ComponentType>>, name: Name) {
  fetchers.push(fetchIt);
  const fetched = async (): Promise<{ default: ComponentType }> => {
    for (;;) {
      try {
        return { default: (await fetchIt())[name] };
      } catch {
        await new Promise((again) => setTimeout(again, TRY_AGAIN_MS));
      }
    }
  };
  return lazy(fetched);
}

const Bay = screen(() => import("../bay/Bay"), "Bay");
const BaySheet = screen(() => import("../bay/BaySheet"), "BaySheet");
const Bench = screen(() => import("../bench/Bench"), "Bench");
const Brakes = screen(() => import("../brakes/Brakes"), "Brakes");
const Car = screen(() => import("../car/Car"), "Car");
const Compare = screen(() => import("../compare/Compare"), "Compare");
const Clubs = screen(() => import("../house/Clubs"), "Clubs");
const House = screen(() => import("../house/House"), "House");
const Motion = screen(() => import("../motion/Motion"), "Motion");
const PrintSheet = screen(() => import("../print/PrintSheet"), "PrintSheet");
const Rack = screen(() => import("../rack/Rack"), "Rack");
const RoadTrack = screen(() => import("../road/RoadTrack"), "RoadTrack");
const Trial = screen(() => import("../trial/Trial"), "Trial");
const TrialSheet = screen(() => import("../trial/TrialSheet"), "TrialSheet");

/** Every place in the program has its own address. */
export function Pages() {
  useEffect(() => {
    // One after another, so that none holds up what the person asked for. One that does not come is fetched when it is opened.
    const fetchAll = async () => {
      for (const fetchIt of fetchers) await fetchIt().catch(() => undefined);
    };
    void fetchAll();
  }, []);
  return (
    <Suspense
      fallback={
        <p className="p-6" role="status">
          Opening…
        </p>
      }
    >
      <Routes>
        <Route path="/" element={<Counter />} />
        <Route path="/jobs/:id" element={<KeyedJob />}>
          <Route index element={<Navigate to="bench" replace />} />
          <Route path="car" element={<Car />} />
          <Route path="bay" element={<Bay />} />
          <Route path="bay-sheet" element={<BaySheet />} />
          <Route path="bench" element={<Bench />} />
          <Route path="motion" element={<Motion />} />
          <Route path="rack" element={<Rack />} />
          <Route path="brakes" element={<Brakes />} />
          <Route path="trial" element={<Trial />} />
          <Route path="trial-sheet" element={<TrialSheet />} />
          <Route path="road" element={<RoadTrack />} />
          <Route path="compare" element={<Compare />} />
          <Route path="sheet" element={<PrintSheet />} />
        </Route>
        <Route path="/house" element={<House />} />
        <Route path="/house/clubs" element={<Clubs />} />
        <Route path="*" element={<NotThere what="page" />} />
      </Routes>
    </Suspense>
  );
}

/** A sheet of its own for each job: nothing of one job's state may reach another's. */
function KeyedJob() {
  const { id } = useParams();
  const number = Number(id);
  return Number.isSafeInteger(number) && number > 0 ? (
    <JobSheet key={number} id={number} />
  ) : (
    <NotThere what="job" />
  );
}
