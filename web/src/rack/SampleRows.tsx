import type { Schemas } from "../api/client";

/** The first rows of a list as they were read. */
export function SampleRows({ tried }: { tried: Schemas["TriedList"] }) {
  const columns = tried.fields.filter((field) => tried.sample.some((row) => row[field.code]));
  return (
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
  );
}
