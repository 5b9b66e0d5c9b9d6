/** Unit choice is formatting only: the program computes in millimetres and km/h. */
import { createContext, type ReactNode, useCallback, useContext, useMemo, useState } from "react";
import type { Quantity } from "../api/client";
import { kept } from "./kept";
import { useHouse } from "./registry";

export type Units = {
  length: "mm" | "in";
  speed: "km/h" | "mph";
  pressure: "kPa" | "bar" | "psi";
  torque: "N·m" | "lb·ft";
};

/** The mixtures people use, in the order `u` walks through them. */
const CHOICES: Units[] = [
  { length: "mm", speed: "km/h", pressure: "kPa", torque: "N·m" },
  { length: "mm", speed: "mph", pressure: "psi", torque: "lb·ft" },
  { length: "in", speed: "mph", pressure: "psi", torque: "lb·ft" },
  { length: "mm", speed: "km/h", pressure: "bar", torque: "N·m" },
];
const METRIC: Units = { length: "mm", speed: "km/h", pressure: "kPa", torque: "N·m" };

const MM_PER_INCH = 25.4;
const KM_PER_MILE = 1.609344;
const KPA_PER_PSI = 6.894757;
const NM_PER_LB_FT = 1.355818;
const KEPT_AS = "dimensione.units";

type UnitsValue = { units: Units; next: () => void };
const UnitsContext = createContext<UnitsValue>({ units: METRIC, next: () => {} });

/** Where a screen starts that has not chosen: what the house says. */
const HOUSE_START: Record<string, number> = { metric: 0, mixed: 1, imperial: 2 };

export function UnitsProvider({ children }: { children: ReactNode }) {
  const [chosen, setChosen] = useState(() => {
    const walked = kept.get(KEPT_AS);
    return walked === null ? null : Number(walked) % CHOICES.length || 0;
  });
  const house = useHouse();
  const at = chosen ?? HOUSE_START[house?.units ?? "metric"] ?? 0;
  const next = useCallback(() => {
    const then = (at + 1) % CHOICES.length;
    kept.put(KEPT_AS, String(then));
    setChosen(then);
  }, [at]);
  const value = useMemo(() => ({ units: CHOICES[at] ?? METRIC, next }), [at, next]);
  return <UnitsContext value={value}>{children}</UnitsContext>;
}

export const useUnits = () => useContext(UnitsContext);

export type Formatted = { figure: string; unit: string };

function rounded(value: number, decimals: number, signed: boolean): string {
  const text = Math.abs(value).toFixed(decimals);
  const isZero = Number(text) === 0;
  if (isZero) return text;
  if (value < 0) return `−${text}`;
  return signed ? `+${text}` : text;
}

export function formatLength(mm: number, units: Units, signed = false): Formatted {
  return units.length === "mm"
    ? { figure: rounded(mm, 1, signed), unit: "mm" }
    : { figure: rounded(mm / MM_PER_INCH, 2, signed), unit: "in" };
}

/** An offset is a code in millimetres in every unit system. */
export const formatOffset = (mm: number) => rounded(mm, Number.isInteger(mm) ? 0 : 1, false);

export const formatInches = (mm: number) => rounded(mm / MM_PER_INCH, 2, false);

export function formatSpeed(kmh: number, units: Units): Formatted {
  const isMetric = units.speed === "km/h";
  const speed = isMetric ? kmh : kmh / KM_PER_MILE;
  // Speeds of signs and symbols are whole and shown so.
  const isWhole = Math.abs(speed - Math.round(speed)) < 1e-6;
  return { figure: rounded(speed, isWhole ? 0 : 1, false), unit: isMetric ? "km/h" : "mph" };
}

const KPA_PER_BAR = 100;

/** A pressure as it is typed in the units of the screen, in kPa. */
export const toKpa = (typed: number, units: Units) =>
  typed * (units.pressure === "bar" ? KPA_PER_BAR : units.pressure === "psi" ? KPA_PER_PSI : 1);

export function formatPressure(kpa: number, units: Units, signed = false): Formatted {
  if (units.pressure === "bar") return { figure: rounded(kpa / KPA_PER_BAR, 2, signed), unit: "bar" };
  if (units.pressure === "psi") return { figure: rounded(kpa / KPA_PER_PSI, 1, signed), unit: "psi" };
  return { figure: rounded(kpa, 0, signed), unit: "kPa" };
}

export function formatTorque(nm: number, units: Units): Formatted {
  return units.torque === "lb·ft"
    ? { figure: rounded(nm / NM_PER_LB_FT, 0, false), unit: "lb·ft" }
    : { figure: rounded(nm, 0, false), unit: "N·m" };
}

/** A figure of the car's record in the reader's own unit; null where it is written in that already. */
export function inOwnUnit(figure: number, unit: string | null | undefined, units: Units): string | null {
  if (!Number.isFinite(figure)) return null;
  const own =
    unit === "N·m" ? formatTorque(figure, units) : unit === "kPa" ? formatPressure(figure, units) : null;
  return own && own.unit !== unit ? inWords(own) : null;
}

export function format({ kind, value, signed }: Quantity, units: Units): Formatted {
  switch (kind) {
    case "length_mm":
      return formatLength(value, units, signed);
    case "speed_kmh":
      return formatSpeed(value, units);
    case "rim_in":
      return { figure: rounded(value, Number.isInteger(value * 2) ? 1 : 2, signed), unit: "in" };
    case "percent":
      return { figure: rounded(value, 1, signed), unit: "%" };
    case "ratio":
      return { figure: rounded(value, 4, signed), unit: "" };
    case "mass_kg":
      return { figure: rounded(value, 0, signed), unit: "kg" };
    case "pressure_kpa":
      return formatPressure(value, units, signed);
    case "years":
      return { figure: rounded(value, 1, signed), unit: "years" };
    case "turns":
      return { figure: rounded(value, 0, signed), unit: "turns" };
    case "count":
      return { figure: rounded(value, 0, signed), unit: "" };
  }
}

/** Figure and unit as one text. */
export const inWords = ({ figure, unit }: Formatted) => (unit ? `${figure} ${unit}` : figure);

/** A change in per cent with its sign. */
export const percent = (change: number) => inWords({ figure: rounded(change, 1, true), unit: "%" });
