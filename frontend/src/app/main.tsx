import { QueryClientProvider } from "@tanstack/react-query";
import { StrictMode } from "react";
import { createRoot } from "react-dom/client";
import { BrowserRouter } from "react-router";
import { openOutbox } from "../api/outbox";
import { queryClient } from "../api/queries";
import { App } from "./App";
import { LastResort } from "./LastResort";
import "./theme.css";

openOutbox();

const root = document.getElementById("root");
if (root)
  createRoot(root).render(
    <StrictMode>
      <LastResort>
        <QueryClientProvider client={queryClient}>
          <BrowserRouter>
            <App />
          </BrowserRouter>
        </QueryClientProvider>
      </LastResort>
    </StrictMode>,
  );
