import { speak } from "../words/say";

// Without it the page still works, only not from a cold start offline. It waits until
// the page has been shown.
window.addEventListener("load", () => {
  setTimeout(() => {
    void navigator.serviceWorker?.register("/family-worker.js", { scope: "/family/" }).catch(() => undefined);
  }, 500);
});

// The words come first: names in lists are written while the page is loaded.
const root = document.getElementById("root");
void speak("family").then(async () => {
  const { show } = await import("./app");
  if (root) show(root);
});
