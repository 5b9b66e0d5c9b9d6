import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { act, type ReactNode, StrictMode } from "react";
import { createRoot, type Root } from "react-dom/client";
import { MemoryRouter } from "react-router";
import { ASKED } from "../src/app/queries";

let shown: Root | null = null;

/** Shows a part of the page as it stands in it, with a registry that is there already; nothing is asked of a program. */
export function show(node: ReactNode, registry: object = {}): HTMLElement {
  (globalThis as { IS_REACT_ACT_ENVIRONMENT?: boolean }).IS_REACT_ACT_ENVIRONMENT = true;
  // What a test before left on the page goes away as a screen does that is left.
  act(() => shown?.unmount());
  document.body.innerHTML = "<main></main>";
  const place = document.querySelector("main") as HTMLElement;
  Element.prototype.scrollIntoView = () => {};
  const client = new QueryClient({
    defaultOptions: { ...ASKED, queries: { ...ASKED.queries, retry: false, enabled: false } },
  });
  client.setQueryData(["registry"], registry);
  const root = createRoot(place);
  shown = root;
  act(() =>
    root.render(
      <StrictMode>
        <QueryClientProvider client={client}>
          <MemoryRouter>{node}</MemoryRouter>
        </QueryClientProvider>
      </StrictMode>,
    ),
  );
  return place;
}
