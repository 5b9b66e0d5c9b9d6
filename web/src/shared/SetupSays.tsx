import type { LineView } from "../api/client";
import { Fault } from "./Caution";

const NAMES: Partial<Record<LineView["stretches"][number]["kind"], string>> = {
  wheel: "wheel",
  offset: "offset",
  backspacing: "backspacing",
  bolt_circle: "bolt circle",
  center_bore: "bore",
  center_lock: "center lock",
  tire: "tire",
  service: "load, speed",
  spacer: "spacer",
  date_code: "date code",
  axle: "axle",
};

type Props = {
  id: string;
  /** How the text reads; null while that is on its way. */
  current: LineView | null;
  fault: LineView["stretches"][number] | undefined;
  question: LineView["ask"][number] | false | undefined;
  trouble: string;
  onChoose: (choice: string) => void;
};

/** What is said of a line while it is typed: its question with the answers to press, its fault, or what was recognised. */
export function SetupSays({ id, current, fault, question, trouble, onChoose }: Props) {
  const aside =
    current?.stretches.filter((stretch) => stretch.kind === "left_aside").map((stretch) => stretch.text) ??
    [];
  return (
    <div className="mt-0.5 min-h-[20px] pl-[60px] text-small">
      {fault && question ? (
        <p id={id} role="alert" className="flex flex-wrap items-center gap-x-2 gap-y-1">
          <span>
            <strong>{question.text}</strong> {question.question}
          </span>
          {question.choices.map((choice) => (
            <button
              key={choice}
              type="button"
              className="plain-button px-2"
              onMouseDown={(event) => event.preventDefault()}
              onClick={() => onChoose(choice)}
            >
              {choice}
            </button>
          ))}
        </p>
      ) : fault ? (
        <Fault id={id}>
          <strong>{fault.text.trim()}</strong> {fault.problem}.{" "}
          {fault.example && <span className="opacity-90">Write it as in {fault.example}.</span>}
        </Fault>
      ) : trouble ? (
        <Fault id={id}>{trouble}</Fault>
      ) : current ? (
        <p className="opacity-80">
          {current.stretches
            .filter((stretch) => NAMES[stretch.kind])
            .map((stretch) => `${NAMES[stretch.kind]} ${stretch.text.trim()}`)
            .join(" · ")}
          {aside.length > 0 && ` — left aside: ${aside.join(" ")}`}
        </p>
      ) : null}
    </div>
  );
}
