package week

import (
	"math"
	"slices"
	"strconv"
	"strings"
	"time"

	"patientladder/core/activity"
	"patientladder/core/approach"
	"patientladder/core/calendar"
	"patientladder/core/fault"
	"patientladder/core/home"
	"patientladder/core/judgement"
	"patientladder/core/ladder"
	"patientladder/core/reason"
	"patientladder/core/shelf"
)

// budget sets the minutes a day: the family's, or the usual of the age; less after
// a break and after a week of which under half the days were practised; and no
// more than a little over what has been practised lately. Raising totals gently is
// common practice, no source.
func (w *writer) budget() {
	sh := w.sheet
	say := func(code string, pairs ...string) { sh.LeftOut = append(sh.LeftOut, reason.Of(code, pairs...)) }
	if m := w.Standing.HomeDays.Minutes; m > 0 {
		sh.Budget = m
	}
	usual := sh.Budget
	defer func() {
		if back := home.Back(w.Standing, w.From, usual); back.On() && w.Standing.Ache == nil {
			sh.Budget = min(sh.Budget, back.Minutes)
			sh.LeftOut = slices.DeleteFunc(sh.LeftOut, func(r reason.Reason) bool { return r.Code == "grown-gently" })
			say("coming-back", "minutes", strconv.Itoa(sh.Budget))
		}
	}()
	switch days, asked := w.lastWeek(); {
	case w.Standing.Ache != nil: // less than usual is asked, and nothing was
		sh.Budget = max(int(judgement.BackFirst*float64(sh.Budget)), 2)
	case w.Path.Break.Light():
		sh.Budget = int(judgement.WeekLight * float64(sh.Budget))
		say("after-break", "days", strconv.Itoa(w.Path.Break.Days))
	case asked > 0 && 2*days < asked:
		sh.Budget = max(int(judgement.WeekLight*float64(sh.Budget)), 2)
		say("thin-week", "days", strconv.Itoa(days), "of", strconv.Itoa(asked))
		w.light = true
		w.rarer()
	default:
		if lately := w.lately(); lately > 0 {
			if most := int(math.Ceil(judgement.WeekGrowth*lately)) + 1; most < sh.Budget {
				sh.Budget = max(most, sh.Budget/2)
				say("grown-gently", "minutes", strconv.Itoa(int(math.Round(lately))))
			}
		}
	}
}

// rarer frees some days after a thin week: four of a usual six are asked for, spread.
// Common practice, no source.
func (w *writer) rarer() {
	if len(w.days) <= rareDays {
		return
	}
	var kept []int
	for i, d := range w.days {
		if i*rareDays/len(w.days) == (i+1)*rareDays/len(w.days) {
			w.sheet.Days[d].Off = true
			continue
		}
		kept = append(kept, d)
	}
	w.days = kept
}

// rareDays is how many days are asked for after a thin week.
const rareDays = 4

// Choices are the minutes that a day at home may be told to have taken, from half
// the minutes asked for to twice as many.
func (sh Sheet) Choices() []int {
	var out []int
	for _, of := range []float64{0.5, 1, 1.5, 2} {
		m := int(math.Round(of*float64(sh.Budget)/5)) * 5
		if sh.Budget < 10 {
			m = int(math.Round(of * float64(sh.Budget)))
		}
		if m = max(m, 2); !slices.Contains(out, m) {
			out = append(out, m)
		}
	}
	return out
}

// lastWeek counts the days practised since the lesson before, and those that were
// asked for; none were where the family has not told of any practice lately.
func (w *writer) lastWeek() (days, asked int) {
	before := calendar.Date("")
	for d := range w.Standing.Closed {
		if d < w.From && d > before {
			before = d
		}
	}
	if before == "" {
		return 0, 0
	}
	if home.Silent(w.Standing, w.From) {
		return 0, 0
	}
	return len(home.Days(w.Standing, before.Add(1), w.From)), len(home.Asked(w.Standing, before.Add(1), min(w.From.Add(-1), before.Add(practice))))
}

// lately returns the mean minutes of the days practised in the last three weeks; 0
// where too few were told.
func (w *writer) lately() float64 {
	mean, n := home.Minutes(w.Standing, w.From.Add(-21), w.From)
	if n < 4 {
		return 0
	}
	return mean
}

// lines says what holds for every practice: the seat first; a rest in each half
// hour where a day is that long; the card of a scale that is reread, and a beat
// track behind it; the way back to an earlier help; what a parent says. Common
// practice, no source; rests within sittings: health advisories for musicians,
// from memory.
func (w *writer) lines() {
	say := func(code string, pairs ...string) {
		w.sheet.Lines = append(w.sheet.Lines, Line{Reason: reason.Of(code, pairs...)})
	}
	if ache := w.Standing.Ache; ache != nil {
		if hand := w.allowed(); hand != "" {
			say("one-hand", "side", ache.Side, "hand", hand)
			return
		}
		say("no-playing", "side", ache.Side)
		return
	}
	if slices.ContainsFunc(w.sheet.LeftOut, func(r reason.Reason) bool { return r.Code == "coming-back" }) {
		say("short-sittings")
	}
	say("seat-first")
	for _, r := range w.Seat {
		if slices.Contains(figures, r.Code) {
			w.sheet.Lines = append(w.sheet.Lines, Line{Reason: r})
		}
	}
	tiles := slices.ContainsFunc(w.Seat, func(r reason.Reason) bool { return r.Code == "seat-tiles" })
	if w.Approach[approach.LowSeat] == approach.ThickBook && (tiles || len(w.Seat) == 0 && w.sheet.Reader == "parent" && w.onKeys()) {
		say("seat-book")
	}
	learnt := w.anything()
	if w.drawn() && w.sheet.Reader == "parent" && learnt {
		say("start-drawn")
	}
	if w.labelled() && w.sheet.Reader == "parent" {
		say("keys-labelled")
	}
	if slices.ContainsFunc(w.sheet.LeftOut, func(r reason.Reason) bool { return r.Code == "thin-week" || r.Code == "after-break" }) {
		say("lighter-week")
	}
	if w.sheet.Budget >= 25 {
		say("rest-within")
	}
	if learnt {
		say("count-" + w.sheet.Counting)
	}
	if f, seen := w.corrected(); seen {
		say("corrected", "fault", f.Key)
	}
	for _, r := range w.in(ladder.Current) {
		scale := func(id string) bool { return strings.HasPrefix(id, "scale-") }
		if r.Strand == shelf.Technique && r.Taught != nil && slices.ContainsFunc(r.Item.Brings, scale) {
			say("aims-card-"+string(w.Plays.Family), "title", r.Item.Title)
			break
		}
	}
	if skill, title := w.earlier(); title != "" {
		say("earlier-help", "skill", w.Graph.Name(skill), "title", title)
	}
	if w.meeting() && w.Age < 8 {
		if len(w.goHome()) > 0 {
			say("child-leads")
		}
		if !activity.Young(w.Age) {
			say("first-drawing")
		}
	}
	if w.sheet.Reader == "parent" && learnt {
		switch w.Approach[approach.Reading] {
		case approach.ByDirection:
			say("script-direction")
		case approach.ByEar:
			say("script-ear")
		default:
			say("script-count")
		}
	}
	if w.sheet.Reader != "adult" {
		say("praise-" + string(w.Approach[approach.Praise]))
	}
	say("stop-if-it-hurts")
}

// anything reports whether anything was taught that can be practised.
func (w *writer) anything() bool {
	return len(w.in(ladder.Secure)) > 0 || slices.ContainsFunc(w.in(ladder.Current), func(r ladder.Rung) bool { return r.Taught != nil })
}

// figures are the codes of what a home has to set for a seat (package seat).
var figures = []string{"seat-tiles", "seat-platform", "seat-platform-pedals", "seat-footstool", "seat-too-high"}

// fresh is how many days a fault is minded at home after it was last seen. A judgement.
const fresh = 15

// corrected is the fault of body or hand that was seen last in the lessons lately: one at
// a time.
func (w *writer) corrected() (fault.Fault, bool) {
	if n := len(w.Standing.Seen); n > 0 && w.From.Sub(calendar.On(w.Standing.Seen[n-1].At)) < fresh {
		return fault.Named(w.Standing.Seen[n-1].Fault)
	}
	return fault.Fault{}, false
}

// earlier finds a skill that a piece in hand takes for granted and the secure piece
// that brought it last: where to go back to when it is lost.
func (w *writer) earlier() (skill, title string) {
	secure := w.in(ladder.Secure)
	hand := w.in(ladder.Current)
	for i := range hand {
		r := &hand[i]
		if r.Taught == nil || !r.Strand.Piece() {
			continue
		}
		var last *time.Time
		for k := range secure {
			old := &secure[k]
			for _, id := range old.Item.Brings {
				itself := strings.EqualFold(w.Graph.Name(id), old.Item.Title) // it would send the family in a circle
				if !itself && slices.Contains(r.Item.Needs, id) && old.Foothold != nil && (last == nil || old.Foothold.After(*last)) {
					skill, title, last = id, old.Item.Title, old.Foothold
				}
			}
		}
		if title != "" {
			return skill, title
		}
	}
	return "", ""
}

// allowed is the hand that may play while the other hurts, on an instrument on which one hand
// alone makes music; empty where nothing is played, as on the day of the pain.
func (w *writer) allowed() string {
	if w.Standing.Ache == nil || !w.Plays.HandsApart() || calendar.On(w.Standing.Ache.At) >= w.From {
		return ""
	}
	return map[string]string{"right": "left", "left": "right"}[w.Standing.Ache.Side]
}

// rest writes the sheet of a student in pain: what the other hand worked on in the lesson, where it
// may play, and listening, another piece each day.
func (w *writer) rest() {
	w.sheet.LeftOut = append(w.sheet.LeftOut, reason.Of("pain-stop", "side", w.Standing.Ache.Side, "where", w.Standing.Ache.Where))
	if w.allowed() != "" {
		w.now()
	}
	list := slices.DeleteFunc(slices.Concat(w.in(ladder.Current), w.in(ladder.Ahead)), func(r ladder.Rung) bool { return !isPiece(r.Item) })
	for turn := range w.days {
		for i := 0; i < min(len(list), listens); i++ {
			r := list[(turn+i)%len(list)]
			w.put(turn+1, Task{Band: "ahead", Rung: r.ID, Title: r.Item.Title, Count: 1, Listen: true, Minutes: 2, Why: reason.Of("rests-the-hands")})
		}
	}
}

// listens is how many pieces a day of rest hears at most.
const listens = 2
