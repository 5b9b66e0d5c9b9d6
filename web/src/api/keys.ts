/**
 * What each answer of the program is kept under: the question, then whatever the answer hangs on. Two that begin alike are
 * forgotten together. Nobody writes a key elsewhere.
 */
export const keys = {
  registry: () => ["registry"],
  house: () => ["house"],
  storage: () => ["storage"],
  clubs: () => ["clubs"],
  gauge: () => ["gauge"],
  standing: (tags: unknown) => ["standing", tags],

  allJobs: () => ["jobs"],
  jobs: (find: string, putAway: boolean) => ["jobs", find, putAway],
  jobsToTakeInto: (find: string) => ["jobs", find, false, "to take over into"],
  cars: (find: string) => ["cars", find],
  job: (id: number) => ["job", id],

  allSideBySide: () => ["side-by-side"],
  sideBySideOf: (id: number) => ["side-by-side", id],
  sideBySide: (id: number, revision: number) => ["side-by-side", id, revision],
  looks: (id: number, revision: number, planned: unknown, levers: unknown) => [
    "looks",
    id,
    revision,
    planned,
    levers,
  ],
  likelihood: (id: number, revision: number, axle: string, part: unknown, planned: unknown) => [
    "likelihood",
    id,
    revision,
    axle,
    part,
    planned,
  ],

  /** What hangs on one plan of one axle: `plan` is its job, revision, axle, use and lines. */
  motion: (plan: unknown[]) => ["motion", ...plan],
  remedies: (plan: unknown[]) => ["remedies", ...plan],
  lift: (plan: unknown[]) => ["lift", ...plan],
  movingWindow: (plan: unknown[], tireChoice: string) => ["moving-window", ...plan, tireChoice],
  stretches: (id: number, revision: number, plans: unknown) => ["stretches", id, revision, plans],

  allPriceLists: () => ["price-lists"],
  progress: (ticket: unknown) => ["progress", ticket],
  allCatalogue: () => ["catalogue"],
  catalogue: (kind: string, find: string) => ["catalogue", kind, find],
  supply: (sets: unknown) => ["supply", JSON.stringify(sets)],
  tireOf: (line: unknown) => ["tire-of", line],
  ladder: (id: number, axle: string, asked: unknown, band: unknown) => ["ladder", id, axle, asked, band],
  allProven: () => ["proven"],
  proven: (job: number, revision: number, find: string) => ["proven", job, revision, find],

  allBrakes: () => ["brakes"],
  brakes: (id: number, revision: number, shown: unknown) => ["brakes", id, revision, shown],
  allBrakeWheels: () => ["brake-wheels"],
  brakeWheels: (id: number, axle: string, planned: unknown, templates: unknown) => [
    "brake-wheels",
    id,
    axle,
    planned,
    JSON.stringify(templates),
  ],
  trials: (id: number, revision: number) => ["trials", id, revision],

  allRoad: () => ["road"],
  road: (id: number, revision: number, sheet: unknown) => ["road", id, revision, sheet],
  nextStep: (id: number, revision: number, sheet: unknown) => ["next-step", id, revision, sheet],
  module: (id: number) => ["module", id],
};
