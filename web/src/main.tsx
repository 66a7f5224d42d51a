import { QueryClientProvider } from "@tanstack/react-query";
import { RouterProvider } from "@tanstack/react-router";
import { StrictMode } from "react";
import { createRoot } from "react-dom/client";
import { queries } from "./api/client";
import { router } from "./router";
import "./styles.css";

// It keeps the app on this device, so that a day's lessons go on without a connection.
window.addEventListener("load", () => {
  void navigator.serviceWorker?.register("/studio-worker.js").catch(() => undefined);
});

const root = document.getElementById("root");
if (root) {
  createRoot(root).render(
    <StrictMode>
      <QueryClientProvider client={queries}>
        <RouterProvider router={router} />
      </QueryClientProvider>
    </StrictMode>,
  );
}
