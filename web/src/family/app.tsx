import { QueryClientProvider } from "@tanstack/react-query";
import { StrictMode } from "react";
import { createRoot } from "react-dom/client";
import { answer, api, queries } from "../api/client";
import { actFor } from "../api/outbox";
import "../styles.css";
import { FamilyPage } from "./FamilyPage";
import { keep } from "./view";

const token = location.pathname.split("/")[2] ?? "";
actFor(token, async (facts) => {
  await answer(api.POST("/api/family/{token}/facts", { params: { path: { token } }, body: { facts } }));
  keep(token, facts);
});
// show draws the page, once its words are there.
export function show(root: HTMLElement) {
  createRoot(root).render(
    <StrictMode>
      <QueryClientProvider client={queries}>
        <FamilyPage token={token} />
      </QueryClientProvider>
    </StrictMode>,
  );
}
