import "@fontsource/ibm-plex-sans-condensed/latin-400.css";
import "@fontsource/ibm-plex-sans-condensed/latin-500.css";
import "@fontsource/ibm-plex-sans-condensed/latin-600.css";
import "@fontsource/ibm-plex-sans-condensed/latin-ext-400.css";
import "@fontsource/ibm-plex-sans-condensed/latin-ext-600.css";
import "./styles.css";
import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { StrictMode } from "react";
import { createRoot } from "react-dom/client";
import { BrowserRouter } from "react-router";
import { OneFile } from "./app/OneFile";
import { Pages } from "./app/Pages";
import { ASKED } from "./app/queries";
import { startTheme } from "./shared/theme";
import { UnitsProvider } from "./shared/units";

startTheme();

const queries = new QueryClient({ defaultOptions: ASKED });

const root = document.getElementById("root");
if (root) {
  createRoot(root).render(
    <StrictMode>
      <QueryClientProvider client={queries}>
        <UnitsProvider>
          <BrowserRouter>
            <OneFile>
              <Pages />
            </OneFile>
          </BrowserRouter>
        </UnitsProvider>
      </QueryClientProvider>
    </StrictMode>,
  );
}
