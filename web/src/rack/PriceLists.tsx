import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useEffect, useRef, useState } from "react";
import { Away, answer, api, matching, type Schemas } from "../api/client";
import { useFileId } from "../api/file";
import { keys } from "../api/keys";
import { keyed, saidBy, upload } from "../api/upload";
import { FileButton } from "../shared/FileButton";
import { useDeed } from "../shared/useDeed";
import { useDraft } from "../shared/useDraft";
import { ListProgress } from "./ListProgress";
import { ListRow } from "./ListRow";
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
        <TakeBar
          tried={tried}
          isBusy={isBusy}
          allOrNothing={allOrNothing}
          onAllOrNothing={setAllOrNothing}
          onTake={take}
          onLeave={() => setTried(null)}
        />
      )}
      <h2 className="label-small mt-4 font-semibold">Lists</h2>
      <ul>
        {lists.data?.map((list) => (
          <ListRow
            key={list.id}
            list={list}
            isBusy={isBusy}
            isAsked={asked === list.id}
            onUndo={() => undo(list)}
            onAsk={(remove) => setAsked(remove ? list.id : null)}
            onRemove={() => removeFile(list)}
          />
        ))}
      </ul>
    </section>
  );
}

type TakeBarProps = {
  tried: Tried;
  isBusy: boolean;
  allOrNothing: boolean;
  onAllOrNothing: (is: boolean) => void;
  onTake: () => void;
  onLeave: () => void;
};

/** A list that was tried is taken, or left. */
function TakeBar({ tried, isBusy, allOrNothing, onAllOrNothing, onTake, onLeave }: TakeBarProps) {
  return (
    <div className="mt-2 flex items-center gap-3">
      <button
        type="button"
        className="btn btn-primary btn-sm"
        disabled={isBusy || tried.questions.length > 0 || tried.new + tried.changed + tried.unchanged === 0}
        onClick={onTake}
      >
        Take {tried.new + tried.changed} rows
      </button>
      <label className="flex items-center gap-1 text-small">
        <input
          type="checkbox"
          checked={allOrNothing}
          onChange={(event) => onAllOrNothing(event.target.checked)}
        />
        all or nothing
      </label>
      <button type="button" className="plain-button" onClick={onLeave}>
        Leave it
      </button>
    </div>
  );
}
