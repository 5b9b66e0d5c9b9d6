import { useCallback, useEffect, useRef, useState } from "react";
import { answer, api, type Bench, type Lines, Refused, type Schemas, type Step } from "../api/client";
import { same } from "../job/content";
import { withBrief } from "./brief";

/** The plan with the job whose readings it is held against; `readings` changes when they do. */
export type Plan = Omit<Schemas["BenchRequest"], "adjust"> & { readings?: string };

/**
 * The plan as the program draws and judges it, and steps of the hand on it.
 *
 * One question is under way at a time; what changes meanwhile goes into the next one, so that a drag never
 * queues. Steps are taken by the program: the page computes nothing of the trade.
 */
export function useBench(plan: Plan, onPlanned: (planned: Lines) => void) {
  const [bench, setBench] = useState<Bench | null>(null);
  const [trouble, setTrouble] = useState("");
  const state = useRef({
    plan,
    asked: null as Plan | null,
    /** While a hand pulls: only what moves is asked for, and what of it was answered last. */
    isPulled: false,
    pulled: null as Plan | null,
    whole: null as Bench | null,
    /** The plan on which a step was refused: why is said until the next step or another plan. */
    refused: null as Plan | null,
    steps: [] as Step[],
    busy: false,
    gone: false,
    timer: 0,
  });
  const planned = useRef(onPlanned);
  planned.current = onPlanned;

  const run = useCallback(async () => {
    const now = state.current;
    if (now.busy || now.gone) return;
    if (now.steps.length === 0 && now.asked && same(now.asked, now.plan)) return;
    const isBrief = now.isPulled && now.steps.length === 0 && now.whole !== null;
    if (isBrief && now.pulled && same(now.pulled, now.plan)) return;
    const steps = now.steps;
    const question = now.plan;
    now.steps = [];
    now.busy = true;
    try {
      const { readings: _, ...body } = question;
      if (isBrief && now.whole) {
        const moved = await answer(api.POST("/api/v1/bench/brief", { body: { ...body, adjust: [] } }));
        now.busy = false;
        const merged = withBrief(now.whole, moved);
        now.pulled = question;
        // More than figures changed: the whole is asked, once.
        if (merged) {
          now.asked = null;
          setBench(merged);
        } else now.isPulled = false;
        void run();
        return;
      }
      const answered = await answer(api.POST("/api/v1/bench", { body: { ...body, adjust: steps } }));
      now.busy = false;
      now.asked = { ...question, planned: answered.planned };
      now.whole = answered;
      setBench(answered);
      const isStillRefused =
        steps.length === 0 &&
        now.refused &&
        same({ ...now.refused, readings: "" }, { ...question, readings: "" });
      if (!isStillRefused) {
        now.refused = null;
        setTrouble("");
      }
      if (steps.length > 0 && same(now.plan.planned, question.planned)) {
        now.plan = { ...now.plan, planned: answered.planned };
        planned.current(answered.planned);
      }
      void run();
    } catch (error) {
      now.busy = false;
      if (error instanceof Refused) {
        setTrouble(error.message);
        // A plan that was refused is not asked again; a step that cannot be taken is dropped, the plan stays.
        if (steps.length === 0) now.asked = question;
        else now.refused = question;
        void run();
      } else {
        now.steps = [...steps, ...now.steps];
        setTrouble("The program does not answer. Your steps are kept; trying again.");
        window.clearTimeout(now.timer);
        now.timer = window.setTimeout(run, 1500);
      }
    }
  }, []);

  useEffect(() => {
    state.current.plan = plan;
    state.current.isPulled = false;
    void run();
  }, [plan, run]);
  useEffect(() => {
    const now = state.current;
    now.gone = false;
    void run();
    return () => {
      now.gone = true;
      window.clearTimeout(now.timer);
    };
  }, [run]);

  const take = useCallback(
    (steps: Step[]) => {
      state.current.steps.push(...steps);
      void run();
    },
    [run],
  );
  /** Tries a change without keeping it: what the hand pulls, until it lets go. */
  const attempt = useCallback(
    (change: Partial<Plan>) => {
      state.current.plan = { ...state.current.plan, ...change };
      state.current.isPulled = true;
      void run();
    },
    [run],
  );
  return { bench, trouble, take, attempt };
}
