import { type Axle, answer, api, type Schemas } from "../api/client";
import { newKey, upload } from "../api/upload";
import { signedBy } from "../job/unsaved";
import type { OpenJob } from "../job/useJob";
import { Fault } from "../shared/Caution";
import { Choice } from "../shared/Choice";
import { FileButton } from "../shared/FileButton";
import { useHouse, useRegistry } from "../shared/registry";
import { useDeed } from "../shared/useDeed";
import { useDraft } from "../shared/useDraft";
import { HowMuch } from "./HowMuch";
import { readyPhoto } from "./photo";

type TrialView = Schemas["TrialView"];
type Line = { name: string; line: string | null | undefined };
type Props = { open: OpenJob; onAdd: (trial: TrialView) => void };

const NO_PHOTOS: number[] = [];
const START = { contact: "none", gap: null as number | null, overlaps: false, note: "", next: "" };

/** One wheel tried on, in as few touches as it can be: what, where, how much, what next. */
export function TrialEntry({ open, onAdd }: Props) {
  const { content, id } = open;
  const registry = useRegistry();
  const house = useHouse();
  const whose = open.job.uid;
  const [axle, setAxle] = useDraft<Axle>(whose, "trial.axle", "front");
  const [side, setSide] = useDraft(whose, "trial.side", "left");
  const [setup, setSetup] = useDraft(whose, "trial.setup", "");
  const [steer, setSteer] = useDraft(whose, "trial.steer", "straight");
  const [isHanging, setHanging] = useDraft(whose, "trial.hanging", true);
  const [instrument, setInstrument] = useDraft(whose, "trial.instrument", "feeler");
  const [entry, setEntry] = useDraft(whose, "trial.entry", START);
  const [photos, setPhotos] = useDraft<number[]>(whose, "trial.photos", NO_PHOTOS);
  const { run, says: trouble } = useDeed("Keep this trial");
  const atHand = [
    { name: "the bench's", line: content.planned[axle] },
    ...content.candidates.map((one) => ({ name: one.letter, line: one.lines[axle] })),
  ].filter((one) => one.line);
  const plusMinus = house?.instruments.find((one) => one.code === instrument)?.plus_minus_mm ?? 1;
  const add = () =>
    run(async () => {
      const { contact, gap, overlaps, note, next } = entry;
      const trial: TrialView = {
        id: crypto.randomUUID(),
        axle,
        side,
        setup: setup.trim(),
        contact,
        gap_mm: contact === "none" || gap == null ? null : overlaps ? -Math.abs(gap) : gap,
        plus_minus_mm: plusMinus,
        instrument,
        steer,
        is_hanging: isHanging,
        note,
        next_step: next,
        photos,
        who: signedBy(),
        at: new Date().toISOString(),
      };
      if (!trial.setup) return "Say what was tried, as in 17x8 ET40.";
      // The line is read before it is kept: a trial that cannot be placed says nothing.
      const planned = { [axle]: trial.setup };
      await answer(api.POST("/api/v1/bench", { body: { fitted: {}, planned, adjust: [] } }));
      onAdd(trial);
      setEntry(START);
      setPhotos([]);
    });
  const photo = (file: File) =>
    run(async () => {
      const kept = await upload<Schemas["PhotoView"]>(
        `/api/v1/jobs/${id}/photos`,
        await readyPhoto(file),
        newKey(),
        open.job,
      );
      setPhotos((before) => [...before, kept.id]);
    });
  return (
    <form
      className="border-base-300 flex shrink-0 flex-col gap-2 overflow-y-auto border-b px-3 py-2 text-body min-[1000px]:w-[330px] min-[1000px]:border-r min-[1000px]:border-b-0"
      aria-label="A wheel tried on"
      onSubmit={(event) => {
        event.preventDefault();
        add();
      }}
    >
      <WhichCorner axle={axle} side={side} onAxle={setAxle} onSide={setSide} />
      <label>
        <span className="label-small block">What was tried; without a tire the bare wheel</span>
        <input
          className="bg-base-200 h-[44px] w-full px-2"
          value={setup}
          placeholder="17x8 ET40"
          onChange={(event) => setSetup(event.target.value)}
        />
      </label>
      {atHand.length > 0 && <AtHand lines={atHand} onPick={setSetup} />}
      <Choice
        tall
        label="What it met"
        value={entry.contact}
        options={(registry?.contacts ?? []).map((one) => [one.code, one.name] as const)}
        onPick={(contact) => setEntry({ ...entry, contact })}
      />
      {entry.contact !== "none" && (
        <HowMuch
          gap={entry.gap}
          overlaps={entry.overlaps}
          onChange={(change) => setEntry({ ...entry, ...change })}
          instrument={instrument}
          onInstrument={setInstrument}
        />
      )}
      <div className="grid grid-cols-2 gap-2">
        <Choice
          tall
          label="Wheels"
          value={steer}
          options={[
            ["straight", "straight"],
            ["lock_left", "at left lock"],
            ["lock_right", "at right lock"],
          ]}
          onPick={setSteer}
        />
        <Choice
          tall
          label="Car"
          value={isHanging ? "hanging" : "ground"}
          options={[
            ["hanging", "wheel hanging"],
            ["ground", "on the ground"],
          ]}
          onPick={(one) => setHanging(one === "hanging")}
        />
      </div>
      <Words label="What was seen" value={entry.note} onPut={(note) => setEntry({ ...entry, note })} />
      <Words label="What next" value={entry.next} onPut={(next) => setEntry({ ...entry, next })} />
      <FileButton
        text={photos.length > 0 ? `${photos.length} photos` : "Attach a photo"}
        label="Photo"
        accept="image/jpeg,image/png,image/webp,image/heic,image/heif"
        className="border-base-300 flex min-h-[44px] items-center border"
        onFile={photo}
      />
      {trouble && <Fault>{trouble}</Fault>}
      <button type="submit" className="btn btn-primary min-h-[44px]">
        Keep this trial
      </button>
    </form>
  );
}

/** Setups at hand, to be tried. */
function AtHand({ lines, onPick }: { lines: Line[]; onPick: (line: string) => void }) {
  return (
    <p className="flex flex-wrap gap-1 text-small">
      {lines.map((one) => (
        <button
          key={one.name}
          type="button"
          className="plain-button border-base-300 min-h-[36px] border"
          title={one.line ?? ""}
          onClick={() => onPick(one.line ?? "")}
        >
          {one.name}
        </button>
      ))}
    </p>
  );
}

/** A sentence of the trial. */
function Words({ label, value, onPut }: { label: string; value: string; onPut: (text: string) => void }) {
  return (
    <label>
      <span className="label-small block">{label}</span>
      <input
        className="bg-base-200 h-[44px] w-full px-2"
        value={value}
        maxLength={400}
        onChange={(event) => onPut(event.target.value)}
      />
    </label>
  );
}

type WhichCornerProps = {
  axle: Axle;
  side: string;
  onAxle: (axle: Axle) => void;
  onSide: (side: string) => void;
};

/** On which corner of the car. */
function WhichCorner({ axle, side, onAxle, onSide }: WhichCornerProps) {
  return (
    <div className="grid grid-cols-2 gap-2">
      <Choice
        tall
        label="Axle"
        value={axle}
        options={[
          ["front", "front"],
          ["rear", "rear"],
        ]}
        onPick={(one) => onAxle(one as Axle)}
      />
      <Choice
        tall
        label="Side"
        value={side}
        options={[
          ["left", "left"],
          ["right", "right"],
        ]}
        onPick={onSide}
      />
    </div>
  );
}
