import { useState } from "react";
import { useSearchParams } from "react-router";
import { type Axle, Refused } from "../api/client";
import { useSize } from "../drawing/useSize";
import { useSheet } from "../job/JobSheet";
import { Fault } from "../shared/Caution";
import { Tabs } from "../shared/Tabs";
import { Answer } from "./Answer";
import { AT_REST, Controls } from "./Controls";
import { LiftLadder } from "./LiftLadder";
import { MotionMap } from "./MotionMap";
import { ON_THE_ROAD, type Pose, type Usage, useMotion } from "./useMotion";
import { WheelViews } from "./WheelViews";

const BELOW = [
  { code: "map", name: "Steer and travel" },
  { code: "lift", name: "Taller tires and lift" },
] as const;

/** The plan turned and travelling past the parts that were read. */
export function Motion() {
  const { open } = useSheet();
  const { content } = open;
  const [asked, setAsked] = useSearchParams();
  const axle: Axle = asked.get("axle") === "rear" ? "rear" : "front";
  const below = asked.get("below") === "lift" ? "lift" : "map";
  const [usage, setUsage] = useState<Usage>(ON_THE_ROAD);
  const [pose, setPose] = useState<Pose>(AT_REST);
  const [marked, setMarked] = useState<string | null>(null);
  const { data: motion, error, isLoading } = useMotion(open, axle, usage);
  const [views, viewsSize] = useSize({ width: 780, height: 330 });
  const [map, mapSize] = useSize({ width: 780, height: 200 });
  const part = motion?.parts.find((one) => one.code === marked) ?? null;
  const show = (next: { axle?: Axle; below?: string }) =>
    setAsked({ axle, below, ...next }, { replace: true });
  return (
    <main className="flex min-h-0 flex-1 flex-col min-[1000px]:flex-row">
      <h1 className="sr-only">Motion: {content.car_label}</h1>
      <section className="flex min-h-0 min-w-0 flex-1 flex-col" aria-label="The wheel in motion">
        <Controls
          motion={motion}
          axle={axle}
          usage={usage}
          pose={pose}
          onAxle={(one) => {
            show({ axle: one });
            setPose(AT_REST);
            setMarked(null);
          }}
          onUsage={setUsage}
          onPose={setPose}
        />
        <Tabs
          label="What is shown"
          className="px-3"
          value={below}
          tabs={BELOW}
          onShow={(code) => show({ below: code })}
        />
        {below === "map" ? (
          <>
            <div ref={views} className="drawing min-h-[290px] flex-[3] overflow-hidden">
              {motion && (
                <WheelViews
                  motion={motion}
                  pose={pose}
                  marked={marked}
                  width={viewsSize.width}
                  height={Math.max(290, viewsSize.height)}
                  onPose={setPose}
                />
              )}
            </div>
            <div ref={map} className="drawing min-h-[190px] flex-[2] overflow-hidden">
              {motion && motion.parts.length > 0 && (
                <MotionMap
                  motion={motion}
                  part={part}
                  pose={pose}
                  width={mapSize.width}
                  height={Math.max(190, mapSize.height)}
                  onPose={setPose}
                />
              )}
            </div>
          </>
        ) : (
          // biome-ignore lint/a11y/noNoninteractiveTabindex: what scrolls must be reached by keyboard
          <section className="min-h-0 flex-1 overflow-auto" tabIndex={0} aria-label="Lift">
            <LiftLadder open={open} axle={axle} usage={usage} />
          </section>
        )}
      </section>
      <aside
        // biome-ignore lint/a11y/noNoninteractiveTabindex: what scrolls must be reached by keyboard
        tabIndex={0}
        aria-label="What it meets"
        className="border-base-300 min-h-0 shrink-0 overflow-y-auto border-t px-3 py-2 text-body min-[1000px]:w-[400px] min-[1000px]:border-t-0 min-[1000px]:border-l"
      >
        {error && (
          <Fault>
            {error instanceof Refused
              ? error.problem.errors[0]?.detail || error.message
              : "The program does not answer."}
          </Fault>
        )}
        {isLoading && (
          <p role="status" data-loading>
            Turning and lifting the wheel…
          </p>
        )}
        {!motion && !error && !isLoading && (
          <p>State wheel, offset and tire of this axle first, on the bench.</p>
        )}
        {motion && (
          <Answer
            open={open}
            axle={axle}
            usage={usage}
            motion={motion}
            pose={pose}
            marked={marked}
            onMark={setMarked}
            onPose={setPose}
          />
        )}
      </aside>
    </main>
  );
}
