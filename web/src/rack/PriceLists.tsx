import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useEffect, useRef, useState } from "react";
import { Away, answer, api, matching, type Schemas } from "../api/client";
import { useFileId } from "../api/file";
import { keys } from "../api/keys";
import { keyed, saidBy, upload } from "../api/upload";
import { FileButton } from "../shared/FileButton";
import { useDeed } from "../shared/useDeed";
import { useDraft } from "../shared/useDraft";
import { TriedView } from "./TriedView";

type Tried = Schemas["TriedList"];
type List = Schemas["ListView"];
type Open = { id: number; mapping: Record<string, string> };

/** Bringing a price list: tried first, with every row at fault named; then taken, and undone if it must be. */
export function PriceLists({ kind }: { kind: "wheels" | "tires" }) {
  const queries = useQueryClient();
  const file = useFileId();
  const [supplier, setSupplier] = useDraft(file, "price-list.supplier", "");
  // What was tried and not yet taken is tried again after another screen: its columns are as they were put.
  const [open, setOpen] = useDraft<Open | null>(file, `price-list.${kind}`, null);
  const [tried, put] = useState<Tried | null>(null);
  const setTried = (next: Tried | null) => {
    put(next);
    setOpen(next && { id: next.list.id, mapping: next.mapping });
  };
  const deed = useDeed(null, (error) =>
    error instanceof Away ? `${error.message} Try again.` : saidBy(error),
  );
  const { says, isBusy } = deed;
  const [allOrNothing, setAllOrNothing] = useState(false);
  const [ticket, setTicket] = useState<string | null>(null);
  // A list whose file is about to be removed for good.
  const [asked, setAsked] = useState<number | null>(null);
  const lists = useQuery({
    queryKey: keys.allPriceLists(),
    queryFn: () => answer(api.GET("/api/v1/catalogue/lists")),
  });
  /** Runs something that takes its time, with a ticket by which its progress is asked for meanwhile. */
  const run = (work: (ticket: string) => Promise<unknown>) => {
    const drawn = crypto.randomUUID();
    setTicket(drawn);
    deed.run(() => work(drawn));
  };
  const refresh = async () => {
    await queries.invalidateQueries({ queryKey: keys.allCatalogue() });
    await queries.invalidateQueries({ queryKey: keys.allPriceLists() });
  };
  const bring = (file: File) =>
    run(async (ticket) => {
      const query = new URLSearchParams({ kind, supplier, file_name: file.name, ticket });
      setTried(await upload<Tried>(`/api/v1/catalogue/lists?${query}`, file));
      await refresh();
    });
  const again = (id: number, mapping: Record<string, string>) =>
    run(async (ticket) => {
      const path = { id };
      setTried(
        await answer(
          api.POST("/api/v1/catalogue/lists/{id}/try", {
            params: { path },
            body: { mapping, all_or_nothing: false, ticket },
          }),
        ),
      );
    });
  const takenUp = useRef(false);
  // biome-ignore lint/correctness/useExhaustiveDependencies: once, when the screen is come back to
  useEffect(() => {
    if (takenUp.current || !open || tried) return;
    takenUp.current = true;
    again(open.id, open.mapping);
  }, []);
  const take = () =>
    run(async (ticket) => {
      if (!tried) return undefined;
      const taken = await answer(
        api.POST("/api/v1/catalogue/lists/{id}/take", {
          params: { path: { id: tried.list.id }, header: keyed() },
          headers: matching(tried.list),
          body: { mapping: tried.mapping, all_or_nothing: allOrNothing, ticket },
        }),
      );
      setTried(null);
      await refresh();
      return `Taken: ${taken.new} new, ${taken.changed} changed, ${taken.unchanged} as they were.`;
    });
  const undo = (list: List) =>
    run(async () => {
      const params = { path: { id: list.id } };
      const undone = await answer(
        api.POST("/api/v1/catalogue/lists/{id}/undo", { params, headers: matching(list) }),
      );
      await refresh();
      return `Undone: ${undone.back} rows went back${undone.left ? `, ${undone.left} were changed since and stay` : ""}.`;
    });
  const removeFile = (of: List) =>
    run(async () => {
      const params = { path: { id: of.id } };
      const list = await answer(
        api.DELETE("/api/v1/catalogue/lists/{id}/file", { params, headers: matching(of) }),
      );
      setAsked(null);
      await refresh();
      return `The file of ${list.supplier} is removed. What was taken of it stays.`;
    });
  return (
    <section className="shrink-0 text-body min-[1000px]:w-[430px]" aria-label="Price lists">
      <h2 className="label-small font-semibold">Bring a price list of {kind}</h2>
      <div className="mt-1 flex flex-wrap items-center gap-2">
        <input
          className="bg-base-200 h-[32px] w-[180px] px-2"
          aria-label="Supplier"
          placeholder="whose list is it?"
          value={supplier}
          maxLength={80}
          onChange={(event) => setSupplier(event.target.value)}
        />
        <FileButton
          text="Choose the file"
          label="Price list file"
          accept=".csv,.txt,.xlsx,.json"
          disabled={isBusy || !supplier.trim()}
          onFile={bring}
        />
      </div>
      <p className="text-note opacity-85">
        CSV, XLSX or JSON. It is tried first; which column means what is remembered for the supplier.
      </p>
      {isBusy && ticket && <ListProgress ticket={ticket} />}
      {says && (
        <p role="status" className="mt-1" data-says>
          {says}
        </p>
      )}
      {tried && <TriedView tried={tried} onMap={(mapping) => again(tried.list.id, mapping)} />}
      {tried && (
        <div className="mt-2 flex items-center gap-3">
          <button
            type="button"
            className="btn btn-primary btn-sm"
            disabled={
              isBusy || tried.questions.length > 0 || tried.new + tried.changed + tried.unchanged === 0
            }
            onClick={take}
          >
            Take {tried.new + tried.changed} rows
          </button>
          <label className="flex items-center gap-1 text-small">
            <input
              type="checkbox"
              checked={allOrNothing}
              onChange={(event) => setAllOrNothing(event.target.checked)}
            />
            all or nothing
          </label>
          <button type="button" className="plain-button" onClick={() => setTried(null)}>
            Leave it
          </button>
        </div>
      )}
      <h2 className="label-small mt-4 font-semibold">Lists</h2>
      <ul>
        {lists.data?.map((list) => (
          <li key={list.id} className="rule flex items-center gap-2 py-1 text-small" data-list={list.id}>
            <span className="min-w-0 flex-1 truncate">
              {list.supplier}, {list.kind} · {list.file_name}
            </span>
            <span>
              {list.state === "taken"
                ? `${list.changed_rows} rows`
                : list.state === "undone"
                  ? "undone"
                  : "not taken"}
            </span>
            {list.state === "taken" && (
              <button
                type="button"
                className="plain-button py-0"
                disabled={isBusy}
                onClick={() => undo(list)}
              >
                Undo
              </button>
            )}
            {list.is_removed ? (
              <span className="opacity-85">file removed</span>
            ) : asked === list.id ? (
              <>
                <button
                  type="button"
                  className="plain-button text-error py-0"
                  disabled={isBusy}
                  onClick={() => removeFile(list)}
                >
                  Remove for good
                </button>
                <button type="button" className="plain-button py-0" onClick={() => setAsked(null)}>
                  Keep
                </button>
              </>
            ) : (
              <button
                type="button"
                className="plain-button py-0"
                title="The file as it came takes room; what was taken of it stays, and can still be undone."
                onClick={() => setAsked(list.id)}
              >
                Remove file…
              </button>
            )}
          </li>
        ))}
      </ul>
    </section>
  );
}

const STEPS = {
  waiting: "Sending the list",
  reading: "Reading its rows",
  comparing: "Comparing with what is known",
  writing: "Writing",
} as const;

/** How far a list under way has come, asked for four times a second. */
function ListProgress({ ticket }: { ticket: string }) {
  const query = useQuery({
    queryKey: keys.progress(ticket),
    queryFn: () => answer(api.GET("/api/v1/catalogue/progress/{ticket}", { params: { path: { ticket } } })),
    refetchInterval: 250,
    retry: false,
  });
  const { what, done, of } = query.data ?? { what: "waiting", done: 0, of: 0 };
  const says = STEPS[what as keyof typeof STEPS] ?? what;
  return (
    <p className="mt-1 text-small" role="status" data-progress={what}>
      {says}
      {of > 0 && `: ${done} of ${of}`}
      <progress
        className="progress w-full"
        aria-label={says}
        max={of > 0 ? of : undefined}
        value={of > 0 ? done : undefined}
      />
    </p>
  );
}
