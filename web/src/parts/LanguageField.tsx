import { useQuery } from "@tanstack/react-query";
import { accountView } from "../api/views";
import { field } from "./Field";

// called is what a language calls itself: British English.
const called = (tag: string) => new Intl.DisplayNames([tag], { type: "language" }).of(tag) ?? tag;

// A LanguageField asks for one of the program's languages. Where it may be left to the studio, usual says so.
export function LanguageField({ label, value, usual }: { label: string; value: string; usual?: string }) {
  const account = useQuery(accountView);
  return (
    <label className="block font-[580]">
      {label}
      <select key={account.data?.language} className={field} name="language" defaultValue={value}>
        {usual !== undefined && (
          <option value="">
            {usual}
            {account.data && `: ${called(account.data.language)}`}
          </option>
        )}
        {(account.data?.speaks ?? [value]).filter(Boolean).map((tag) => (
          <option key={tag} value={tag}>
            {called(tag)}
          </option>
        ))}
      </select>
    </label>
  );
}
