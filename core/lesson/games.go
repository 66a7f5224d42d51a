package lesson

import (
	"cmp"
	"hash/fnv"
	"slices"

	"patientladder/core/activity"
	"patientladder/core/approach"
	"patientladder/core/calendar"
	"patientladder/core/fact"
	"patientladder/core/judgement"
	"patientladder/core/ladder"
	"patientladder/core/reason"
	"patientladder/core/upkeep"
)

// first reports whether this is a first meeting: no lesson has been closed and
// nothing is secure.
func (ask Ask) first() bool {
	s := ask.Standing
	for day := range s.Closed {
		if day != ask.Day {
			return false
		}
	}
	return len(s.In(ladder.Secure)) == 0 && !slices.ContainsFunc(s.Rungs, func(r ladder.Rung) bool { return r.Taught != nil })
}

// aims is how many aims a first lesson tries at most: four to six. Common practice, no source.
func aims(age int) int {
	if age >= sitsStill || activity.Young(age) {
		return 5
	}
	return 6
}

// open lists the aims of the first meetings that are not passed yet, in their order. What was
// passed, or is secure by now, is never asked again. Who began with a book before there was a
// first meeting is not asked at all.
func (ask Ask) open() []activity.Probe {
	var out []activity.Probe
	met := ask.first() || ask.Standing.BeforeBook
	for _, p := range activity.Probes(ask.Age, ask.Plays.Family) {
		probe, tried := ask.Standing.Probes[p.Key]
		met = met || tried
		if p.Key == activity.FingerNumbers && !ask.Approach.Fingered(ask.Age) {
			continue
		}
		if probe.Outcome != fact.Pass && !ask.knows(p.Key) && (tried || !activity.Beyond(ask.Presumed)) {
			out = append(out, p)
		}
	}
	if !met {
		return nil
	}
	heads := ask.Approach.Heads(ask.Age)
	slices.SortStableFunc(out, func(a, b activity.Probe) int { return ask.place(a, heads) - ask.place(b, heads) })
	return out
}

// An OpenAim is one of the first meetings that is not passed yet.
type OpenAim struct {
	activity.Probe
	Asks    reason.Reason `json:"asks"`
	Exit    reason.Reason `json:"exit" doc:"when it is passed"`
	Outcome string        `json:"outcome" enum:",nearly,not-yet" doc:"of the last time it was tried; empty for not yet"`
}

// Aims lists what first meetings left open, in the order in which it comes again.
func Aims(ask Ask) []OpenAim {
	ask = ask.ready()
	out := []OpenAim{}
	for _, p := range ask.open() {
		out = append(out, OpenAim{p, reason.Of("probe-asks", "aim", p.Key), reason.Of("probe-exit", "aim", p.Key), ask.Standing.Probes[p.Key].Outcome})
	}
	return out
}

// knows reports whether a skill is secure, or was once. What the first book takes for granted of
// everybody is what first meetings are for; what a later place does was learnt elsewhere.
func (ask Ask) knows(id string) bool {
	if s := ask.Path.Known.State[id]; s != upkeep.Secure && s != upkeep.Rusty {
		return false
	}
	return activity.Beyond(ask.Presumed) || !slices.Contains(upkeep.Granted(ask.Standing, ask.Presumed), id)
}

// longestProbe is how many minutes a question of a first meeting takes at most. Common practice, no source.
const longestProbe = 3

// probes gives a block to each aim of the first meetings that is open.
func (ask Ask) probes() []Block {
	var blocks []Block
	for _, p := range ask.open() {
		games := ask.games(p.Key)
		if len(games) == 0 {
			continue
		}
		b := ask.game(Probe, games[0])
		b.Key, b.Aim, b.Title = "probe:"+p.Key, p.Key, games[0].Title
		if activity.Young(ask.Age) {
			b.want.least = max(int(judgement.LessonFirstGame), games[0].Least)
		} else {
			b.want.least, b.want.best = max(2, games[0].Least), 3
		}
		b.want.best = max(b.want.best, b.want.least)
		b.want.most, b.want.capped = max(longestProbe, b.want.least), true
		b.Why = append(b.Why, reason.Of("probe", "aim", p.Key))
		if activity.Reasoned(p.Key, ask.Age) {
			b.Why = append(b.Why, reason.Of("probe-for", "aim", p.Key))
		}
		if was, tried := ask.Standing.Probes[p.Key]; tried {
			b.Why = append(b.Why, reason.Of("probe-again", "outcome", was.Outcome))
		}
		for _, g := range games[1:min(len(games), 1+choices)] {
			b.Choices = append(b.Choices, Choice{g.ID, g.Title, reason.Of("another-game", "look", g.Look)})
		}
		blocks = append(blocks, b)
	}
	return blocks
}

// atOnce keeps as many aims as a child can take in a lesson, and returns what is
// carried into the next: more is prepared than fits.
func (ask Ask) atOnce(blocks []Block) (kept []Block, carried []reason.Reason) {
	most, n := aims(ask.Age), 0
	switch {
	case ask.first():
	case ask.Standing.BeforeBook:
		most = 2
	default:
		most = 1 // beside a book
	}
	for _, b := range blocks {
		if b.Kind == Probe {
			if n++; n > most {
				carried = append(carried, reason.Of("carried-over", "title", b.Title))
				continue
			}
		}
		kept = append(kept, b)
	}
	return kept, carried
}

// place is where a probe stands among others: finger numbers from day one where that is
// the school, then what the approach puts first, then the usual order; what was played in both
// of the last two lessons lets the others pass.
func (ask Ask) place(p activity.Probe, heads []string) int {
	switch {
	case ask.rests(p.Key):
		return len(heads) + 2
	case p.Key == activity.FingerNumbers && ask.Approach[approach.Numbers] == approach.DayOne:
		return 0
	}
	if i := slices.Index(heads, p.Key); i >= 0 {
		return i
	}
	return len(heads) + 1
}

// rests reports whether games of an aim were played in both of the last two lessons.
func (ask Ask) rests(aim string) bool {
	if len(ask.before) < 2 {
		return false
	}
	for _, day := range ask.before[:2] {
		if !slices.ContainsFunc(ask.Bank, func(a activity.Activity) bool {
			return a.Aim == aim && slices.Contains(ask.Standing.Activities[a.ID].Days, day)
		}) {
			return false
		}
	}
	return true
}

// game makes a block of an activity.
func (ask Ask) game(k Kind, a activity.Activity) Block {
	b := ask.block(k, nil)
	b.Key, b.Title, b.Activity, b.Moving = string(k)+":"+a.ID, a.Title, &a, a.Moving
	b.Level = ask.level(a)
	b.Cue = a.Says(b.Level, ask.Age)
	b.want.least = min(max(b.want.least, a.Least), b.want.most)
	b.want.best = min(max(b.want.best, b.want.least), b.want.most)
	return b
}

// level is the next of an activity: one up for each time it was done, the same
// again after a not yet.
func (ask Ask) level(a activity.Activity) int {
	m, done := ask.Standing.Activities[a.ID]
	switch {
	case !done:
		return 1
	case m.Outcome == "not-yet":
		return max(1, min(m.Level, len(a.Levels)))
	}
	return min(m.Level+1, len(a.Levels))
}

// games lists the activities of an aim that may be done today, the least lately
// done first.
func (ask Ask) games(aim string) []activity.Activity {
	var out []activity.Activity
	for _, a := range ask.Bank {
		if a.Aim == aim && ask.may(a) {
			out = append(out, a)
		}
	}
	slices.SortStableFunc(out, func(a, b activity.Activity) int {
		return cmp.Compare(ask.lastDone(a.ID), ask.lastDone(b.ID))
	})
	return out
}

func (ask Ask) lastDone(id string) calendar.Date {
	days := ask.Standing.Activities[id].Days
	if len(days) == 0 {
		return ""
	}
	return days[len(days)-1]
}

// may reports whether an activity may be done: it fits the student, nothing
// three weeks running unless it was asked for, no hands on from afar.
func (ask Ask) may(a activity.Activity) bool {
	if !a.Fits(ask.Age, ask.Plays.Family) || ask.Remote && a.InRoom() {
		return false
	}
	if !ask.running(a) {
		return true
	}
	asked, was := ask.Standing.Asked[a.ID]
	return was && calendar.On(asked) >= ask.before[0]
}

// running reports whether an activity was done in both of the last two lessons.
func (ask Ask) running(a activity.Activity) bool {
	days := ask.Standing.Activities[a.ID].Days
	return len(ask.before) >= 2 && slices.Contains(days, ask.before[0]) && slices.Contains(days, ask.before[1])
}

// lately lists the last n lessons before this one, the last first.
func (ask Ask) lately(n int) []calendar.Date {
	var days []calendar.Date
	for d := range ask.Standing.Closed {
		if d < ask.Day || ask.Day == "" {
			days = append(days, d)
		}
	}
	slices.Sort(days)
	slices.Reverse(days)
	return days[:min(len(days), n)]
}

// activities offers what breaks up the sitting of a young child, and one game or
// study for what is being learnt.
func (ask Ask) activities(blocks []Block) []Block {
	wanted := movers(ask.Age, ask.Minutes)
	for _, b := range blocks {
		if b.Moving {
			wanted--
		}
	}
	ranked := ask.ranked()
	var out []Block
	take := func(moving bool, must bool) {
		for _, a := range ranked {
			if a.Moving != moving && moving || slices.ContainsFunc(out, func(b Block) bool { return b.Activity.ID == a.ID || b.Activity.Aim == a.Aim }) ||
				slices.ContainsFunc(blocks, func(b Block) bool { return b.Activity != nil && b.Activity.Aim == a.Aim }) {
				continue
			}
			b := ask.game(Activity, a)
			b.want.must = must
			b.Why = append(b.Why, ask.whyActivity(a))
			for _, other := range ranked {
				if other.ID != a.ID && (other.Moving || !moving) && len(b.Choices) < choices {
					b.Choices = append(b.Choices, Choice{other.ID, other.Title, ask.whyActivity(other)})
				}
			}
			out = append(out, b)
			return
		}
	}
	for range max(wanted, 0) {
		take(true, ask.Minutes >= 12)
	}
	if len(out) == 0 && !ask.first() && len(ranked) > 0 && (ask.Age < sitsStill || ask.Minutes >= long && ask.needs[ranked[0].Aim] > 0) {
		take(false, false)
	}
	return out
}

// ranked lists the activities that may be done, those for what is being learnt
// first; between equals another comes first each lesson.
func (ask Ask) ranked() []activity.Activity {
	type ranked struct {
		at    int // in the bank
		worth float64
		turn  uint32
	}
	var list []ranked
	for i := range ask.Bank {
		a := &ask.Bank[i]
		probe, tried := ask.Standing.Probes[a.Aim]
		switch {
		case a.Aim == "improvise" || a.Aim == "listen": // for the close
			continue
		case tried && probe.Outcome == "pass": // its games have stopped
			continue
		case !ask.may(*a):
			continue
		}
		w := ask.needs[a.Aim]
		if activity.IsProbe(a.Aim) && tried {
			w += judgement.GameTried
		}
		if ask.Path.Known.State[a.Aim] == upkeep.Secure {
			w -= judgement.GameSecure
		}
		if len(ask.before) > 0 && ask.lastDone(a.ID) == ask.before[0] {
			w -= judgement.GameAgain
		}
		if _, asked := ask.Standing.Asked[a.ID]; asked {
			w += judgement.GameAsked
		}
		list = append(list, ranked{i, w, ask.turn(a.ID)})
	}
	slices.SortStableFunc(list, func(a, b ranked) int {
		return cmp.Or(cmp.Compare(b.worth, a.worth), cmp.Compare(a.turn, b.turn))
	})
	out := make([]activity.Activity, len(list))
	for i, r := range list {
		out[i] = ask.Bank[r.at]
	}
	return out
}

// turn mixes the day into an id, so that equals take turns by lesson.
func (ask Ask) turn(id string) uint32 {
	h := fnv.New32a()
	h.Write([]byte(string(ask.Day) + id)) // a hash takes whatever it is given
	return h.Sum32()
}

// learning weighs the skills that are being learnt: of the rungs in hand most,
// then those prepared for later, and under eight what the young need.
func (ask Ask) learning() map[string]float64 {
	out := map[string]float64{}
	for _, r := range ask.Standing.In(ladder.Current) {
		for _, id := range r.Item.Brings {
			out[id] = max(out[id], 3)
		}
		for _, id := range r.Item.Needs {
			if ask.Path.Known.State[id] != upkeep.Secure {
				out[id] = max(out[id], 2)
			}
		}
	}
	for _, h := range ask.Ahead {
		if _, now := h.Now(); now {
			out[h.Skill] = max(out[h.Skill], 2)
		}
	}
	return out
}

func (ask Ask) whyActivity(a activity.Activity) reason.Reason {
	name := ask.Graph.Name(a.Aim)
	switch w := ask.needs[a.Aim]; {
	case w >= 3:
		return reason.Of("game-learning", "aim", name)
	case w > 0:
		return reason.Of("game-prepares", "aim", name)
	case a.Moving && ask.Age < sitsStill:
		return reason.Of("game-moves", "aim", name)
	}
	return reason.Of("game-refreshes", "aim", name)
}

// close ends with something made up by the student from today's material, or with
// listening; another each lesson, whether or not it was told how it went. Where there is
// one only, every second lesson ends without.
func (ask Ask) close() Block {
	var list []activity.Activity
	for _, a := range ask.Bank {
		if (a.Aim == "improvise" && ask.Ache == nil || a.Aim == "listen") && ask.may(a) {
			list = append(list, a)
		}
	}
	b := ask.block(Close, nil)
	turn := len(ask.Standing.Closed)
	if ask.first() && !activity.Young(ask.Age) && ask.Age < sitsStill { // guess who walks there; the two are drawn at home
		slices.SortStableFunc(list, func(a, b activity.Activity) int { return cmp.Compare(b.Aim, a.Aim) })
		turn = 0
	}
	if len(list) == 0 || len(list) == 1 && turn%2 == 1 {
		return b
	}
	at := turn % len(list)
	b = ask.game(Close, list[at])
	b.Key, b.want.least = "close", 1
	why := func(a activity.Activity) reason.Reason {
		return reason.Of(map[string]string{"improvise": "close-made-up", "listen": "close-heard"}[a.Aim])
	}
	b.Why = append(b.Why, why(list[at]))
	for n := 1; n < min(len(list), 1+choices); n++ {
		a := list[(at+n)%len(list)]
		b.Choices = append(b.Choices, Choice{a.ID, a.Title, why(a)})
	}
	return b
}

// plays are the kinds of blocks in which the instrument is played.
func plays(b Block) bool {
	switch b.Kind {
	case Opener, Upkeep, Technique, Current, Mixture, Ahead:
		return true
	case Activity, Probe, Close:
		return b.Activity != nil && !quiet(*b.Activity)
	}
	return false
}

// quiet reports whether an activity asks nothing of a hand that hurts.
func quiet(a activity.Activity) bool {
	switch a.Aim {
	case "listen", "sing-back", "higher-lower", "high-low", "major-minor-ear", "chord-ear", "landmarks", "note-names", "steps", "count-different", "form", "direction":
		return true
	}
	return false
}

// spared is what remains for a student in pain: on the side that hurts nothing is
// played, and on strings, which need both hands, nothing at all. A licensed
// clinician says when playing goes on.
func (ask Ask) spared(blocks []Block) []Block {
	other := map[string]string{"right": "left", "left": "right"}[ask.Ache.Side]
	today := calendar.On(ask.Ache.At) == ask.Day
	oneHand := ask.Plays.HandsApart() && other != "" && !today
	var out []Block
	for _, b := range blocks {
		b.Why = slices.DeleteFunc(b.Why, func(r reason.Reason) bool { return r.Code == "ready-to-try" })
		switch {
		case b.Kind == Reading:
			b.Why = append([]reason.Reason{reason.Of("read-not-played")}, b.Why...)
			out = append(out, b)
		case !plays(b):
			out = append(out, b)
		case oneHand && (b.Kind == Current || b.Kind == Opener || b.Kind == Upkeep):
			b.Why = append([]reason.Reason{reason.Of("other-hand-only", "hand", other)}, b.Why...)
			out = append(out, b)
		}
	}
	return append(out, ask.restful(out)...)
}

// restfuls is how many things a lesson of rest offers.
const restfuls = 4

// restful offers what can be done without playing: what was not done for longest first,
// so that the weeks of a rest are not all the same.
func (ask Ask) restful(but []Block) []Block {
	var out []Block
	bank := slices.Clone(ask.Bank)
	slices.SortStableFunc(bank, func(a, b activity.Activity) int {
		return cmp.Or(cmp.Compare(ask.lastDone(a.ID), ask.lastDone(b.ID)), cmp.Compare(ask.turn(a.ID), ask.turn(b.ID)))
	})
	for _, a := range bank {
		taken := slices.ContainsFunc(but, func(b Block) bool { return b.Activity != nil && b.Activity.ID == a.ID })
		if !quiet(a) || a.Aim == "listen" || taken || ask.running(a) || !a.Fits(max(ask.Age, a.From), ask.Plays.Family) || len(out) >= restfuls {
			continue
		}
		b := ask.game(Activity, a)
		b.want.most = Longest(ask.Age)
		b.want.best = min(4, b.want.most)
		b.Why = append(b.Why, reason.Of("rests-the-hands"))
		out = append(out, b)
	}
	return out
}
