import { useMutation } from "@tanstack/react-query";
import { useEffect, useRef, useState } from "react";
import type { Schemas } from "../api/client";
import { say } from "../words/say";
import { Button } from "./Button";
import { useKeys } from "./keys";
import { Pads } from "./Pads";
import { sing } from "./sound";
import { Trouble } from "./Told";
import { type Stroke, useTaps } from "./takes";

type Call = Schemas["CallView"];
type Bout = Schemas["Bout"];
type Props = {
  trial: Schemas["TrialView"];
  call: (ask: Schemas["CallAsk"]) => Promise<Call>;
  reply: (ask: Schemas["ReplyAsk"]) => Promise<Schemas["ReplyView"]>;
  keep?: (bodies: Schemas["ReplyView"]["keep"]) => void;
  judges: boolean; // somebody is there who judges what is sung
};

type Stage = "idle" | "hearing" | "answering" | "told";
const seedOf = () => Math.floor(Math.random() * 2 ** 40);
const begun = (level: number): Bout => ({ level, running: 0, asked: 0, right: 0, passed: false });

// Trial is a round of listening and answering: hear all of it, hold it, answer.
export function Trial({ trial, call, reply, keep, judges }: Props) {
  const [bout, setBout] = useState<Bout>(begun(Math.max(1, Math.min(trial.level || 1, trial.levels.length))));
  const [stage, setStage] = useState<Stage>("idle");
  const [seed, setSeed] = useState(seedOf);
  const [asked, setAsked] = useState<Call>();
  const [count, setCount] = useState(0);
  const [found, setFound] = useState<number[]>([]);
  const [begin, setBegin] = useState(0);
  const [verdict, setVerdict] = useState<Schemas["ReplyView"]>();
  const [kept, setKept] = useState(false);
  const taps = useRef<Stroke[]>([]);
  const early = useRef(0);
  const stop = useRef<() => void>(undefined);
  useEffect(() => () => stop.current?.(), []);
  const tapping = trial.kind === "tap" || trial.kind === "hands";
  const ask = useMutation({
    mutationFn: (with_: number) => call({ skill: trial.skill, bout, seed: with_ }),
    onSuccess: (q) => {
      setAsked(q);
      hear(q);
    },
  });
  const judge = useMutation({
    mutationFn: (r: Schemas["Reply"]) => reply({ skill: trial.skill, bout, seed, reply: r }),
    onSuccess: (v) => {
      setVerdict(v);
      setBout(v.bout);
      setStage("told");
      setKept(false);
    },
  });
  const hear = (q: Call) => {
    stop.current?.();
    taps.current = [];
    early.current = 0;
    setCount(0);
    setFound([]);
    setStage("hearing");
    stop.current = sing(q.sounds, q.beat, q.length, () => {
      setBegin(performance.now());
      setStage("answering");
    });
  };
  const next = () => {
    const with_ = seedOf();
    setSeed(with_);
    setVerdict(undefined);
    ask.mutate(with_);
  };
  const again = () => {
    if (!asked) return;
    setVerdict(undefined);
    hear(asked);
  };
  const take = (s: Stroke) => {
    if (stage === "hearing") early.current++;
    else taps.current.push(s);
    setCount(taps.current.length + early.current);
  };
  const listens = tapping && (stage === "hearing" || stage === "answering");
  useTaps(listens, trial.kind === "hands", begin, take);
  const answered = (r: Schemas["Reply"]) => judge.mutate(r);
  const tapped = () => answered({ taps: taps.current, early: early.current });
  const press = (key: number) => {
    const now = [...found, key];
    setFound(now);
    if (asked && now.length >= asked.find) answered({ keys: now });
  };
  const answering = stage === "answering" && !judge.isPending;
  useKeys({
    Enter: listens ? (answering ? tapped : undefined) : stage === "idle" || stage === "told" ? next : undefined,
    r: stage === "told" || (stage === "answering" && !tapping) ? again : undefined,
    ...(answering && trial.kind === "choose"
      ? Object.fromEntries((asked?.words ?? []).map((w, i) => [String(i + 1), () => answered({ word: w.key })]))
      : {}),
    ...(answering && trial.kind === "sing" && judges
      ? { y: () => answered({ judged: "right" }), n: () => answered({ judged: "wrong" }) }
      : {}),
  });
  const hint = (key: string) => (judges ? key : undefined); // a phone has none
  const choice = "min-h-14 flex-1 rounded border-[1.5px] border-line px-4 text-large font-[620] hover:bg-faint";
  return (
    <section aria-label={trial.name} className="rounded bg-raised px-4 py-3" data-stage={stage}>
      <div className="flex flex-wrap items-baseline gap-x-3">
        <h2>{trial.name}</h2>
        <p className="text-soft">
          {say("parts.levelOf", {
            level: bout.level,
            levels: trial.levels.length,
            levels2: trial.levels[bout.level - 1],
          })}
        </p>
      </div>
      <p className="mt-1 text-large" role="status">
        {stage === "idle" && trial.says}
        {stage === "hearing" && (asked?.says ?? say("parts.listen"))}
        {stage === "answering" &&
          (tapping ? say("parts.nowYou", { value: count > 0 ? say("count.tap", { n: count }) : "" }) : asked?.says)}
        {stage === "told" && verdict?.verdict.says}
      </p>
      {stage === "told" && (
        <p className={verdict?.verdict.right ? "text-keep" : "text-soft"}>
          {bout.passed
            ? say("parts.passed")
            : say("parts.trialSoFar", { running: bout.running, right: bout.right, asked: bout.asked })}
        </p>
      )}
      {listens && <Pads hands={trial.kind === "hands"} begin={begin} take={take} />}
      {answering && trial.kind === "choose" && (
        <div className="mt-3 flex flex-wrap gap-3">
          {asked?.words.map((w) => (
            <button key={w.key} type="button" className={choice} onClick={() => answered({ word: w.key })}>
              {w.says}
            </button>
          ))}
        </div>
      )}
      {answering && trial.kind === "keys" && (
        <fieldset aria-label={say("parts.keys")} className="mt-3 flex gap-1">
          {asked?.keys.map((k, i) => (
            <button
              key={k}
              type="button"
              aria-label={say("parts.key", { n: i + 1 })}
              onClick={() => press(k)}
              className="h-28 flex-1 rounded-b border-2 border-ink bg-white text-black"
            >
              {found.includes(k) ? "•" : ""}
            </button>
          ))}
        </fieldset>
      )}
      {answering && trial.kind === "sing" && (
        <div className="mt-3 flex gap-3">
          {judges ? (
            <>
              <Button hint={hint("Y")} onClick={() => answered({ judged: "right" })}>
                {say("parts.sungBack")}
              </Button>
              <Button hint={hint("N")} onClick={() => answered({ judged: "wrong" })}>
                {say("parts.notYet")}
              </Button>
            </>
          ) : (
            <p>{say("parts.singBackTeacher")}</p>
          )}
        </div>
      )}
      <div className="mt-3 flex flex-wrap gap-2">
        {(stage === "idle" || stage === "told") && !bout.passed && (
          <Button look="main" hint={hint(say("parts.enter"))} disabled={ask.isPending} onClick={next}>
            {stage === "idle" ? say("parts.hearFirst") : say("parts.nextOne")}
          </Button>
        )}
        {answering && tapping && (
          <Button look="main" hint={hint(say("parts.enter"))} onClick={tapped}>
            {say("parts.thatWasIt")}
          </Button>
        )}
        {(stage === "told" || (stage === "answering" && !tapping)) && (
          <Button hint={hint("R")} onClick={again}>
            {say("parts.hearAgain")}
          </Button>
        )}
        {keep && verdict && (kept || bout.asked > 0) && (
          <Button
            disabled={kept}
            onClick={() => {
              keep(verdict.keep);
              setKept(true);
              setBout(begun(bout.level));
            }}
          >
            {kept ? say("parts.saved") : say("parts.saveRound")}
          </Button>
        )}
      </div>
      {(ask.error || judge.error) && <Trouble>{(ask.error ?? judge.error)?.message ?? ""}</Trouble>}
    </section>
  );
}
