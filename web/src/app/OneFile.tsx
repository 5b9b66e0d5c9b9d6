import { useQueryClient } from "@tanstack/react-query";
import { type ReactNode, useEffect, useState } from "react";
import { answer, api } from "../api/client";
import { fileIs, useFileId, whenAnother } from "../api/file";
import { KeepsNothing } from "./KeepsNothing";

const AGAIN_MS = 1000;

/** The page over one file: over another it begins anew, with nothing of what it showed before. */
export function OneFile({ children }: { children: ReactNode }) {
  const queries = useQueryClient();
  const id = useFileId();
  const [shown, show] = useState("");
  const [isAsked, setAsked] = useState(false);
  useEffect(() => {
    let again: ReturnType<typeof setTimeout> | undefined;
    const which = () => {
      clearTimeout(again);
      answer(api.GET("/api/v1/house"))
        .then((house) => fileIs(house.file_id))
        // Away: until it answers, what the browser still has is shown.
        .catch(() => {
          again = setTimeout(which, AGAIN_MS);
        })
        .finally(() => setAsked(true));
    };
    whenAnother(which);
    which();
    return () => clearTimeout(again);
  }, []);
  useEffect(() => {
    if (id === shown) return;
    // What was heard of another file is nothing of this one.
    if (shown) queries.clear();
    show(id);
  }, [id, shown, queries]);
  if (!isAsked || id !== shown) return null;
  return (
    <div key={shown}>
      <KeepsNothing />
      {children}
    </div>
  );
}
