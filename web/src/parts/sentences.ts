import type { Schemas } from "../api/client";
import { plural, shortDay } from "./dates";
import { length } from "./units";

type Reason = Schemas["Reason"];
type Args = Record<string, string>;

const counted: Args = { piece: "pieces", scale: "scales", pattern: "patterns" };

// Every reason that core gives, as a sentence.
const sentences: { [code in Reason["code"]]?: (a: Args) => string } = {
  "not-taught": (a) => `${a.title} has not had its lesson yet, so a try comes too soon.`,
  "first-lesson": (a) => `${a.title} is next and waits for its first lesson.`,
  "ready-to-try": (a) =>
    a.weeks
      ? `Every point is met after ${plural(a.weeks, "taught week")}: let the student try for the foothold.`
      : `${a.title}: every point is met, ready to try for the foothold.`,
  "struck-often": (a) => `${a.title}: struck from three sheets, so it is no longer drafted (Settings).`,
  "still-open": (a) => (a.count === "1" ? `Only ${a.first} is left.` : `${a.count} points are left; first ${a.first}.`),
  "plays-well": () => "Something played well opens the lesson.",
  fading: (a) =>
    `Last played ${a.days === "0" ? "today" : `${plural(a.days ?? "", "day")} ago`}: about ${a.recall} in 100 that it still goes well.`,
  "comes-next": () => "A first taste of what comes next; success is not asked.",
  "nothing-placed": () => "Nothing is on the ladder yet. Place a piece from the shelf and the plan fills itself.",
  squeezed: (a) => `You set ${a.asked} minutes; with all that is set the lesson has no room for more than this.`,
  stretched: (a) => `Longer than the usual ${a.usual} minutes at this age: there was nothing else to fill the lesson.`,
  "too-short-for": (a) => `Left out, the lesson is too short: ${a.title || a.kind}.`,
  "in-hand": (a) => `Working for ${a.missing}.`,
  "spot-count": (a) => `${a.title}: ${a.more}.`,
  "waits-for-its-lesson": (a) => `${a.title} waits for its lesson.`,
  "no-room-for": (a) => `No minutes left this week for ${a.title}.`,
  placed: (a) => `${a.title} was placed on the ladder.`,
  taught: (a) => `${a.title} had its first lesson.`,
  "point-met": (a) => `${a.title}: ${a.more} met.`,
  "point-open": (a) => `${a.title}: ${a.more} still open.`,
  foothold: (a) => `${a.title} has its foothold.`,
  "now-current": (a) => `${a.title} is now the current piece.`,
  "spot-carried": (a) => `${a.title}: the spot in ${a.where} is carried into the week.`,

  // what was played in
  evened: (a) => `${a.title} was played evenly on ${a.days} days running: ${a.points} may be met.`,
  "begins-empty": () =>
    "No book is ticked, so the ladder begins empty. Tick a book, or add pieces to the ladder later.",
  "begins-with-nothing": (a) =>
    `“${a.book}” has nothing to begin with on this instrument. Choose another book or another place to begin.`,
  "coming-back": (a) => `Coming back after a pain: at most ${a.minutes} min a day this week, in short sittings.`,
  "no-goals": (a) => `${a.title} has no goals yet. Add one, or mark it as learnt when it plays through unaided.`,
  "pain-waits": (a) =>
    `Playing waits until a licensed clinician has cleared the ${a.side} side. Nothing is forecast until then.`,
  "coming-back-lesson": (a) =>
    `Coming back after a pain: about ${a.minutes} min of playing in this lesson, in short stretches.`,
  "habit-sort": (a) => `${sorts[a.sort ?? ""] ?? a.sort}: removed from three sheets, so no longer drafted.`,
  "habit-block": (a) => `${blocks[a.kind ?? ""] ?? a.kind}: left out of three lessons, so no longer planned.`,
  "habit-length": (a) =>
    `${blocks[a.kind ?? ""] ?? a.kind}: planned for ${a.minutes} min, as you set it in three lessons.`,
  "left-out-last": (a) =>
    `Left out of ${a.lessons === "1" ? "the last lesson" : `the last ${a.lessons} lessons`}, so it comes first today.`,
  "waits-long": (a) =>
    `${a.title} has waited ${a.lessons} lessons for its first. Put it into the next lesson, make the lesson longer, or put something on hold.`,
  "order-young": () => "The youngest play first.",
  "order-moves": () => "No instrument is moved twice.",
  "order-apart": () => "No two neighbours share a key or a mood.",
  "order-lively": () => "It ends with something lively.",
  "take-even": () => "Even: nothing that a listener would notice.",
  "take-slips": (a) => `${plural(a.n ?? "", "note")} wrong, missing or too many.`,
  "take-stops": (a) => `It stopped ${a.n === "1" ? "once" : `${a.n} times`} to think.`,
  "take-lope": (a) => `It lopes: the first of two is ${a.ratio} times as long as the second.`,
  "take-lope-short": (a) => `It lopes: the second of two is ${a.ratio} times as long as the first.`,
  "take-quicker": (a) => `It gets quicker, by ${a.part} % from beginning to end.`,
  "take-slower": (a) => `It gets slower, by ${a.part} % from beginning to end.`,
  "take-spread": (a) => `Uneven: the intervals spread by ${a.part} %.`,
  "take-late": (a) => `The ${a.finger} comes ${a.ms} ms late.`,
  "take-early": (a) => `The ${a.finger} comes ${a.ms} ms early.`,
  "take-strong": (a) => `The ${a.finger} is too strong, by ${a.by} of 127 over the others.`,
  "take-weak": (a) => `The ${a.finger} is too weak, by ${a.by} of 127 under the others.`,
  "take-apart": (a) => `The ${a.hand} hand comes ${a.ms} ms after the other.`,
  "take-scatter": (a) => `The hands fall apart, by ${a.ms} ms, now one first and now the other.`,
  "think-even": () => "Keep the feeling of it.",
  "think-slips": () => "The notes first: slower, until all of them are there.",
  "think-stops": () => "Think ahead: slower, so that nothing has to wait.",
  "think-lope": () => "The second of each two: as long as the first.",
  "think-lope-short": () => "The first of each two: as long as the second.",
  "think-quicker": () => "The end: no quicker than the beginning.",
  "think-slower": () => "The end: no slower than the beginning.",
  "think-spread": () => "A clock: each note at its stroke, slower if need be.",
  "think-late": (a) => `The ${a.finger}: ready sooner.`,
  "think-early": (a) => `The ${a.finger}: it waits its turn.`,
  "think-strong": (a) => `The ${a.finger}: as light as the others.`,
  "think-weak": (a) => `The ${a.finger}: as clear as the others.`,
  "think-apart": (a) => `The ${a.hand} hand: down together with the other.`,
  "think-scatter": () => "Both hands: down together, slowly, each time.",

  // games, first meetings and the teacher's own changes
  probe: (a) => `${a.asks} Passed, and its games stop: ${a.exit}.`,
  "probe-for": (a) => `${a.why}`,
  "child-teaches": () => "In each game the child is the teacher once, and you get something wrong.",
  "probe-again": (a) => `Last time: ${a.outcome === "nearly" ? "nearly" : "not yet"}. Another game this time.`,
  "another-game": (a) => `Look for: ${a.look}.`,
  "carried-over": (a) => `${a.title} is prepared and waits for the next lesson.`,
  "game-learning": (a) => `For what is being learnt: ${lower(a.aim)}.`,
  "game-prepares": (a) => `Prepares ${lower(a.aim)}.`,
  "game-moves": (a) => `Up from the seat for a moment: ${lower(a.aim)}.`,
  "game-refreshes": (a) => `Keeps ${lower(a.aim)} fresh.`,
  "head-start-shown": () => "As it was shown in the lesson.",
  "close-heard": () => "Ends with listening.",
  "close-made-up": () => "Ends with something the student makes up.",
  "read-not-played": () => "Point and say it; nothing is played.",
  "rests-the-hands": () => "Needs no playing.",
  "plays-well-too": (a) => `About ${a.recall} in 100 that it goes well.`,
  chosen: () => "Chosen by you for this lesson.",
  "other-hand-only": (a) => `The ${a.hand} hand only, gently.`,
  "pain-stop": (a) =>
    `Pain on the ${a.side === "both" ? "body or both sides" : `${a.side} side`}${a.where ? ` (${a.where})` : ""}: no playing with it until a licensed clinician has seen it. This app makes no diagnosis.`,
  "remote-lesson": () =>
    "From afar: no hands on, nothing played together. Check the camera's angle; record the model instead.",
  over: (a) => `${plural(a.minutes ?? "", "minute")} over.`,
  "drops-to": (a) => `${a.title || blockOf(a.kind)} drops to ${plural(a.minutes ?? "", "minute")}.`,
  "drops-out": (a) => `${a.title || blockOf(a.kind)} waits for next time.`,
  "head-start-next": (a) => `${a.skill} goes on: ${lower(a.do)}.`,
  "probe-answered": (a) =>
    `${a.aim}: ${a.outcome === "pass" ? "exit test passed, its games stop" : a.outcome === "nearly" ? "nearly" : "not yet"}.`,

  // looking over all students
  "date-comes": (a) => `${a.title} is to be played on ${date(a.day)}, in ${plural(a.days ?? "", "day")}.`,
  "landing-due": (a) => `${number(a.climbs)} climbs in hand at once: a landing would let them settle.`,
  "question-waits": (a) =>
    a.count === "1" ? `Asked at home: ${a.first}` : `${number(a.count)} questions from home; the first: ${a.first}`,
  "practises-little": (a) => `Practised on ${a.days} of ${a.asked} days in four weeks.`,
  "home-silent": (a) => `Nothing was told from home for ${a.days} days.`,
  "sheet-not-sent": (a) => `The sheet of ${date(a.day)} has not gone out.`,
  "sheet-not-opened": (a) => `The sheet of ${date(a.day)} was sent and not opened in ${plural(a.days ?? "", "day")}.`,

  // the week at home
  "thin-week": (a) => `Practised on ${a.days} of ${plural(a.of ?? "", "day")} last week: a shorter plan this time.`,
  "grown-gently": (a) => `About ${a.minutes} minutes a day lately: a little more, not a jump.`,

  // what comes back from home
  "home-untold": () => "Nothing was told from home in four weeks: ask how it goes, and send the link again.",
  "home-feed": () => "Practises and enjoys it. Feed it: a piece of their own choosing, a rung more ahead.",
  "home-joyless": (a) =>
    `Practises, and said “dull” ${plural(a.times ?? "", "time")} in four weeks. Do not assume: only their own repeated words count.`,
  "home-ask-parts": () => "Ask which parts of playing they like.",
  "home-choose-together": () => "Choose the next pieces with them.",
  "home-talk": (a) =>
    `Little practice, and “dull” ${plural(a.times ?? "", "time")}: an honest talk. Why does the family want this, what would the student like?`,
  "habit-count": (a) => `You set ${counted[a.sort ?? ""]} to ${plural(a.count ?? "", "time")} on three sheets.`,
  "habit-count-kept": (a) =>
    `${counted[a.sort ?? ""]?.replace(/^./, (c) => c.toUpperCase())}: ${plural(a.count ?? "", "time")}, by your word.`,
  "habit-hands": () => "You put both hands together on three sheets.",
  "habit-struck": (a) => `${a.title}: struck from sheet after sheet, no longer drafted.`,
  "home-habit": () => "Habit first: the same hour each day, the instrument open and in sight.",
  "home-smaller": () => "Smaller steps: five minutes that happen beat twenty that do not.",
  "home-ask-feeling": () => "How it feels was hardly told: ask, and listen more than once.",
  "home-three-way": () => "The talk is three-way: student, parent and you.",

  // the calendar
  "calendar-clash": (a) => `${dayOf(a.on)}: ${a.b} at ${a.start} begins before ${a.a} has ended.`,
  "calendar-long-day": (a) => `${dayOf(a.on)}: ${hours(a.minutes)} of lessons. That is a long day.`,
  "calendar-no-pause": (a) => `${dayOf(a.on)}: ${hours(a.minutes)} from ${a.from} without ten minutes between.`,

  // the seat
  "seat-stand": () => "Standing: feet as wide as the hips, weight on both, knees not locked. Seated:",
  "seat-height": (a) => `Seat at ${cm(a.cm)}${a.low === a.high ? "" : ` (${cm(a.low)} to ${cm(a.high)})`}.`,
  pinned: () => "Pinned: it goes on until you take the pin out, or the piece is secure.",
  "start-drawn": () => "Where the hand begins is drawn: set the finger there first, then look at the notes.",
  "seat-book": () => "Where the seat is low and no tile is at hand: a thick closed book that cannot slip.",
  "keys-labelled": () =>
    "A small label names each key that is in use; take one away as soon as the key is found without it.",
  "seat-tiles": (a) => `${number(a.n)} firm tile${a.n === "1" ? "" : "s"} on the bench at its highest.`,
  "seat-too-high": (a) => `The lowest setting is ${cm(a.cm)} too high: find a lower seat.`,
  "seat-platform": (a) => `Footrest ${cm(a.cm)}${a.low === a.high ? "" : ` (${cm(a.low)} to ${cm(a.high)})`}, firm.`,
  "seat-platform-pedals": (a) =>
    `Platform ${cm(a.cm)} that carries the feet up to the pedals, or a pedal extender; half-standing for one short piece only.`,
  "seat-footstool": (a) => `Footstool ${cm(a.cm)} (${cm(a.low)} to ${cm(a.high)}) under the left foot.`,
  "seat-spike": () =>
    "Front edge of the chair, feet flat. Spike out until the upper edge meets the breastbone and the lowest peg sits behind the left ear; it leans about half way.",
  "seat-firm": () => "Nothing that wobbles: no cushions, no stacked books. Lock the bench.",
  "seat-estimated": () => "Reckoned from stature: a tape measure is better, and children are not small adults.",
  "measure-first": () => "Not measured yet: a tape measure takes a minute.",
  "measure-term": (a) => `Measured ${a.weeks} weeks ago: bodies grow, once a term is usual.`,
  "measure-grown": (a) =>
    `Grown by about ${cm(a.cm)} since last measured, ${plural(a.days ?? "", "day")} ago: measure again.`,

  // loads
  "load-new": (a) => `${a.skill} is new`,
  "load-prepared": (a) => `${a.skill} is new, ${a.n} in 100 of it prepared`,
  "load-learning": (a) => `${a.skill} is still being learnt`,
  "load-rusty": (a) => `${a.skill} has gone rusty`,
  "load-unknown": (a) => `${a.skill} is taken for granted but not known`,
  "load-material": (a) => `${a.n} different bars, more than lately`,
  "load-hands": () => "the first piece for both hands",
  "load-tempo": (a) => `faster than anything so far, ${a.n} to the minute`,

  // the order of rungs
  "next-in-book": (a) => `Next in ${a.book}.`,
  "before-in-book": (a) => `Before ${a.passed}, which ${a.book} puts first: it lets the other arrive prepared.`,
  "landing-after-climb": () => "A landing, to let the climb before it settle.",
  "to-taste": (a) => `A ${a.taste} piece, as the student likes them.`,
  "a-climb": (a) => `A climb: load ${a.load}.`,
  "fill-ladder": (a) =>
    `${plural(a.count ?? "", "rung")} from ${a.books} would follow in the best order, ${a.first} first. They are drawn dashed.`,
  "jump-bridge": (a) =>
    `${jump(a)} ${a.bridge} from ${a.book} meets ${a.meets || "part of it"} first and takes the edge off.`,
  "jump-no-bridge": (a) => `${jump(a)} Nothing on the shelf bridges it: give it more time, or fewer points.`,
  "move-for-date": (a) => `It should be polished by ${date(a.day)}: put it before ${a.before}.`,
  "move-brings": (a) => `It brings ${lower(a.skill)}, which ${a.before} needs: put it first.`,
  "move-landing": (a) => `A landing (load ${a.load}) would do well before ${a.before} (${a.than}).`,
  "move-better": (a) => `The lane climbs more evenly with it before ${a.before}.`,
  "date-at-risk": (a) =>
    `Wanted by ${date(a.day)}; likely ${a.mid ? date(a.mid) : "after this year's terms"}${a.high ? `, perhaps as late as ${date(a.high)}` : ""}. It wants ${plural(a.polish ?? "", "week")} more to be polished. Begin it sooner, park something else, or choose an easier piece.`,
  "polish-for": (a) =>
    `Its day is ${a.days === "0" ? "today" : `${date(a.day)}, in ${plural(a.days ?? "", "day")}`}: it is played every day, whole, as it will be then.`,
  "how-it-went": (a) => `Its day was ${date(a.day)}.`,
  "went-easily": () => "Easily",
  "went-fine": () => "Fine",
  "went-rough": () => "Roughly",
  "went-fell-apart": () => "It fell apart",
  "lane-none": (a) =>
    `${a.books} has no ${lanes[a.lane ?? ""]}. Choose a book or a pool that has some, or leave the lane empty.`,
  "lane-done": (a) =>
    `All ${lanes[a.lane ?? ""]} of ${a.books} is on the ladder or played. Choose what comes after it.`,
  "lane-waits": (a) =>
    `What ${a.books} has left of ${lanes[a.lane ?? ""]} asks for too much that has not come yet, is far below, or waits its turn.`,
  "home-lacks": (a) => `The instrument at home lacks ${lacks[a.what ?? ""] ?? a.what} for ${a.title}.`,
  "load-kept-low": (a) =>
    `At most one new thing in a piece, as set: the heaviest rung ahead weighs ${a.heaviest}, the usual is ${a.usual}.`,

  // head starts
  "gap-pass": () => "It goes now: passed",
  "gap-nearly": () => "Nearly",
  gap: (a) =>
    `${a.skill} was missing when it was asked after. ${
      a.tasks === "0"
        ? "Its small tasks are done: ask again"
        : `${number(a.tasks)} small task${a.tasks === "1" ? "" : "s"} to close the gap, ${plural(a.ready ?? "", "week")}`
    }; it goes from here when it is passed.`,
  "head-start": (a) =>
    `${a.rungs === "1" ? "The next rung" : `${number(a.rungs)} rungs away`}, ${a.title} brings it${a.with ? ` together with ${lower(a.with)}` : ""}. ${
      a.done === "0"
        ? `${number(a.tasks)} small task${a.tasks === "1" ? "" : "s"}`
        : `Task ${Number(a.done) + 1} of ${a.of}`
    }, ready in ${plural(a.ready ?? "", "week")}; it is wanted ${a.weeks === "0" ? "at the next lesson" : `in ${a.weeks}`}.`,
  "head-start-late": (a) =>
    `${a.title} brings it ${a.weeks === "0" ? "at the next lesson" : `in ${plural(a.weeks ?? "", "week")}`}; prepared a little every day it is ready in ${a.ready}.`,
  "fix-landing": (a) => `Put an easier piece before ${a.title}: ${plural(a.weeks ?? "", "week")} would do.`,
  "fix-delay": (a) => `Begin ${a.title} ${plural(a.weeks ?? "", "week")} later.`,
  "fix-drop": (a) => `Leave out the head start on ${lower(a.skill)} for ${a.title}.`,
  "prepared-more": (a) => `${a.skill}: task ${a.done} of ${a.of} done ahead of time.`,

  // upkeep
  carries: (a) => `It carries ${lower(a.skill)}, which is being learnt now.`,
  "due-again": (a) => `Not played for ${plural(a.days ?? "", "day")}; its turn again.`,
  "upkeep-share": (a) =>
    `${a.share} in 100 minutes of practice keep ${plural(a.pieces ?? "", "old piece")} alive; none stays silent longer than ${plural(a.weeks ?? "", "week")}.`,

  // when the path sticks
  "past-its-range": (a) => `In its week ${a.weeks}; nine in ten such pieces are done by week ${a.usual}.`,
  "tries-failed": (a) => `${a.tries} tries in a row brought no foothold.`,
  "points-lost": (a) => `${a.points} points that were met are open again.`,
  "remedy-prerequisite": (a) => `Bring back ${lower(a.skill)} with ${a.piece}.`,
  "remedy-prerequisite-unmet": (a) => `Prepare ${lower(a.skill)}: the piece takes it for granted.`,
  "remedy-split": (a) => `Split it smaller: ${a.bars} different bars make ${a.pieces} pieces of four.`,
  "remedy-seat": () => "Check seat and hand from the floor up.",
  "remedy-seat-point": (a) => `Check seat and hand: ${a.point} is open.`,
  "remedy-easier": (a) => `Put ${a.piece} from ${a.book} in between, an easier piece of the same kind.`,
  "remedy-fewer": (a) => `Hold fewer points: ${a.open} are open, hold only ${a.hold}.`,
  "remedy-ask": (a) => `Ask whether the student likes ${a.title}.`,
  "remedy-ask-dull": (a) =>
    `Ask about it: practice was called dull on ${a.dull} of the last ${plural(a.days ?? "", "day")}. Let the student choose the next piece with you.`,

  // breaks, the first book, and what moved
  "after-break": (a) =>
    `After ${plural(a.days ?? "", "day")} without lesson or practice expect rust: old songs first, lighter plans for two lessons.`,
  "before-the-book": (a) =>
    `No order yet, only small successes. ${a.met} of ${a.of} signs for book one are there; still to come: ${lower(a.missing)}.`,
  "try-first-book": (a) =>
    `${a.met} of ${a.of} signs are there. Show a tune of five notes once: if the student sets the hand alone and plays it back in a steady beat, book one can begin.`,
  "goes-already": () => "It goes already: a success to begin with.",
  "small-thing-going": () => "Begun; once or twice more, then see.",
  "new-small-thing": () => "New, short, and a game.",
  "shifted-later": (a) => `${a.title} is now expected ${plural(a.weeks ?? "", "week")} later.`,
  "shifted-sooner": (a) => `${a.title} is now expected ${plural(a.weeks ?? "", "week")} sooner.`,
  "practised-week": (a) =>
    a.days === "0"
      ? "No practice was told."
      : `Practised on ${plural(a.days ?? "", "day")}, ${a.minutes} minutes in all.`,

  // read off a score
  "minute-figures": (a) => `${plural(a.bars ?? "", "bar")}, ${plural(a.figures ?? "", "figure")} to learn.`,
  "minute-return": (a) =>
    `Bars ${a.bars} are bars ${a.as} ${
      { moved: "from another note", newRhythm: "in another rhythm", ending: "with another ending" }[a.kind ?? ""] ??
      "again"
    }.`,
  "minute-start": (a) => `Begins on ${note(a.key)}.`,
  "minute-start-hand": (a) => `The ${a.hand} hand begins with finger ${a.finger} on ${note(a.key)}.`,
  "minute-start-chord": (a) =>
    `The ${a.hand} hand begins with fingers ${a.fingers} on ${(a.keys ?? "").split(" ").map(note).join(" ")}.`,
  "minute-start-string": (a) =>
    `Begins on ${note(a.key)}: ${a.finger === "0" ? "open string" : `finger ${a.finger} on string`} ${a.string}, ${a.place}.`,
  "minute-hand-figures": (a) => `The ${a.hand} hand alone: ${plural(a.figures ?? "", "figure")}.`,
  "minute-together": (a) =>
    `Two notes at once${a.hand ? ` in the ${a.hand} hand` : ""}: ${a.intervals} in ${inBars(a.bars)}.`,
  "minute-shift": (a) => `The hand moves along the neck in ${inBars(a.bars)}.`,
  "minute-trip": (a) => `Likely to trip in bar ${a.bar}: ${a.why}.`,
  "minute-key": (a) =>
    `${a.likely ? "Likely " : ""}${keyName(a.key)}${a.half ? `; half steps in ${inBars(a.half)}` : ""}.`,
  "minute-theory": (a) =>
    `${a.likely ? "Likely " : ""}${a.key}: home in ${inBars(a.tonic)}${a.dominant ? `, away in ${inBars(a.dominant)}` : ""}${a.half ? `; half steps in ${inBars(a.half)}` : ""}.`,
  "minute-taste": (a) => `It is ${a.taste}.`,
  "new-skill": (a) => `${a.name}: ${a.why}, first in bar ${a.bar}.`,
  "new-notes": (a) => {
    const bars = (a.bars ?? "").split(",");
    const all = (a.notes ?? "").split(",").map((n, i) => `${note(n)} (bar ${bars[i]})`);
    return `${all.length > 1 ? "Notes" : "A note"} not met yet: ${all.join(", ")}.`;
  },
  "minute-crossing": (a) => `The ${a.hand} hand crosses in ${inBars(a.bars)}.`,
  "minute-jump": (a) => `The ${a.hand} hand lets go and moves in ${inBars(a.bars)}.`,
  "minute-leap": (a) =>
    `Widest leap: ${a.leap === "wider" ? "more than an octave" : `${a.leap === "octave" ? "an" : "a"} ${a.leap}`} in bar ${a.bar}.`,

  // what a change of the approach would do
  "effect-none": () => "No plan changes now; it is kept with the student for what comes.",
  "effect-aims": (a) => `The next lesson first asks: ${a.first}`,
  "effect-talks": (a) =>
    a.weeks === "0" ? "No check-in is planned." : `A check-in every ${plural(a.weeks ?? "", "week")}.`,
  "heart-days": (a) => `May lose heart: ${a.now} days at home a week, ${a.before} before.`,
  "heart-dull": (a) => `May lose heart: dull was told ${a.count} times in four weeks. Choose pieces together.`,
  "heart-stuck": (a) => `May lose heart: stuck on ${a.title}. Bring an easier piece in beside it.`,
  "talk-due": (a) =>
    `Check-in due since ${shortDay(a.day ?? "")}, ${{ family: "with the family", student: "with the student", both: "with family and student" }[a.with ?? ""] ?? ""}.`,
  "talk-goals": () => "Goals, and how playing is spoken of at home.",
  "talk-three-way": () => "All three at one table: ask the student first.",
  "talk-agreed": (a) => `What came of what was agreed: ${a.text}`,
  "effect-begin": (a) => `A placement would begin at ${a.title}.`,
  "effect-lesson": (a) => `The coming lesson: ${blocks[a.kind ?? ""] ?? a.kind} ${a.from} → ${a.to} minutes.`,
  "effect-cue": (a) => `Said under ${blocks[a.kind ?? ""] ?? a.kind}: “${a.cue}”`,
  "effect-treats": (a) =>
    a.to === "counted" ? "The family's page offers counting towards a treat." : "The family's page counts nothing.",
  "effect-share": (a) => `Upkeep in the week: ${a.from} → ${a.to} of 100 minutes.`,
  "effect-counts": (a) => `The sheet counts ${counts[a.to ?? ""]}.`,
  "effect-line": (a) => `On the sheet, ${a.title}: ${a.line}.`,
  "effect-hands": (a) => `Hands on the sheet: ${a.first}.`,
  "effect-head-starts": (a) => `Head starts on the sheet: ${a.from} → ${a.to} a week.`,
  "effect-order": (a) => `The order of what would follow changes: ${a.title} is number ${a.place}.`,
  "effect-moves": (a) => `Moves suggested on the ladder: ${a.from} → ${a.to}.`,
  "effect-ready": (a) => `${a.skill} would be ready in ${plural(a.weeks ?? "", "week")}.`,

  // faults of the shelf
  "no-such-skill": (a) => `${a.title} speaks of “${a.skill}”, which is not in the graph.`,
  "other-family": (a) => `${a.title}: ${a.skill} belongs to another family of instruments.`,
  "brings-and-needs": (a) => `${a.title} both brings and needs ${lower(a.skill)}.`,
  "nothing-brings": (a) => `${a.title} needs ${lower(a.skill)}, which nothing on this shelf brings.`,
  "orphan-skill": (a) => `No item names ${lower(a.skill)}.`,
};

const lanes: Record<string, string> = {
  book: "pieces",
  technique: "technique",
  reading: "reading",
  repertoire: "repertoire",
};
const lacks: Record<string, string> = { touch: "keys that answer to touch", pedals: "pedals", keys: "keys enough" };

const counts: Record<string, string> = {
  "by-age": "every time through",
  "correct-only": "only the times that were right",
  quality: "nothing: it stops when it went calmly and right",
};

const sorts: Record<string, string> = {
  listen: "Listening",
  "head-start": "Preparation",
  cards: "Flashcards",
  game: "Games",
};

const blocks: Record<string, string> = {
  "set-up": "sitting down",
  opener: "opener",
  technique: "technique",
  current: "current pieces",
  mixture: "small things",
  activity: "games",
  probe: "first meeting",
  reading: "reading",
  upkeep: "upkeep",
  ahead: "ahead",
  close: "close",
  home: "at home",
};

// cm writes a length in the units of this device: centimetres or inches.
const cm = (n = "") => length(Number(n));

const blockOf = (kind = "") => {
  const name = blocks[kind] ?? kind;
  return name.charAt(0).toUpperCase() + name.slice(1);
};

// note writes F#4 as F sharp.
export const note = (n = "") =>
  n
    .replace(/\d+$/, "")
    .replace("##", " double sharp")
    .replace("#", " sharp")
    .replace(/(?<=.)bb$/, " double flat")
    .replace(/(?<=.)b$/, " flat");

// keyName says a key as it is spoken: "E flat major".
const keyName = (key = "") => key.replace(/^([A-G])b/, "$1 flat").replace(/^([A-G])#/, "$1 sharp");

const inBars = (bars = "") => `${bars.includes(",") ? "bars" : "bar"} ${bars}`;

const words = ["No", "One", "Two", "Three", "Four", "Five", "Six", "Seven", "Eight", "Nine", "Ten"];
const number = (n = "") => words[Number(n)] ?? n;

// lower writes a skill's name inside a sentence.
// lower is a name in the middle of a sentence; a first word of one letter keeps it: C sharp, I lead.
const lower = (s = "") => s.replace(/^\p{Lu}(?=[\p{Ll}’'])/u, (first) => first.toLowerCase());

const date = (d = "") =>
  new Intl.DateTimeFormat("en-GB", { day: "numeric", month: "long", timeZone: "UTC" }).format(
    new Date(`${d}T00:00:00Z`),
  );

// dayOf names a weekday, or a date.
const dayOf = (on = "") => (/^\d/.test(on) ? date(on) : `${on}s`);

const hours = (minutes = "0") => `${Math.round(Number(minutes) / 6) / 10} hours`;

function jump(a: Args): string {
  const parts = [
    a.new && `${number(a.count).toLowerCase()} new at once (${a.new})`,
    a.needs && `taking ${a.needs} for granted`,
  ].filter(Boolean);
  return `${a.title} is a jump, load ${a.over} over the usual: ${parts.join(", ")}.`;
}

export const sentence = (r: Reason) => sentences[r.code]?.(r.args) ?? r.code;
