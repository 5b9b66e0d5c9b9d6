import createClient from "openapi-fetch";
import { fileId, isAnother, OF_FILE } from "./file";
import type { components, paths } from "./schema";

export type Schemas = components["schemas"];
export type Job = Schemas["JobView"];
export type JobSummary = Schemas["JobSummaryView"];
export type Lines = Schemas["Lines"];
export type Bench = Schemas["Bench"];
export type BenchAxle = Schemas["BenchAxle"];
export type Drawing = Schemas["Drawing"];
export type SetupView = Schemas["SetupView"];
export type LedgerLine = Schemas["LineOfLedger"];
export type Step = Schemas["Step"];
export type Problem = Schemas["Problem"];
export type Quantity = Schemas["QuantityView"];
export type Fragment = Schemas["FragmentView"];
export type LineView = Schemas["LineView"];
export type Column = Schemas["Column"];
export type SideBySide = Schemas["SideBySide"];
export type Standing = Schemas["StandingCode"];
export type Axle = Schemas["AxleCode"];
export type Stage = Schemas["StageCode"];
export type Drive = Schemas["DriveCode"];
export type AxleFit = Schemas["AxleFit"];
export type Clearance = Schemas["ClearanceView"];
export type Width = Schemas["WidthView"];
export type Measure = Schemas["MeasureView"];
export type Verdict = Schemas["VerdictCode"];
export type Registry = Schemas["Registry"];
export type House = Schemas["HouseView"];
export type Reading = Schemas["ReadingView"];
export type NewReading = Schemas["NewReading"];
export type Car = Schemas["CarView"];
export type Fact = Schemas["FactView"];
export type LeverAmount = Schemas["LeverAmount"];
export type Wanted = Schemas["WantedView"];
export type TireChoice = Schemas["TireChoiceCode"];

export const api = createClient<paths>({ baseUrl: "/" });
api.use({
  onRequest({ request }) {
    if (fileId()) request.headers.set(OF_FILE, fileId());
  },
});

/** Something with the state that it was answered in (`ETag`). */
export type InState<T> = { of: T; state: string };

/** What a call answered, with its state. */
export async function withState<T>(
  call: Promise<{ data?: T; error?: unknown; response: Response }>,
): Promise<InState<T>> {
  let state = "";
  const of = await answer(
    call.then((outcome) => {
      state = outcome.response.headers.get("etag") ?? "";
      return outcome;
    }),
  );
  return { of, state };
}

/** The header by which a change says which state it is for. */
export const ofState = (state: string | undefined) => (state ? { "if-match": state } : {});

/** A job in a revision, as the page has it. */
export type Tag = { uid: string; token: string };

/** The header by which a change says which very job, in which revision, it is for. */
export const matching = ({ uid, token }: Tag) => ({ "if-match": `"${uid}.${token}"` });

/** The program did not answer: it is stopped, the network is off, or it cannot take anything at this moment. */
export class Away extends Error {
  constructor(why = "The program does not answer.") {
    super(why);
  }
}

/** The program answered with a problem. */
export class Refused extends Error {
  readonly problem: Problem;
  constructor(problem: Problem) {
    super(problem.detail || problem.title);
    this.problem = problem;
  }
}

/** What a call of `api` answered, or why not: `Away` or `Refused`. */
export async function answer<T>(call: Promise<{ data?: T; error?: unknown }>): Promise<T> {
  let outcome: { data?: T; error?: unknown };
  try {
    outcome = await call;
  } catch {
    throw new Away();
  }
  if (outcome.error !== undefined) {
    const problem = outcome.error as Problem;
    // Busy, stopping, its file held: nothing was changed, and asking again may help.
    if (problem?.status === 503) throw new Away(problem.detail);
    if (problem?.type === "other-file") {
      // The page begins anew; what must not be lost is sent again, and then judged by its job and revision.
      isAnother();
      throw new Away(problem.detail);
    }
    // Something between us and the program may answer without a problem of ours.
    throw typeof problem === "object" && problem !== null && "title" in problem
      ? new Refused(problem)
      : new Away();
  }
  return outcome.data as T;
}
