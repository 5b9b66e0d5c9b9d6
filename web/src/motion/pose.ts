/** Where the wheel's points are drawn in a pose. What a pose means for the car, the program has said. */
import type { Motion, Pose } from "./useMotion";

export type Place = [x: number, y: number, z: number];

/** From the wheel's own frame, upright, to the corner: leaned, turned about the axis, lifted. */
export function placing(motion: Motion, pose: Pose): (place: Place) => Place {
  return moving(motion, pose, motion.camber_deg);
}

/** Where a part goes that stands on the upright, from where it is at rest. */
export function carrying(motion: Motion, pose: Pose): (place: Place) => Place {
  return moving(motion, pose, 0);
}

function moving(motion: Motion, { steer, travel }: Pose, camberAtRest: number): (place: Place) => Place {
  const camber = radians(camberAtRest + motion.camber_gain_deg_per_mm * travel);
  const [sin, cos] = [Math.sin(camber), Math.cos(camber)];
  const turn = turning(motion, steer);
  return ([x, y, z]) => {
    const [a, b, c] = turn([x, y * cos + z * sin, z * cos - y * sin]);
    return [a, b, c + travel];
  };
}

const radians = (degrees: number) => (degrees * Math.PI) / 180;

function turning({ axis }: Motion, steer: number): (place: Place) => Place {
  if (!axis) return (place) => place;
  const [kx = 0, ky = 0, kz = 1] = axis.along;
  const [gx = 0, gy = 0, gz = 0] = axis.through_mm;
  const [sin, cos] = [Math.sin(radians(steer)), Math.cos(radians(steer))];
  return ([x, y, z]) => {
    const [px, py, pz] = [x - gx, y - gy, z - gz];
    const along = (kx * px + ky * py + kz * pz) * (1 - cos);
    return [
      gx + px * cos + (ky * pz - kz * py) * sin + kx * along,
      gy + py * cos + (kz * px - kx * pz) * sin + ky * along,
      gz + pz * cos + (kx * py - ky * px) * sin + kz * along,
    ];
  };
}

/** The cell of the map that is nearest to a pose. */
export function cellOf(motion: Motion, pose: Pose): number {
  const nearest = (all: number[], value: number) =>
    all.reduce(
      (best, one, at) => (Math.abs(one - value) < Math.abs((all[best] ?? 0) - value) ? at : best),
      0,
    );
  const row = nearest(motion.map_travel_mm, pose.travel);
  return row * motion.map_steer_deg.length + nearest(motion.map_steer_deg, pose.steer);
}
