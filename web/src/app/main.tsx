import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { StrictMode } from "react";
import { createRoot } from "react-dom/client";
import { App } from "./App";
import { ApiError } from "./api";
import { isReachable, startOutbox } from "./outbox";
import { queries } from "./queries";
import { applyTheme } from "./theme";
import "./tokens.css";

applyTheme();
const client = new QueryClient({
  defaultOptions: {
    // A write that finds no server fails at once and is said; it never waits unseen for the network to come back.
    mutations: { networkMode: "always", retry: false },
    queries: {
      networkMode: "always",
      // While the server is known to be silent nothing is asked again and again: what stands is asked anew once it is back.
      retry: (n, e) => !(e instanceof ApiError) && n < 3 && isReachable(),
      refetchOnWindowFocus: true,
    },
  },
});

startOutbox(
  (jobId) => {
    void client.invalidateQueries({ queryKey: queries.job(jobId).queryKey });
    void client.invalidateQueries({ queryKey: queries.board.queryKey });
  },
  () => void client.invalidateQueries({ predicate: (q) => q.queryKey[0] !== "session" }),
);

createRoot(document.getElementById("root")!).render(
  <StrictMode>
    <QueryClientProvider client={client}>
      <App />
    </QueryClientProvider>
  </StrictMode>,
);
