import { Navigate, Route, Routes, useParams } from "react-router";
import { Bay } from "../bay/Bay";
import { BaySheet } from "../bay/BaySheet";
import { Bench } from "../bench/Bench";
import { Brakes } from "../brakes/Brakes";
import { Car } from "../car/Car";
import { Compare } from "../compare/Compare";
import { Counter } from "../counter/Counter";
import { Clubs } from "../house/Clubs";
import { House } from "../house/House";
import { JobSheet } from "../job/JobSheet";
import { Motion } from "../motion/Motion";
import { PrintSheet } from "../print/PrintSheet";
import { Rack } from "../rack/Rack";
import { RoadTrack } from "../road/RoadTrack";
import { Trial } from "../trial/Trial";
import { TrialSheet } from "../trial/TrialSheet";
import { NotThere } from "./NotThere";

/** Every place in the program has its own address. */
export function Pages() {
  return (
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
