import type { ComponentPropsWithoutRef } from "react";

type Props = ComponentPropsWithoutRef<"p"> & {
  /** Something stands against it, rather than asks for care. */
  grave?: boolean;
};

/** What must be minded, standing beside the figure it is about; never only in a tooltip. */
export function Caution({ grave = false, className = "", ...rest }: Props) {
  return <p className={`alert caution ${grave ? "alert-error" : "alert-warning"} ${className}`} {...rest} />;
}

/** What was refused or failed, said where it happened and read out. */
export function Fault({ className = "", ...rest }: ComponentPropsWithoutRef<"p">) {
  return <p role="alert" className={`fault ${className}`} {...rest} />;
}

/** The same inside of a line or under a field. */
export function InlineFault({ className = "", ...rest }: ComponentPropsWithoutRef<"span">) {
  return <span role="alert" className={`fault ${className}`} {...rest} />;
}
