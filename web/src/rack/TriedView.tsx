import type { Schemas } from "../api/client";

import { SampleRows } from "./SampleRows";
import { WhereItBegins } from "./WhereItBegins";
import { WhichColumn } from "./WhichColumn";

type Tried = Schemas["TriedList"];
type Props = { tried: Tried; onMap: (mapping: Record<string, string>) => void };

/** What taking the list would do: counts, what must be said first, where it begins, faults, columns, and how it was read. */
export function TriedView({ tried, onMap }: Props) {
  const say = (code: string, value: string) => onMap({ ...tried.mapping, [code]: value });
  /** Columns go by their headings: another heading row or sheet has others, and they are recognised anew. */
  const sayPlace = (code: string, value: string) => {
    const said = Object.entries(tried.mapping).filter(([name]) => name.startsWith("@"));
    onMap({ ...Object.fromEntries(said), [code]: value });
  };
  return (
    <div className="border-accent mt-2 border px-3 py-2" data-tried={tried.list.id}>
      <p className="font-semibold">
        {tried.new} new, {tried.changed} changed, {tried.unchanged} unchanged, {tried.faulty} at fault
      </p>
      {tried.questions.map((question) => (
        <fieldset
          key={question.code}
          className="alert caution alert-warning mt-1 text-body"
          data-question={question.code}
        >
          <legend className="float-left w-full font-medium">{question.asks}</legend>
          <div className="clear-both flex flex-wrap gap-1">
            {question.choices.map((choice) => (
              <button
                key={choice.code}
                type="button"
                className="btn btn-sm"
                onClick={() => say(question.code, choice.code)}
              >
                {choice.name}
              </button>
            ))}
          </div>
          <p className="text-note">Asked once; remembered for {tried.list.supplier}.</p>
        </fieldset>
      ))}
      {tried.notes.map((note) => (
        <p key={note} className="text-small">
          {note}
        </p>
      ))}
      <WhereItBegins tried={tried} onSay={sayPlace} />
      <details open={tried.faulty > 0} className="text-small">
        <summary className="cursor-pointer">rows at fault</summary>
        <ul className="max-h-[150px] overflow-y-auto">
          {tried.faults.map((fault) => (
            <li key={`${fault.row}-${fault.field}`}>
              row {fault.row}: {fault.says}
            </li>
          ))}
        </ul>
      </details>
      <WhichColumn tried={tried} onMap={onMap} onSay={say} />
      {tried.sample.length > 0 && <SampleRows tried={tried} />}
    </div>
  );
}
