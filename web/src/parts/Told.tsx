import type { ReactNode } from "react";
import { useOutbox } from "../api/outbox";
import { say } from "../words/say";

// Trouble says what went wrong, beside what caused it.
export function Trouble({ children, again }: { children: ReactNode; again?: () => void }) {
  return (
    <div role="alert" className="flex items-center gap-3 rounded border-l-4 border-warn bg-raised px-3 py-2">
      <span className="flex-1">{children}</span>
      {again && (
        <button type="button" className="font-[620] underline" onClick={again}>
          {say("parts.tryAgain")}
        </button>
      )}
    </div>
  );
}

// Waiting keeps the shape of a screen while its data comes.
export function Waiting() {
  return (
    <div aria-busy="true" className="space-y-3 p-4">
      <span className="sr-only">{say("parts.loading")}</span>
      {[64, 40, 52].map((w) => (
        <div key={w} className="h-5 rounded bg-faint" style={{ width: `${w}%` }} />
      ))}
    </div>
  );
}

// Shown gives the data of a query, its trouble, or its shape while waiting.
export function Shown<T>({
  query,
  children,
}: {
  query: { data?: T; error: Error | null; refetch: () => unknown };
  children: (data: T) => ReactNode;
}) {
  const { trouble } = useOutbox(); // already said at the top of the page
  if (query.data !== undefined) {
    return (
      <>
        {query.error && !trouble && <Trouble again={query.refetch}>{query.error.message}</Trouble>}
        {children(query.data)}
      </>
    );
  }
  if (query.error) {
    return (
      <div className="p-4">
        <Trouble again={query.refetch}>{query.error.message}</Trouble>
      </div>
    );
  }
  return <Waiting />;
}
