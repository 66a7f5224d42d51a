import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { useNavigate, useParams, useRouterState } from "@tanstack/react-router";
import { Command } from "cmdk";
import { useState } from "react";
import { answer, api, recentKey, type Schemas } from "../api/client";
import { useDay } from "../api/views";
import { say } from "../words/say";
import { ofStudent, ofStudio } from "./places";
import { namedDay } from "./words";

// A Place is somewhere to go.
type Place = { key: string; name: string; says: string; to: string; search?: Record<string, string> };

const mostRecent = 6;

const recent = (): Place[] => JSON.parse(localStorage.getItem(recentKey) ?? "[]");

function remember(place: Place) {
  const list = [place, ...recent().filter((p) => p.key !== place.key)].slice(0, mostRecent);
  localStorage.setItem(recentKey, JSON.stringify(list));
}

const plain = (text: string) =>
  text
    .normalize("NFD")
    .replace(/\p{Mn}/gu, "")
    .toLowerCase();

// holds tells whether each word that was typed begins one of a text.
function holds(text: string, typed: string) {
  const has = plain(text).split(/[^\p{L}\p{N}]+/u);
  return plain(typed)
    .split(/\s+/)
    .every((w) => has.some((h) => h.startsWith(w)));
}

// near is where a hit of the server leads.
function placeOf(h: Schemas["Hit"], i: number): Place {
  const whose = h.day ? `${h.title}, ${namedDay(h.day)}` : h.title;
  const key = `${h.kind} ${i} ${h.item ?? h.skill ?? h.student}`;
  if (h.kind === "piece") return { key, name: h.title, says: h.says, to: `/items/${h.item}` };
  if (h.kind === "skill") return { key, name: h.title, says: h.says, to: "/numbers" };
  if (h.kind === "sheet")
    return { key, name: whose, says: h.says, to: `/students/${h.student}/week`, search: { day: h.day ?? "" } };
  return { key, name: whose, says: h.says, to: `/students/${h.student}/record` };
}

const kinds = {
  piece: say("parts.onTheShelf"),
  note: say("parts.notes"),
  sheet: say("parts.practiceSheets"),
  skill: say("parts.skills"),
} as const;

// Search finds students, places, pieces, skills, notes and sheets, from anywhere by one key.
// What is at hand is found without a connection too.
export function Search({ open, set }: { open: boolean; set: (open: boolean) => void }) {
  const [typed, type] = useState("");
  const go = useNavigate();
  const { data: day } = useDay();
  const { student } = useParams({ strict: false });
  const path = useRouterState({ select: (s) => s.location.pathname });
  const here = student ? (path.split("/")[3] ?? "ladder") : "ladder"; // another student opens at the same place
  const words = typed.trim();
  const found = useQuery({
    queryKey: ["search", words],
    queryFn: () => answer(api.GET("/api/search", { params: { query: { words } } })),
    enabled: open && words.length > 1,
    placeholderData: keepPreviousData,
    retry: false,
  });
  const close = (to?: Place) => {
    set(false);
    type("");
    if (!to) return;
    remember(to);
    void go({ to: to.to, search: to.search ?? {} });
  };
  const students = (day?.students ?? []).flatMap((s) => {
    const name = `${s.firstName} ${s.familyName}`.trim();
    const says = `${s.age} · ${s.plays}${s.state === "here" ? "" : ` · ${s.state}`}`;
    const places = ofStudent.map((p) => ({ ...p, text: `${name} ${s.plays} ${p.name}` }));
    const chosen = words.includes(" ")
      ? places.filter((p) => holds(p.text, words) && !holds(`${name} ${s.plays}`, words))
      : [];
    const all =
      chosen.length > 0 ? chosen : holds(`${name} ${s.plays}`, words) ? places.filter((p) => p.at === here) : [];
    return all.map((p) => ({
      key: s.id + p.at,
      name: `${name}, ${p.name.toLowerCase()}`,
      says,
      to: `/students/${s.id}/${p.at}`,
    }));
  });
  const places = ofStudio.filter((p) => holds(`${p.name} ${p.says}`, words)).map((p) => ({ key: p.to, ...p }));
  const hits = words.length > 1 ? (found.data?.hits ?? []).map(placeOf) : [];
  const group = (kind: keyof typeof kinds) => hits.filter((_, i) => found.data?.hits[i]?.kind === kind);
  return (
    <Command.Dialog
      open={open}
      onOpenChange={(to) => (to ? set(true) : close())}
      shouldFilter={false}
      label={say("parts.search")}
      overlayClassName="fixed inset-0 z-30 bg-ink/30"
      contentClassName="fixed inset-x-4 top-16 z-40 mx-auto max-w-2xl overflow-hidden rounded border border-ink bg-raised shadow-lg"
    >
      <Command.Input
        value={typed}
        onValueChange={type}
        placeholder={say("parts.studentPiecePlaceWordsNote")}
        className="w-full border-b border-line bg-raised px-4 py-3 text-large outline-none placeholder:text-soft"
      />
      <Command.List className="max-h-[60vh] overflow-y-auto p-2">
        {words && !found.isFetching && (
          <Command.Empty className="p-3 text-soft">{say("parts.nothingName")}</Command.Empty>
        )}
        {!words && <Group name={say("parts.lately")} list={recent()} choose={close} />}
        {words && <Group name={say("parts.students")} list={students.slice(0, 8)} choose={close} />}
        {words && <Group name={say("parts.places")} list={places.slice(0, 6)} choose={close} />}
        {(Object.keys(kinds) as (keyof typeof kinds)[]).map((k) => (
          <Group key={k} name={kinds[k]} list={group(k)} choose={close} />
        ))}
        {found.error && words.length > 1 && (
          <p className="p-3 text-soft">{say("parts.piecesNotesSheetsAreNot", { message: found.error.message })}</p>
        )}
      </Command.List>
    </Command.Dialog>
  );
}

function Group({ name, list, choose }: { name: string; list: Place[]; choose: (to: Place) => void }) {
  if (list.length === 0) return null;
  return (
    <Command.Group
      heading={name}
      className="[&_[cmdk-group-heading]]:px-2 [&_[cmdk-group-heading]]:pt-2 [&_[cmdk-group-heading]]:text-small [&_[cmdk-group-heading]]:text-soft"
    >
      {list.map((p) => (
        <Command.Item
          key={p.key}
          value={p.key}
          onSelect={() => choose(p)}
          className="flex cursor-pointer items-baseline gap-3 rounded-sm px-2 py-1.5 data-[selected=true]:bg-ink data-[selected=true]:text-raised"
        >
          <b className="shrink-0 font-[620]">{p.name}</b>
          <span className="truncate opacity-80">{p.says}</span>
        </Command.Item>
      ))}
    </Command.Group>
  );
}
