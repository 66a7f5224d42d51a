import type { ComponentProps, ReactNode } from "react";
import { useLetterKeys } from "./letterKeys";

type Props = ComponentProps<"button"> & { look?: "plain" | "main" | "quiet"; hint?: string };

const looks = {
  plain: "border-ink bg-raised text-ink hover:bg-faint",
  main: "border-ink bg-ink text-raised hover:opacity-90",
  quiet: "border-transparent bg-transparent text-soft hover:text-ink hover:bg-faint",
};

// A Button with the key that does the same, when there is one.
export function Button({ look = "plain", hint, className = "", children, ...rest }: Props) {
  return (
    <button
      type="button"
      className={`inline-flex items-center justify-center gap-2 rounded border px-4 py-2 font-[620] disabled:opacity-45 ${looks[look]} ${className}`}
      {...rest}
    >
      {children}
      {hint && <Key>{hint}</Key>}
    </button>
  );
}

// A Key shows a key of the keyboard; it is for the eyes, the name of its
// button says the rest. None is shown where keys are turned off.
export function Key({ children }: { children: ReactNode }) {
  if (!useLetterKeys()) return null;
  return (
    <span
      aria-hidden="true"
      data-key
      className="rounded-sm border border-current px-1.5 text-[13px] leading-[1.35] font-[560] opacity-75"
    >
      {children}
    </span>
  );
}
