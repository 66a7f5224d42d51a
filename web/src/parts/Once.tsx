import { say } from "../words/say";

type Props = { name: string; address: string; children: string };

// Once shows an address that is told this once, ready to be copied.
export function Once({ name, address, children }: Props) {
  return (
    <label className="block text-soft">
      {say("parts.shownOnce", { children })}
      <input
        readOnly
        name={name}
        className="mt-1 w-full rounded border border-line bg-raised px-2 py-1.5 text-ink"
        value={address}
        onFocus={(e) => e.target.select()}
      />
    </label>
  );
}
