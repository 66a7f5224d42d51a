import { speak } from "./say";

// Unit tests read British English.
await speak("studio", "en-GB");
