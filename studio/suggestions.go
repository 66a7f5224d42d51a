package studio

import (
	"cmp"
	"maps"
	"slices"
	"strconv"
	"strings"
	"time"

	"patientladder/core/ahead"
	"patientladder/core/calendar"
	"patientladder/core/climb"
	"patientladder/core/fact"
	"patientladder/core/ladder"
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
	Accept   fact.Bodies   `json:"accept" nullable:"false" doc:"to tell, each with an id and a time of its own, when it is accepted; empty when there is nothing to do here"`
	Remedies []Remedy      `json:"remedies" nullable:"false" doc:"of a rung that is stuck, the likeliest first"`
	Fixes    []ahead.Fix   `json:"fixes" nullable:"false" doc:"of a head start that comes too late"`
}

// A Remedy is one thing to do about a rung that is stuck.
type Remedy struct {
	Do     string        `json:"do" enum:"prerequisite,split,seat-and-hand,easier,fewer-points,ask"`
	Why    reason.Reason `json:"why"`
	Rung   string        `json:"rung" doc:"a secure rung to bring back; empty for none"`
	Accept fact.Bodies   `json:"accept" nullable:"false" doc:"to tell when it is taken up; empty when the lesson does it"`
}

func (p *pupil) remedy(r ladder.Rung, m climb.Remedy) Remedy {
	out := Remedy{m.Do, m.Why, m.Rung, fact.Bodies{}}
	switch {
	case m.Item != "":
		out.Accept = append(out.Accept, fact.RungAdded{Item: m.Item, Strand: string(r.Strand), After: p.below(r), Revision: p.items[m.Item].Revision})
	case m.Do == "fewer-points" && r.Holding() != "":
		out.Accept = append(out.Accept, fact.PointHeld{Rung: r.ID, Point: r.Holding()})
	case m.Do == "split" && len(r.Spots) == 0:
		out.Accept = append(out.Accept, fact.SpotNoted{Rung: r.ID, Where: "bars 1 to 4", Goal: 5})
	}
	return out
}

// suggestions says what might follow, what presses most first; what was
// overruled stays away.
func (p *pupil) suggestions(w way) []Suggestion {
	var out []Suggestion
	say := func(s Suggestion) {
		if s.Key != "" && p.standing.Refused(s.Key, p.room.now) {
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
		say(Suggestion{Band: "warn", Why: reason.Of("after-break", "days", strconv.Itoa(w.Break.Days), "left", strconv.Itoa(max(2-w.Break.Lessons, 1)))})
	}
	if p.standing.BeforeBook {
		p.suggestFirstBook(say)
		return out
	}
	stuck := map[string]bool{}
	for _, s := range w.StuckRungs(w.Student) {
		r, _ := p.standing.Rung(s.Rung)
		stuck[s.Rung] = true
		var remedies []Remedy
		for _, m := range s.Remedies {
			remedies = append(remedies, p.remedy(r, m))
		}
		say(Suggestion{Key: "stuck:" + r.ID, Band: "warn", Rung: r.ID, Title: r.Item.Title, Why: s.Signs[0], Remedies: remedies})
	}
	var hand []ladder.Rung
	for _, r := range p.standing.In(ladder.Current) {
		switch {
		case stuck[r.ID]:
		case r.Ready():
			e, _ := w.Expect(r.ID)
			say(Suggestion{Band: "now", Rung: r.ID, Title: r.Item.Title, Why: reason.Of("ready-to-try", "title", r.Item.Title, "weeks", weeks(e.Spent))})
		case r.Taught == nil:
			say(Suggestion{Band: "now", Rung: r.ID, Title: r.Item.Title, Why: reason.Of("first-lesson", "title", r.Item.Title)})
		default:
			hand = append(hand, r)
		}
	}
	if p.Approach.NewSkills() == 1 {
		heaviest := 0.0
		for _, r := range w.Rungs {
			if r.Taught == nil {
				heaviest = max(heaviest, w.Loads[r.ID].Total)
			}
		}
		say(Suggestion{Band: "upkeep", Why: reason.Of("load-kept-low", "heaviest", strconv.FormatFloat(heaviest, 'f', 1, 64), "usual", strconv.FormatFloat(w.Usual, 'f', 1, 64))})
	}
	p.suggestHeadStarts(w, say)
	p.suggestDates(w, say)
	for _, j := range w.Jumps {
		s := Suggestion{Key: "jump:" + j.Rung.Item.ID, Band: "warn", Rung: j.Rung.ID, Title: j.Rung.Item.Title, Why: j.Why(p.graph)}
		if j.Bridge != nil {
			s.Accept = fact.Bodies{fact.RungAdded{Item: j.Bridge.ID, Strand: string(j.Rung.Strand), After: p.below(j.Rung), Revision: j.Bridge.Revision}}
		}
		say(s)
	}
	for _, m := range w.Moves {
		after := m.After
		if after == "" {
			after = p.belowAhead(m.Rung.Strand)
		}
		say(Suggestion{Key: "move:" + m.Rung.ID, Band: "ahead", Rung: m.Rung.ID, Title: m.Rung.Item.Title, Why: m.Why,
			Accept: fact.Bodies{fact.RungMoved{Rung: m.Rung.ID, After: after}}})
	}
	p.suggestUpkeep(w, say)
	if n := len(w.Proposals); n > 0 {
		s := Suggestion{Key: climb.FillKey, Band: "ahead", Title: w.Proposals[0].Item.Title,
			Why: reason.Of("fill-ladder", "count", strconv.Itoa(n), "first", w.Proposals[0].Item.Title, "books", strings.Join(p.standing.Books, ", "))}
		for _, q := range w.Proposals {
			s.Accept = append(s.Accept, fact.RungAdded{Item: q.Item.ID, Strand: string(q.Item.Strand), After: fact.Top, Revision: q.Item.Revision})
		}
		say(s)
	} else if len(p.standing.In(ladder.Current)) == 0 {
		say(Suggestion{Band: "ahead", Why: reason.Of("nothing-placed")})
	}
	for _, r := range hand {
		say(Suggestion{Band: "now", Rung: r.ID, Title: r.Item.Title, Why: reason.Of("in-hand", "title", r.Item.Title, "missing", strings.Join(r.Missing(), ", "))})
	}
	return out
}

// suggestFirstBook says whether it is time to try the test for book one.
func (p *pupil) suggestFirstBook(say func(Suggestion)) {
	test := mixture.FirstBook(p.standing, p.graph, p.plays)
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

func (p *pupil) suggestHeadStarts(w way, say func(Suggestion)) {
	for _, h := range w.ahead {
		s := Suggestion{Key: ahead.Key(h.Skill), Band: "ahead", Title: h.Name, Why: h.Why(w.Path, p.graph)}
		if _, placed := p.standing.Rung(h.Rung); placed {
			s.Rung = h.Rung
		}
		switch h.State {
		case ahead.Late:
			s.Band, s.Fixes = "warn", h.Fixes
		case ahead.Running:
		default:
			continue
		}
		if _, now := h.Now(); now {
			s.Accept = fact.Bodies{fact.Prepared{Skill: h.Skill, Step: h.Done + 1}}
		}
		say(s)
	}
}

// suggestDates warns of rungs with a date that come too late for it.
func (p *pupil) suggestDates(w way, say func(Suggestion)) {
	for _, r := range p.standing.Rungs {
		e, open := w.Expect(r.ID)
		if r.Target == "" || !open || r.Target < p.today() {
			continue
		}
		if e.High == "" || e.High > r.Target {
			say(Suggestion{Key: "date:" + r.ID, Band: "warn", Rung: r.ID, Title: r.Item.Title,
				Why: reason.Of("date-at-risk", "title", r.Item.Title, "day", string(r.Target), "high", string(e.High), "mid", string(e.Mid))})
		}
	}
}

// suggestUpkeep names the secure piece that is most nearly forgotten, and one
// that carries a skill being learnt.
func (p *pupil) suggestUpkeep(w way, say func(Suggestion)) {
	pieces := upkeep.Pieces(p.standing, w.Known, p.room.now, upkeep.Once(age(p.Student, p.today())))
	var fading, carries *upkeep.Piece
	for i := range pieces {
		q := &pieces[i]
		if q.Recall < upkeep.Faded && (fading == nil || q.Recall < fading.Recall) {
			fading = q
		}
		if len(q.Carries) > 0 && q.Recall < 0.93 && (carries == nil || len(q.Carries) > len(carries.Carries)) {
			carries = q
		}
	}
	tell := func(q *upkeep.Piece, why reason.Reason) {
		r, _ := p.standing.Rung(q.ID)
		say(Suggestion{Key: "upkeep:" + q.ID, Band: "upkeep", Rung: q.ID, Title: r.Item.Title, Why: why})
	}
	limit := upkeep.Limit(pieces, week.Budget(age(p.Student, p.today()))*6/2)
	if len(pieces) > 0 && p.Approach.UpkeepShare() >= 0.75 {
		say(Suggestion{Band: "upkeep", Why: reason.Of("upkeep-share", "share", percent(p.Approach.UpkeepShare()),
			"pieces", strconv.Itoa(len(pieces)), "weeks", strconv.Itoa(limit))})
	}
	if fading != nil {
		tell(fading, reason.Of("fading", "recall", strconv.Itoa(int(100*fading.Recall)), "days", strconv.Itoa(fading.Silent)))
	}
	if carries != nil && carries != fading {
		tell(carries, reason.Of("carries", "skill", p.graph.Name(carries.Carries[0])))
	}
}

// below returns the rung under another in its lane; for one that is not on the
// ladder yet, the top of the lane.
func (p *pupil) below(r ladder.Rung) string {
	under := ""
	for _, other := range p.standing.Rungs {
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
func (p *pupil) belowAhead(strand shelf.Strand) string {
	under := ""
	for _, r := range p.standing.Rungs {
		if r.Strand == strand && p.standing.State(r) != ladder.Ahead {
			under = r.ID
		}
	}
	return under
}

// shift is how many weeks a forecast must move to be told, and mostMoves how many
// of them are.
const (
	shift     = 1.5
	mostMoves = 3
)

// changes says what moved since a week ago: footholds, what was taken up, the
// forecasts that shifted most, head starts, and the days practised.
func (p *pupil) changes(w way) []reason.Reason {
	then := p.room.now.Add(-7 * 24 * time.Hour)
	s := p.until(then)
	before := climb.Foresee(p.asStudent(s, p.Approach, then))
	passed := 0.0
	if len(p.calendar().Lessons(p.Slot, calendar.On(then).Add(1), p.today())) > 0 {
		passed = 1
	}
	type moved struct {
		weeks float64
		why   reason.Reason
	}
	out, moves := []reason.Reason{}, []moved{}
	for _, r := range p.standing.Rungs {
		was, there := s.Rung(r.ID)
		switch {
		case r.Foothold != nil && was.Foothold == nil:
			out = append(out, reason.Of("foothold", "title", r.Item.Title))
		case r.Taught != nil && was.Taught == nil:
			out = append(out, reason.Of("taught", "title", r.Item.Title))
		case there:
			e, ok1 := w.Expect(r.ID)
			f, ok2 := before.Expect(r.ID)
			if !ok1 || !ok2 {
				continue
			}
			switch by := e.In.Mid + passed - f.In.Mid; {
			case by >= shift:
				moves = append(moves, moved{by, reason.Of("shifted-later", "title", r.Item.Title, "weeks", weeks(by))})
			case by <= -shift:
				moves = append(moves, moved{-by, reason.Of("shifted-sooner", "title", r.Item.Title, "weeks", weeks(-by))})
			}
		}
	}
	slices.SortStableFunc(moves, func(a, b moved) int { return cmp.Compare(b.weeks, a.weeks) })
	for _, m := range moves[:min(len(moves), mostMoves)] {
		out = append(out, m.why)
	}
	for _, id := range slices.Sorted(maps.Keys(p.standing.Prepared)) {
		if done := p.standing.Prepared[id].Done; done > s.Prepared[id].Done {
			out = append(out, reason.Of("prepared-more", "skill", p.graph.Name(id), "done", strconv.Itoa(done), "of", strconv.Itoa(len(p.graph[id].Chain))))
		}
	}
	practised, minutes := 0, 0
	for _, d := range p.standing.Practice {
		if d.Day > calendar.On(then) {
			practised++
			minutes += d.Minutes
		}
	}
	return append(out, reason.Of("practised-week", "days", strconv.Itoa(practised), "minutes", strconv.Itoa(minutes)))
}

func weeks(w float64) string { return strconv.Itoa(int(w + 0.5)) }
