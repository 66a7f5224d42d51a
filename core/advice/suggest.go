package advice

import (
	"slices"
	"strconv"
	"strings"

	"patientladder/core/ahead"
	"patientladder/core/calendar"
	"patientladder/core/climb"
	"patientladder/core/fact"
	"patientladder/core/judgement"
	"patientladder/core/ladder"
	"patientladder/core/lesson"
	"patientladder/core/mixture"
	"patientladder/core/reason"
	"patientladder/core/shelf"
	"patientladder/core/upkeep"
	"patientladder/core/week"
)

// A Suggestion is what might follow, and why. The teacher accepts it, by facts
// that stand ready, or overrules it by its key.
type Suggestion struct {
	Key      string        `json:"key" doc:"by which it is overruled; empty when it only informs"`
	Band     string        `json:"band" enum:"ahead,now,upkeep,warn"`
	Rung     string        `json:"rung"`
	Title    string        `json:"title"`
	Why      reason.Reason `json:"why"`
	Accept   fact.Bodies   `json:"accept" doc:"to tell, each with an id and a time of its own, when it is accepted; empty when there is nothing to do here"`
	Remedies []Remedy      `json:"remedies" doc:"of a rung that is stuck, the likeliest first"`
	Fixes    []ahead.Fix   `json:"fixes" doc:"of a head start that comes too late"`
}

// A Remedy is one thing to do about a rung that is stuck.
type Remedy struct {
	Do     string        `json:"do" enum:"prerequisite,split,seat-and-hand,easier,fewer-points,ask,answer" doc:"answer: what the teacher may say to a question"`
	Why    reason.Reason `json:"why"`
	Rung   string        `json:"rung" doc:"a secure rung to bring back; empty for none"`
	Accept fact.Bodies   `json:"accept" doc:"to tell when it is taken up; empty when the lesson does it"`
}

// setUp and talk are the minutes of the next lesson for a look at seat and hand, and for
// asking what makes a piece hard. A judgement.
const (
	setUp = 4
	talk  = 5
)

// nextLesson is the day of the lesson whose plan can still be changed: today's until it is
// closed.
func (w Way) nextLesson() calendar.Date {
	day := w.Today()
	if _, closed := w.Standing.Closed[day]; !closed {
		day = day.Add(-1)
	}
	return w.Calendar.Next(w.Slot, day)
}

func (w Way) remedy(r ladder.Rung, m climb.Remedy) Remedy {
	out := Remedy{m.Do, m.Why, m.Rung, fact.Bodies{}}
	if w.nextLesson() == "" && (m.Rung != "" || m.Do == "seat-and-hand" || m.Do == "ask") {
		return out // no lesson comes
	}
	switch {
	case m.Item != "":
		out.Accept = append(out.Accept, w.before(r, w.item(m.Item)))
	case m.Do == "fewer-points" && r.Holding() != "":
		out.Accept = append(out.Accept, fact.PointHeld{Rung: r.ID, Point: r.Holding()})
	case m.Rung != "":
		out.Accept = append(out.Accept, fact.BlockAdded{Day: w.nextLesson(), Into: m.Rung})
	case m.Do == "seat-and-hand":
		out.Accept = append(out.Accept, fact.BlockTimed{Day: w.nextLesson(), Block: string(lesson.SetUp), Minutes: setUp})
	case m.Do == "ask":
		out.Accept = append(out.Accept, fact.BlockTimed{Day: w.nextLesson(), Block: string(lesson.Home), Minutes: talk})
	case m.Do == "split" && len(r.Spots) == 0:
		out.Accept = append(out.Accept, fact.SpotNoted{Rung: r.ID, Where: "1–4", Goal: int(judgement.SpotGoal)})
	}
	return out
}

// waitsLong is after how many lessons without its first a rung in hand is said to wait for long. Common
// practice, no source.
const waitsLong = 3

// Suggestions says what might follow, what presses most first; what was
// overruled stays away.
func (w Way) Suggestions() []Suggestion {
	var out []Suggestion
	say := func(s Suggestion) {
		if s.Key != "" && w.Standing.Refused(s.Key, w.Now) {
			return
		}
		if s.Accept == nil {
			s.Accept = fact.Bodies{}
		}
		if s.Remedies == nil {
			s.Remedies = []Remedy{}
		}
		if s.Fixes == nil {
			s.Fixes = []ahead.Fix{}
		}
		out = append(out, s)
	}
	if w.Break.Light() {
		say(Suggestion{Band: "warn", Why: reason.Of("after-break", "days", strconv.Itoa(w.Break.Days), "left", strconv.Itoa(max(int(judgement.BreakLessons)-w.Break.Lessons, 1)))})
	}
	if a := w.Standing.Ache; a != nil { // nothing about playing is suggested to who may not play
		say(Suggestion{Band: "warn", Why: reason.Of("pain-waits", "side", a.Side)})
		return out
	}
	if w.Standing.BeforeBook {
		w.suggestFirstBook(say)
		return out
	}
	stuck := map[string]bool{}
	for _, s := range w.StuckRungs(w.Student) {
		r, _ := w.Standing.Rung(s.Rung)
		stuck[s.Rung] = true
		var remedies []Remedy
		for _, m := range s.Remedies {
			remedies = append(remedies, w.remedy(r, m))
		}
		say(Suggestion{Key: "stuck:" + r.ID, Band: "warn", Rung: r.ID, Title: r.Item.Title, Why: s.Signs[0], Remedies: remedies})
	}
	var hand []ladder.Rung
	for _, r := range w.Standing.In(ladder.Current) {
		switch {
		case stuck[r.ID]:
		case r.Ready():
			e, _ := w.Expect(r.ID)
			say(Suggestion{Band: "now", Rung: r.ID, Title: r.Item.Title, Why: reason.Of("ready-to-try", "title", r.Item.Title, "weeks", weeks(e.Spent))})
		case r.Taught == nil:
			s := Suggestion{Band: "now", Rung: r.ID, Title: r.Item.Title, Why: reason.Of("first-lesson", "title", r.Item.Title)}
			if n := w.Standing.Waits(r, w.Today().Add(1)); n >= waitsLong {
				s.Key, s.Band, s.Why = "waits:"+r.ID, "warn", reason.Of("waits-long", "title", r.Item.Title, "lessons", strconv.Itoa(n))
				if next := w.nextLesson(); next != "" {
					s.Accept = fact.Bodies{fact.BlockAdded{Day: next, Into: r.ID}}
				}
			}
			say(s)
		default:
			hand = append(hand, r)
		}
	}
	if w.Approach.NewSkills() == 1 {
		heaviest := 0.0
		for _, r := range w.Rungs {
			if r.Taught == nil {
				heaviest = max(heaviest, w.Loads[r.ID].Total)
			}
		}
		say(Suggestion{Band: "upkeep", Why: reason.Of("load-kept-low", "heaviest", strconv.FormatFloat(heaviest, 'f', 1, 64), "usual", strconv.FormatFloat(w.Usual, 'f', 1, 64))})
	}
	w.suggestDates(say)
	for _, r := range w.Standing.In(ladder.Current) {
		s := Suggestion{Key: "even:" + r.ID, Band: "now", Rung: r.ID, Title: r.Item.Title}
		var names []string
		for _, p := range r.OfEvenness() {
			names = append(names, p.Name)
			s.Accept = append(s.Accept, fact.PointMarked{Rung: r.ID, Point: p.Key, State: fact.Met})
		}
		if len(names) > 0 && w.Standing.Evened(r.ID, w.Now) {
			s.Why = reason.Of("evened", "title", r.Item.Title, "days", strconv.Itoa(int(judgement.TakesEven)), "points", strings.Join(names, ", "))
			say(s)
		}
	}
	w.suggestHeadStarts(say)
	for _, j := range w.Jumps {
		s := Suggestion{Key: "jump:" + j.Rung.Item.ID, Band: "warn", Rung: j.Rung.ID, Title: j.Rung.Item.Title, Why: j.Why(w.Graph)}
		if j.Bridge != nil {
			s.Accept = fact.Bodies{w.before(j.Rung, *j.Bridge)}
		}
		say(s)
	}
	for _, m := range w.Moves {
		after := m.After
		if after == "" {
			after = w.belowAhead(m.Rung.Strand)
		}
		say(Suggestion{Key: "move:" + m.Rung.ID, Band: "ahead", Rung: m.Rung.ID, Title: m.Rung.Item.Title, Why: m.Why,
			Accept: fact.Bodies{fact.RungMoved{Rung: m.Rung.ID, After: after}}})
	}
	w.suggestUpkeep(say)
	if n := len(w.Proposals); n > 0 {
		s := Suggestion{Key: climb.FillKey, Band: "ahead", Title: w.Proposals[0].Item.Title,
			Why: reason.Of("fill-ladder", "count", strconv.Itoa(n), "first", w.Proposals[0].Item.Title, "books", strings.Join(w.Standing.Books, ", "))}
		for _, q := range w.Proposals {
			s.Accept = append(s.Accept, fact.RungAdded{Item: q.Item.ID, Strand: string(q.Item.Strand), After: fact.Top, Revision: q.Item.Revision})
		}
		say(s)
	} else if len(w.Standing.In(ladder.Current)) == 0 {
		say(Suggestion{Band: "ahead", Why: reason.Of("nothing-placed")})
	}
	for _, d := range w.Dry {
		say(Suggestion{Key: "dry:" + string(d.Strand), Band: "ahead", Why: d.Why})
	}
	for _, r := range hand {
		why := reason.Of("no-goals", "title", r.Item.Title)
		if missing := r.Missing(); len(missing) > 0 {
			why = reason.Of("in-hand", "title", r.Item.Title, "missing", strings.Join(missing, ", "))
		}
		say(Suggestion{Band: "now", Rung: r.ID, Title: r.Item.Title, Why: why})
	}
	return out
}

// suggestFirstBook says whether it is time to try the test for book one.
func (w Way) suggestFirstBook(say func(Suggestion)) {
	test := mixture.FirstBook(w.Standing, w.Graph, w.Plays)
	code := "before-the-book"
	var accept fact.Bodies
	if test.Near {
		code = "try-first-book"
		accept = fact.Bodies{fact.Probed{Probe: fact.FirstBook, Outcome: "pass"}}
	}
	met := 0
	missing := ""
	for _, s := range test.Signs {
		if s.Met {
			met++
		} else if missing == "" {
			missing = s.Name
		}
	}
	say(Suggestion{Band: "ahead", Why: reason.Of(code, "met", strconv.Itoa(met), "of", strconv.Itoa(len(test.Signs)), "missing", missing), Accept: accept})
}

// lateAtOnce is how many head starts that come too late are said at once: the first ones. A
// judgement.
const lateAtOnce = 3

func (w Way) suggestHeadStarts(say func(Suggestion)) {
	late := 0
	for _, h := range w.Ahead {
		s := Suggestion{Key: ahead.Key(h.Skill), Band: "ahead", Title: h.Name, Why: h.Why(w.Path, w.Graph)}
		if _, placed := w.Standing.Rung(h.Rung); placed {
			s.Rung = h.Rung
		}
		switch h.State {
		case ahead.Late:
			if late++; late > lateAtOnce {
				continue
			}
			s.Band, s.Fixes = "warn", h.Fixes
		case ahead.Running:
		default:
			if !h.Gap || h.State != ahead.Ready {
				continue
			}
		}
		if h.Gap { // asked again, by a game, a piece or at the instrument
			for _, outcome := range []string{fact.Pass, fact.Nearly} {
				s.Remedies = append(s.Remedies, Remedy{Do: "answer", Why: reason.Of("gap-" + outcome), Accept: fact.Bodies{fact.Probed{Probe: h.Skill, Outcome: outcome}}})
			}
		}
		if _, now := h.Now(); now {
			s.Accept = fact.Bodies{fact.Prepared{Skill: h.Skill, Step: h.Done + 1}}
		}
		say(s)
	}
}

// suggestDates warns of rungs with a date that come too late for it, asks for them polished
// in the last weeks, and on the day how it went.
func (w Way) suggestDates(say func(Suggestion)) {
	for _, r := range w.Standing.Rungs {
		if r.Past(w.Today()) {
			s := Suggestion{Key: "went:" + r.ID, Band: "now", Rung: r.ID, Title: r.Item.Title, Why: reason.Of("how-it-went", "title", r.Item.Title, "day", string(r.Target))}
			for _, grade := range []string{"easily", "fine", "rough", "fell-apart"} {
				s.Remedies = append(s.Remedies, Remedy{Do: "answer", Why: reason.Of("went-" + grade), Accept: fact.Bodies{fact.Heard{Rung: r.ID, Grade: grade}, fact.TargetDropped{Rung: r.ID}}})
			}
			say(s)
			continue
		}
		if r.Nearing(w.Today()) && !r.Polished {
			say(Suggestion{Key: "polish:" + r.ID, Band: "now", Rung: r.ID, Title: r.Item.Title, Accept: fact.Bodies{fact.Polished{Rung: r.ID}},
				Why: reason.Of("polish-for", "title", r.Item.Title, "day", string(r.Target), "days", strconv.Itoa(r.Target.Sub(w.Today())))})
		}
		if r.Target == "" || r.Target < w.Today() {
			continue
		}
		if e := w.ReadyFor(r, r.Target); e.State == AtRisk {
			say(Suggestion{Key: "date:" + r.ID, Band: "warn", Rung: r.ID, Title: r.Item.Title,
				Why: reason.Of("date-at-risk", "title", r.Item.Title, "day", string(r.Target), "high", string(e.High), "mid", string(e.Mid), "polish", strconv.Itoa(int(judgement.PolishWeeks)))})
		}
	}
}

// Ready says how a piece stands before a day on which it is played before others.
type Ready struct {
	State string        `json:"state" enum:"polished,polish,comes,at-risk,unknown"`
	By    calendar.Date `json:"by,omitempty" doc:"when it should be secure: some weeks before the day"`
	Mid   calendar.Date `json:"mid,omitempty" doc:"of one in hand: when it is expected"`
	High  calendar.Date `json:"high,omitempty" doc:"and when at the latest, eight times in ten"`
}

// How a piece stands before its day.
const (
	IsPolished = "polished"
	ToPolish   = "polish"  // secure, and to be polished
	Comes      = "comes"   // expected in time
	AtRisk     = "at-risk" // it may come too late to be polished
	NotTold    = "unknown" // nothing is foretold of it
)

// ReadyFor says how a rung stands before a day. What is played before others is secure some weeks
// before it.
func (w Way) ReadyFor(r ladder.Rung, day calendar.Date) Ready {
	out := Ready{By: day.Add(-int(7 * judgement.PolishWeeks))}
	switch e, open := w.Expect(r.ID); {
	case r.Polished:
		out.State = IsPolished
	case r.Foothold != nil:
		out.State = ToPolish
	case !open:
		out.State = NotTold
	default:
		out.State, out.Mid, out.High = Comes, e.Mid, e.High
		if e.High == "" || e.High > out.By {
			out.State = AtRisk
		}
	}
	return out
}

// suggestUpkeep names the secure piece that is most nearly forgotten, and one
// that carries a skill being learnt.
func (w Way) suggestUpkeep(say func(Suggestion)) {
	pieces := upkeep.Pieces(w.Standing, w.Known, w.Now, upkeep.Once(w.Age))
	var fading, carries *upkeep.Piece
	for i := range pieces {
		q := &pieces[i]
		if q.Recall < upkeep.Faded && (fading == nil || q.Recall < fading.Recall) {
			fading = q
		}
		if len(q.Carries) > 0 && q.Recall < judgement.CarryRecall && (carries == nil || len(q.Carries) > len(carries.Carries)) {
			carries = q
		}
	}
	tell := func(q *upkeep.Piece, why reason.Reason) {
		r, _ := w.Standing.Rung(q.ID)
		say(Suggestion{Key: "upkeep:" + q.ID, Band: "upkeep", Rung: q.ID, Title: r.Item.Title, Why: why})
	}
	limit := upkeep.Limit(pieces, week.Budget(w.Age)*6/2)
	if len(pieces) > 0 && w.Approach.UpkeepShare() >= 0.75 {
		say(Suggestion{Band: "upkeep", Why: reason.Of("upkeep-share", "share", percent(w.Approach.UpkeepShare()),
			"pieces", strconv.Itoa(len(pieces)), "weeks", strconv.Itoa(limit))})
	}
	if fading != nil {
		tell(fading, reason.Of("fading", "recall", strconv.Itoa(int(100*fading.Recall)), "days", strconv.Itoa(fading.Silent)))
	}
	if carries != nil && carries != fading {
		tell(carries, reason.Of("carries", "skill", w.Graph.Name(carries.Carries[0])))
	}
}

// below returns the rung under another in its lane; for one that is not on the
// ladder yet, the top of the lane.
func (w Way) below(r ladder.Rung) string {
	under := ""
	for _, other := range w.Standing.Rungs {
		if other.Strand != r.Strand {
			continue
		}
		if other.ID == r.ID {
			return under
		}
		under = other.ID
	}
	return fact.Top
}

// belowAhead returns the highest rung of a lane that is not ahead.
func (w Way) belowAhead(strand shelf.Strand) string {
	under := ""
	for _, r := range w.Standing.Rungs {
		if r.Strand == strand && w.Standing.State(r) != ladder.Ahead {
			under = r.ID
		}
	}
	return under
}

// before places an item before a rung: below it in its lane, or next in the item's own,
// where that is another.
func (w Way) before(r ladder.Rung, it shelf.Item) fact.RungAdded {
	add := fact.RungAdded{Item: it.ID, Strand: string(r.Strand), After: w.below(r), Revision: it.Revision}
	if it.Strand != "" && it.Strand != r.Strand {
		add.Strand, add.After = string(it.Strand), w.belowAhead(it.Strand)
	}
	return add
}

// item is that of the shelf; of one that is not on it only the id.
func (w Way) item(id string) shelf.Item {
	i := slices.IndexFunc(w.Shelf, func(it shelf.Item) bool { return it.ID == id })
	if i < 0 {
		return shelf.Item{ID: id}
	}
	return w.Shelf[i]
}
