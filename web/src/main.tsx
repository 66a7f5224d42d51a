import { speak } from "./words/say";

// It keeps the app on this device, so that a day's lessons go on without a connection.
window.addEventListener("load", () => {
  void navigator.serviceWorker?.register("/studio-worker.js").catch(() => undefined);
});

// The words come first: names in lists are written while the app is loaded.
const root = document.getElementById("root");
void speak("studio").then(async () => {
  const { show } = await import("./app");
  if (root) show(root);
});
