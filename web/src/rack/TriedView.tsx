import { useState } from "react";
import type { Schemas } from "../api/client";

type Tried = Schemas["TriedList"];
type Props = { tried: Tried; onMap: (mapping: Record<string, string>) => void };

/** What taking the list would do: counts, what must be said first, where it begins, faults, columns, and how it was read. */
export function TriedView({ tried, onMap }: Props) {
  const sound = tried.new + tried.changed + tried.unchanged;
  // Open while no row can be read, and then as the hand leaves it.
  const [showsColumns, setShowsColumns] = useState(sound === 0);
  const [showsTop, setShowsTop] = useState(sound === 0);
  const say = (code: string, value: string) => onMap({ ...tried.mapping, [code]: value });
  /** Columns go by their headings: another heading row or sheet has others, and they are recognised anew. */
  const sayPlace = (code: string, value: string) => {
    const said = Object.entries(tried.mapping).filter(([name]) => name.startsWith("@"));
    onMap({ ...Object.fromEntries(said), [code]: value });
  };
  const columns = tried.fields.filter((field) => tried.sample.some((row) => row[field.code]));
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
      <details
        className="text-small"
        open={showsTop}
        onToggle={(event) => setShowsTop(event.currentTarget.open)}
      >
        <summary className="cursor-pointer">where the list begins: row {tried.header_row}</summary>
        {tried.sheets.length > 1 && (
          <label className="flex items-center gap-2 py-1">
            sheet
            <select
              className="bg-base-200 h-[28px] px-1"
              value={tried.sheet}
              onChange={(event) => sayPlace("@sheet", event.target.value)}
            >
              {tried.sheets.map((name, at) => (
                <option key={name} value={at + 1}>
                  {name}
                </option>
              ))}
            </select>
          </label>
        )}
        <div className="overflow-x-auto">
          <table className="text-note">
            <tbody>
              {tried.top.map((line) => (
                <tr
                  key={line.row}
                  className={line.row === tried.header_row ? "bg-accent/15 font-semibold" : ""}
                >
                  <td className="pr-1">
                    <button
                      type="button"
                      className="plain-button px-1 py-0"
                      disabled={line.row === tried.header_row}
                      aria-label={`Row ${line.row} is the heading`}
                      onClick={() => sayPlace("@header_row", String(line.row))}
                    >
                      {line.row}
                    </button>
                  </td>
                  {line.cells.slice(0, 12).map((cell, at) => (
                    // biome-ignore lint/suspicious/noArrayIndexKey: a line's cells have no name but their column
                    <td key={at} className="max-w-[110px] truncate pr-2">
                      {cell}
                    </td>
                  ))}
                </tr>
              ))}
            </tbody>
          </table>
        </div>
        <p>Press the number of the row with the headings.</p>
      </details>
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
      <details
        className="text-small"
        open={showsColumns}
        onToggle={(event) => setShowsColumns(event.currentTarget.open)}
      >
        <summary className="cursor-pointer">which column means what</summary>
        <div className="grid grid-cols-2 gap-x-3">
          {tried.fields.map((field) => (
            <label key={field.code} className="flex items-center justify-between gap-2">
              <span className="truncate">{field.title}</span>
              <select
                className="bg-base-200 h-[26px] w-[110px] px-1"
                value={tried.mapping[field.code] ?? ""}
                onChange={(event) => {
                  const { [field.code]: _, ...others } = tried.mapping;
                  onMap(event.target.value ? { ...others, [field.code]: event.target.value } : others);
                }}
              >
                <option value="">–</option>
                {tried.header.map((heading) => (
                  <option key={heading}>{heading}</option>
                ))}
              </select>
            </label>
          ))}
          <label className="flex items-center justify-between gap-2">
            <span className="truncate">loads and masses in</span>
            <select
              className="bg-base-200 h-[26px] w-[110px] px-1"
              value={tried.mapping["@load_unit"] ?? ""}
              onChange={(event) => say("@load_unit", event.target.value)}
            >
              <option value="">as the list says</option>
              <option value="kg">kilograms</option>
              <option value="lb">pounds</option>
            </select>
          </label>
        </div>
      </details>
      {tried.sample.length > 0 && (
        <div className="mt-1 overflow-x-auto">
          <p className="text-note">The first rows as they were read:</p>
          <table className="text-note" data-sample>
            <thead>
              <tr>
                {columns.map((field) => (
                  <th key={field.code} scope="col" className="pr-3 text-left font-semibold whitespace-nowrap">
                    {field.title}
                  </th>
                ))}
              </tr>
            </thead>
            <tbody>
              {tried.sample.map((row, at) => (
                // biome-ignore lint/suspicious/noArrayIndexKey: the sample is read anew as a whole
                <tr key={at}>
                  {columns.map((field) => (
                    <td key={field.code} className="pr-3 whitespace-nowrap">
                      {row[field.code]}
                    </td>
                  ))}
                </tr>
              ))}
            </tbody>
          </table>
        </div>
      )}
    </div>
  );
}
