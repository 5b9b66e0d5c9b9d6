/** Which sizes are shown. */
export type Wanted = {
  /** Null: the house's own limit, which the program takes. */
  band: number | null;
  listedOnly: boolean;
  stockedOnly: boolean;
  /** Null: any. */
  rim: number | null;
};

type Props = {
  asked: string;
  /** Null where both axles have one tire. */
  axle: "front" | "rear" | null;
  wanted: Wanted;
  rimCodes: number[];
  onTire: (tire: string) => void;
  onAxle: (axle: "front" | "rear") => void;
  onWant: (change: Partial<Wanted>) => void;
};

/** Round which tire, and how far from it. */
export function LadderAsk({ asked, axle, wanted, rimCodes, onTire, onAxle, onWant }: Props) {
  return (
    <>
      <label className="flex items-center gap-2">
        Round
        <input
          className="bg-base-200 h-[32px] w-[190px] px-2"
          aria-label="Tire the ladder stands round"
          value={asked}
          placeholder="225/45R17, or a height: 33"
          // Whoever comes to it means another one: what is typed takes its place.
          onFocus={(event) => event.target.select()}
          onChange={(event) => onTire(event.target.value)}
        />
      </label>
      {axle && (
        <select
          className="bg-base-200 h-[32px] px-2"
          aria-label="Axle"
          value={axle}
          onChange={(event) => onAxle(event.target.value as "front" | "rear")}
        >
          <option value="front">fitted in front</option>
          <option value="rear">fitted behind</option>
        </select>
      )}
      <label className="flex items-center gap-2">
        within
        <select
          className="bg-base-200 h-[32px] px-2"
          aria-label="Band of overall diameter"
          value={wanted.band ?? ""}
          onChange={(event) => onWant({ band: event.target.value ? Number(event.target.value) : null })}
        >
          <option value="">the house's limit</option>
          {[1, 2, 3, 5].map((pct) => (
            <option key={pct} value={pct}>
              ± {pct} %
            </option>
          ))}
        </select>
      </label>
      <label className="flex items-center gap-1">
        <input
          type="checkbox"
          checked={wanted.listedOnly}
          onChange={(event) => onWant({ listedOnly: event.target.checked })}
        />
        sizes that are made only
      </label>
      <label className="flex items-center gap-2">
        rim
        <select
          className="bg-base-200 h-[32px] px-2"
          aria-label="Only this rim"
          value={wanted.rim ?? ""}
          onChange={(event) => onWant({ rim: event.target.value ? Number(event.target.value) : null })}
        >
          <option value="">any</option>
          {rimCodes.map((code) => (
            <option key={code} value={code}>
              {code} in
            </option>
          ))}
        </select>
      </label>
      <label className="flex items-center gap-1">
        <input
          type="checkbox"
          checked={wanted.stockedOnly}
          onChange={(event) => onWant({ stockedOnly: event.target.checked })}
        />
        in the catalogue
      </label>
    </>
  );
}
