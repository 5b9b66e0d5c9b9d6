import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { answer, api } from "../api/client";
import { keys } from "../api/keys";
import { PriceLists } from "./PriceLists";

/** Columns that are shown first; the rest follows in the order it is exported. */
const HIDDEN = ["article"];

/** What can be ordered, and the price lists it came from. */
export function Catalogue() {
  const [kind, setKind] = useState<"wheels" | "tires">("wheels");
  const [find, setFind] = useState("");
  const query = useQuery({
    queryKey: keys.catalogue(kind, find),
    queryFn: () => answer(api.GET("/api/v1/catalogue/rows", { params: { query: { kind, find } } })),
    placeholderData: (before) => before,
  });
  const rows = query.data?.rows ?? [];
  const columns = (query.data?.fields ?? []).filter(
    (field) => !HIDDEN.includes(field.code) && rows.some((row) => row.fields[field.code]),
  );
  return (
    <div className="flex min-h-0 flex-1 flex-col overflow-y-auto px-4 py-2 min-[1000px]:flex-row min-[1000px]:gap-6">
      <section className="min-w-0 flex-1" aria-label="Catalogue">
        <div className="flex flex-wrap items-center gap-3 text-body">
          <select
            className="bg-base-200 h-[32px] px-2"
            aria-label="Wheels or tires"
            value={kind}
            onChange={(event) => setKind(event.target.value as "wheels" | "tires")}
          >
            <option value="wheels">Wheels</option>
            <option value="tires">Tires</option>
          </select>
          <input
            type="search"
            className="input input-sm w-[220px] text-body"
            aria-label="Find in the catalogue"
            placeholder="line, size, finish"
            value={find}
            onChange={(event) => setFind(event.target.value)}
          />
          <span data-total={query.data?.total}>{query.data ? `${query.data.total} rows` : ""}</span>
          <span className="ml-auto flex items-center gap-1 text-small">
            Take along as
            {["csv", "xlsx", "json"].map((format) => (
              <a
                key={format}
                className="plain-button"
                href={`/api/v1/catalogue/export?kind=${kind}&format=${format}`}
                download
              >
                {format.toUpperCase()}
              </a>
            ))}
          </span>
        </div>
        {query.data && rows.length === 0 ? (
          <p className="mt-3 text-body">
            {find ? "No row has all of these words." : "Nothing can be ordered yet: bring a price list."}
          </p>
        ) : (
          <div className="mt-1 overflow-x-auto">
            <table className="w-full text-small">
              <thead>
                <tr className="text-left text-note">
                  {columns.map((field) => (
                    <th key={field.code} className="pr-3 font-normal">
                      {field.title}
                    </th>
                  ))}
                  <th className="font-normal">from</th>
                </tr>
              </thead>
              <tbody>
                {rows.map((row) => (
                  <tr key={row.id} className="rule">
                    {columns.map((field) => (
                      <td key={field.code} className="pr-3 whitespace-nowrap">
                        {(row.fields[field.code] ?? "").replaceAll("_", " ")}
                      </td>
                    ))}
                    <td className="whitespace-nowrap">{row.supplier}</td>
                  </tr>
                ))}
              </tbody>
            </table>
          </div>
        )}
        {query.data && query.data.total > rows.length && (
          <p className="mt-1 text-small">The first {rows.length} are shown: type more words.</p>
        )}
      </section>
      <PriceLists kind={kind} />
    </div>
  );
}
