package advice

import (
	"cmp"
	"slices"
	"strconv"
	"strings"

	"patientladder/core/calendar"
	"patientladder/core/climb"
	"patientladder/core/home"
	"patientladder/core/ladder"
	"patientladder/core/reason"
)

// A Need is something about a student that a teacher who looks over all of them wants to
// know, and the place where it is seen to.
type Need struct {
	Sort  string        `json:"sort" enum:"pain,heart,talk,stuck,try,date,landing,practice,question,sheet,seat"`
	Why   reason.Reason `json:"why"`
	Place string        `json:"place" enum:"ladder,lesson,week,record,seat"`
	Rung  string        `json:"rung,omitempty"`
}

// sorts of needs, what presses most first.
var sorts = []string{"pain", "heart", "stuck", "try", "date", "question", "landing", "practice", "talk", "sheet", "seat"}

// Presses ranks a student by the needs, the smallest first: by what presses most, then by how
// many there are.
func Presses(needs []Need) int {
	first := len(sorts)
	for _, n := range needs {
		first = min(first, slices.Index(sorts, n.Sort))
	}
	return 100*first - len(needs)
}

// Round reports whether a need is one of the rounds that are made through all students at
// once, as sending sheets, rather than one student's own.
func (n Need) Round() bool { return n.Sort == "sheet" || n.Sort == "seat" || n.Sort == "talk" }

// A Given tells of the newest sheet how it fared.
type Given struct {
	Day     calendar.Date // of its lesson; empty where there is none
	Contact bool          // there is somewhere to send it
	Sent    bool
	Opened  bool // a link of the family was opened since
}

const (
	soon     = 42 // days before a date in which it is told, six weeks
	unopened = 2  // days after which a sheet that nobody opened is asked about
	climbs   = 2  // climbs in a row after which a landing is due
)

// Needs lists what a student needs that does not wait for the lesson to be noticed, what
// presses most first. The days are common practice, no source.
func (w Way) Needs(at home.Answer, seat *reason.Reason, given Given) []Need {
	var out []Need
	say := func(sort, place, rung string, why reason.Reason) { out = append(out, Need{sort, why, place, rung}) }
	s := w.Standing
	if s.Ache != nil {
		say("pain", "lesson", "", reason.Of("pain-stop", "side", s.Ache.Side, "where", s.Ache.Where))
	}
	warned, stuck := map[string]bool{}, ""
	for _, g := range w.Suggestions() {
		switch {
		case strings.HasPrefix(g.Key, "stuck:"):
			stuck = cmp.Or(stuck, g.Title)
			say("stuck", "ladder", g.Rung, g.Why)
		case g.Why.Code == "ready-to-try", g.Why.Code == "try-first-book":
			say("try", "lesson", g.Rung, g.Why)
		case g.Why.Code == "date-at-risk", g.Why.Code == "how-it-went", g.Why.Code == "polish-for":
			warned[g.Rung] = true
			say("date", "ladder", g.Rung, g.Why)
		}
	}
	for _, r := range s.Rungs {
		if days := r.Target.Sub(w.Today()); r.Target != "" && days >= 0 && days <= soon && !warned[r.ID] {
			say("date", "ladder", r.ID, reason.Of("date-comes", "title", r.Item.Title, "day", string(r.Target), "days", strconv.Itoa(days)))
		}
	}
	for _, why := range home.Heart(s, w.Today(), stuck) {
		say("heart", "week", "", why)
	}
	if at.Talk.Over {
		say("talk", "record", "", reason.Of("talk-due", "day", string(at.Talk.Due), "with", at.Talk.With))
	}
	if n := w.climbing(); n >= climbs {
		say("landing", "ladder", "", reason.Of("landing-due", "climbs", strconv.Itoa(n)))
	}
	if n := len(s.Questions); n > 0 {
		say("question", "lesson", "", reason.Of("question-waits", "count", strconv.Itoa(n), "first", s.Questions[0].Text))
	}
	switch {
	case s.Ache != nil: // nothing was asked
	case at.Practice == home.Little:
		say("practice", "week", "", reason.Of("practises-little", "days", strconv.Itoa(at.Days), "asked", strconv.Itoa(at.Asked)))
	case home.Unanswered(s, w.Today()):
		say("practice", "week", "", reason.Of("home-silent", "days", strconv.Itoa(home.Window)))
	}
	switch late := w.Today().Sub(given.Day); {
	case given.Day == "" || late > home.Window:
	case !given.Contact:
	case !given.Sent:
		say("sheet", "week", "", reason.Of("sheet-not-sent", "day", string(given.Day)))
	case !given.Opened && late >= unopened:
		say("sheet", "week", "", reason.Of("sheet-not-opened", "day", string(given.Day), "days", strconv.Itoa(late)))
	}
	if seat != nil {
		say("seat", "seat", "", *seat)
	}
	return out
}

// climbing is how many of the pieces in hand and of those just before them were climbs
// without a landing after.
func (w Way) climbing() int {
	n := 0
	for _, r := range w.Standing.In(ladder.Current) {
		if l, weighed := w.Loads[r.ID]; weighed && r.Taught != nil && l.Slope == climb.Climb {
			n++
		} else if weighed && l.Slope == climb.Landing {
			return 0
		}
	}
	return n
}
