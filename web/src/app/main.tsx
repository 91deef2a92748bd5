import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { StrictMode } from "react";
import { createRoot } from "react-dom/client";
import { App } from "./App";
import { ApiError } from "./api";
import { startOutbox } from "./outbox";
import { applyTheme } from "./theme";
import "./tokens.css";

applyTheme();
const client = new QueryClient({
  defaultOptions: {
    // A write that finds no server fails at once and is said; it never waits unseen for the network to come back.
    mutations: { networkMode: "always", retry: false },
    queries: {
      networkMode: "always",
      retry: (n, e) => !(e instanceof ApiError) && n < 3,
      refetchOnWindowFocus: true,
    },
  },
});

startOutbox((jobId) => {
  void client.invalidateQueries({ queryKey: ["job", jobId] });
  void client.invalidateQueries({ queryKey: ["board"] });
});

createRoot(document.getElementById("root")!).render(
  <StrictMode>
    <QueryClientProvider client={client}>
      <App />
    </QueryClientProvider>
  </StrictMode>,
);
