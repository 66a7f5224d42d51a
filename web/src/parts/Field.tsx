import type { ComponentProps } from "react";

// field is how what is typed in looks.
export const field = "mt-0.5 block w-full rounded border border-line bg-ground px-2 py-1.5 font-normal text-ink";

// A Field is one of a form, under its label.
export function Field({ label, ...rest }: ComponentProps<"input"> & { label: string }) {
  return (
    <label className="block font-[580]">
      {label}
      <input className={field} {...rest} />
    </label>
  );
}
