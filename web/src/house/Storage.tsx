import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { answer, api, type Schemas } from "../api/client";
import { keys } from "../api/keys";
import { useDeed } from "../shared/useDeed";

type Removal = Schemas["StorageRemoval"];

const size = (bytes: number) =>
  bytes < 1e6 ? `${Math.round(bytes / 1e3)}\u00a0kB` : `${(bytes / 1e6).toFixed(1)}\u00a0MB`;

/** What takes room in the shop's file; what nothing names any more can be removed for good. */
export function Storage() {
  const queries = useQueryClient();
  const { data } = useQuery({
    queryKey: keys.storage(),
    queryFn: () => answer(api.GET("/api/v1/house/storage")),
  });
  const [asked, setAsked] = useState<keyof Removal | null>(null);
  const { run, says, isBusy } = useDeed();
  if (!data) return null;
  const remove = (what: keyof Removal) => {
    setAsked(null);
    run(async () => {
      const left = await answer(api.POST("/api/v1/house/storage/remove", { body: { [what]: true } }));
      queries.setQueryData(keys.storage(), left);
      return `Removed. The file has ${size(left.file_bytes)} now.`;
    });
  };
  const { unnamed_photos: photos, list_files: files, undone_changes: undone } = data;
  const rows: [keyof Removal, string, number, number][] = [
    [
      "unnamed_photos",
      photos.count === 1 ? "photo that no trial names" : "photos that no trial names",
      photos.count,
      photos.bytes,
    ],
    [
      "list_files",
      files.count === 1 ? "file of a price list; its rows stay" : "files of price lists; their rows stay",
      files.count,
      files.bytes + undone.bytes,
    ],
  ];
  return (
    <section aria-label="Room in the shop's file">
      <h2 className="label-small font-semibold">Room in the shop's file</h2>
      <p className="text-small">
        {size(data.file_bytes)} in all
        {data.photos.count > 0 && `, ${size(data.photos.bytes)} of it in ${data.photos.count} photos`}. A copy
        of this one file, made while the program is stopped, is a backup of everything.
      </p>
      {rows.map(([what, words, count, bytes]) => (
        <p key={what} className="rule flex items-center gap-2 py-0.5 text-body" data-storage={what}>
          <span className="min-w-0 flex-1">
            {count} {words}: {size(bytes)}
          </span>
          {asked === what ? (
            <>
              <button type="button" className="plain-button text-error" onClick={() => remove(what)}>
                Remove for good
              </button>
              <button type="button" className="plain-button" onClick={() => setAsked(null)}>
                Keep
              </button>
            </>
          ) : (
            <button
              type="button"
              className="plain-button"
              disabled={count === 0}
              onClick={() => setAsked(what)}
            >
              Remove…
            </button>
          )}
        </p>
      ))}
      <output className="text-small">{isBusy ? "Removing…" : says}</output>
    </section>
  );
}
