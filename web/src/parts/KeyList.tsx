import { Dialog } from "radix-ui";
import { useMemo } from "react";
import { say } from "../words/say";
import { Button } from "./Button";

const everywhere = [
  ["/", say("parts.searchKey")],
  ["< >", say("parts.lessonsDayBeforeDayAfter")],
  ["⌫", say("parts.takesBackWhatWasJust")],
  ["?", say("parts.theseKeys")],
] as const;

// KeyList tells the keys that act on the page as it stands: each is written on its button, and
// read from there.
export function KeyList({ close }: { close: () => void }) {
  const here = useMemo(
    () =>
      [...document.querySelectorAll<HTMLElement>("#content [data-key]")].map((k) => {
        const button = k.closest<HTMLElement>("button,a,label");
        const name = button?.getAttribute("aria-label") ?? button?.innerText.replace(k.innerText, "");
        return [k.innerText, (name ?? "").replace(/\s+/g, " ").trim()] as const;
      }),
    [],
  );
  return (
    <Dialog.Root open onOpenChange={close}>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-30 bg-ink/30" />
        <Dialog.Content
          aria-describedby={undefined}
          className="fixed inset-x-4 top-16 z-40 mx-auto max-h-[80vh] max-w-xl overflow-y-auto rounded border border-ink bg-raised p-5 shadow-lg"
        >
          <Dialog.Title className="text-head">{say("parts.keys")}</Dialog.Title>
          <List name={say("parts.everywhere")} keys={everywhere} />
          <List name={say("parts.onThisPage")} keys={here} />
          {here.length === 0 && <p className="text-soft">{say("parts.pageHasNoKeysIts")}</p>}
          <p className="my-3 text-soft">{say("parts.singleKeysCanTurnedOff")}</p>
          <Button onClick={close}>{say("parts.close")}</Button>
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}

function List({ name, keys }: { name: string; keys: readonly (readonly [string, string])[] }) {
  if (keys.length === 0) return null;
  return (
    <>
      <h2 className="mt-3">{name}</h2>
      <dl className="grid grid-cols-[4rem_1fr] gap-y-1">
        {keys.map(([key, says]) => (
          <div key={key + says} className="contents">
            <dt>
              <kbd className="rounded-sm border border-current px-1.5">{key}</kbd>
            </dt>
            <dd>{says}</dd>
          </div>
        ))}
      </dl>
    </>
  );
}
