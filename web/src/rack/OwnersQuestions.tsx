import type { Schemas } from "../api/client";

type Props = {
  questions: Schemas["QuestionView"][];
  answered: string[];
  onAnswer: (answered: string[]) => void;
};

/** What is gone through with the owner before tires stickier than the factory's are ordered. */
export function OwnersQuestions({ questions, answered, onAnswer }: Props) {
  const left = questions.filter((one) => !answered.includes(one.code)).length;
  const tick = (code: string, is: boolean) =>
    onAnswer(is ? [...answered, code].sort() : answered.filter((one) => one !== code));
  return (
    <fieldset className="alert caution alert-warning mt-2 text-body" data-questions={left}>
      <legend className="float-left w-full font-semibold">
        Stickier than the factory's tires: go through these with the owner
        {left === 0 && " · done"}
      </legend>
      {questions.map((one) => (
        <label key={one.code} className="clear-both flex items-baseline gap-2">
          <input
            type="checkbox"
            checked={answered.includes(one.code)}
            onChange={(event) => tick(one.code, event.target.checked)}
          />
          {one.asks}
        </label>
      ))}
    </fieldset>
  );
}
