package demo

import (
	"context"
	"fmt"
	"math"
	"math/rand/v2"
	"slices"
	"strings"
	"time"

	"github.com/oklog/ulid/v2"

	"patientladder/core/calendar"
	"patientladder/core/fact"
	"patientladder/core/ladder"
	"patientladder/core/shelf"
	"patientladder/core/touch"
	"patientladder/store"
	"patientladder/studio"
	"patientladder/studio/notes"
	"patientladder/studio/places"
	"patientladder/studio/roster"
)

// A model lives one student's two terms: it moves the clock to each lesson,
// looks at the lesson as the app plans it, and tells what happened. A rung
// takes weeks drawn from the student's true pace, fitted to the time there
// was.
type model struct {
	app   *studio.App
	who   studio.Who
	clock *time.Time
	rng   *rand.Rand
	st    student
	id    string
	at    time.Time
	facts []fact.Fact
	rungs map[string]string // item to rung
	dues  map[string]int    // item to the lesson, counted from 0, that grants its foothold
	from  map[string]int    // item to the lesson that first teaches it
	spots map[string]string // rung to its open spot
	shelf []store.NewItem
	lanes []lane
	tries map[string]int // rung to the lessons it was tried in, before the first book
}

func newModel(app *studio.App, who studio.Who, clock *time.Time, seed uint64, st student, items []store.NewItem) *model {
	return &model{shelf: items, app: app, who: who, clock: clock, rng: rand.New(rand.NewPCG(seed, 2026)), st: st,
		rungs: map[string]string{}, dues: map[string]int{}, from: map[string]int{}, spots: map[string]string{}, tries: map[string]int{}}
}

// newID makes ids from the model's own randomness, so that a seed repeats.
func (m *model) newID() string {
	var entropy [10]byte
	for i := range entropy {
		entropy[i] = byte(m.rng.UintN(256))
	}
	var id ulid.ULID
	// neither can fail: the time is within range, the entropy is ten bytes
	_ = id.SetTime(ulid.Timestamp(m.at))
	_ = id.SetEntropy(entropy[:])
	return id.String()
}

// say adds a fact half a minute after the one before.
func (m *model) say(b fact.Body) string {
	m.at = m.at.Add(30 * time.Second)
	f := fact.Fact{ID: m.newID(), Student: m.id, At: m.at.UTC(), Body: b}
	m.facts = append(m.facts, f)
	return f.ID
}

func (m *model) deliver(ctx context.Context, by fact.Author) error {
	*m.clock = m.at.Add(time.Minute)
	err := m.app.TellAs(ctx, m.who, by, m.facts)
	m.facts = nil
	return err
}

func (m *model) live(ctx context.Context) error {
	place := Now().Location()
	today := calendar.On(Now())
	first := max(terms.Terms[0].From, m.st.since)
	lessons := terms.Lessons(m.st.slot, first, today.Add(-1))
	begun := first
	if len(lessons) > 0 {
		begun = lessons[0]
	}
	m.at = m.st.slot.On(min(begun, today), place).Add(-time.Hour)
	*m.clock = m.at
	m.id = m.newID()
	card := m.st.card(m.id)
	if m.st.begin == "before" {
		card.Books, card.Begin = m.st.books, "before"
	}
	if _, err := roster.AddStudent(ctx, m.app, m.who, card); err != nil {
		return err
	}
	m.lanes = m.run()
	m.setOut(len(lessons))
	if err := m.deliver(ctx, fact.Teacher); err != nil {
		return err
	}
	for k, day := range lessons {
		if err := m.lesson(ctx, k, len(lessons), day, m.st.slot.On(day, place)); err != nil {
			return err
		}
		if err := m.home(ctx, day, min(6, today.Sub(day))); err != nil {
			return err
		}
	}
	return m.lately(ctx)
}

// run gives each lane its items, along the shelf.
func (m *model) run() []lane {
	lanes := slices.Clone(m.st.lanes)
	for i := range lanes {
		l := &lanes[i]
		if len(l.items) > 0 {
			continue
		}
		on := false
		for _, in := range m.shelf {
			it := in.Item
			on = on || it.ID == l.from
			if on && it.Instrument == m.st.instrument && it.Strand == l.strand && len(l.items) < l.secure+1+l.ahead {
				l.items = append(l.items, it.ID)
			}
		}
	}
	return lanes
}

// setOut tells what stood at the beginning: books, where the student began,
// taste, a standing point, and the rungs.
func (m *model) setOut(lessons int) {
	if m.st.begin == "before" {
		return
	}
	for i, b := range m.st.books {
		f := fact.BookChosen{Book: b}
		if i == 0 {
			f.From = m.st.begin
		}
		m.say(f)
	}
	if m.st.taste != "" {
		m.say(fact.TasteAsked{Taste: string(m.st.taste)})
	}
	if m.st.own != "" {
		m.say(fact.OwnPoint{Name: m.st.own})
	}
	for _, l := range m.lanes {
		m.pace(l, lessons)
		for _, item := range l.items {
			m.rungs[item] = m.say(fact.RungAdded{Item: item, Strand: string(l.strand), After: fact.Top})
		}
	}
}

// lately tells what was said after the last lesson.
func (m *model) lately(ctx context.Context) error {
	if b := m.st.body; b != [3]float64{} {
		m.say(fact.SeatMeasured{Stature: b[0], Elbow: b[1], LowerLeg: b[2]})
	}
	for _, key := range m.st.sees {
		m.say(fact.Seen{Fault: key})
	}
	for _, aim := range m.st.probes {
		m.say(fact.Probed{Probe: aim, Outcome: "pass"})
	}
	for _, aim := range m.st.nearly {
		m.say(fact.Probed{Probe: aim, Outcome: "nearly"})
	}
	for _, b := range m.st.after {
		if t, is := b.(fact.TargetSet); is {
			t.Rung = m.rungs[t.Rung]
			b = t
		}
		m.say(b)
	}
	if len(m.facts) == 0 {
		return nil
	}
	return m.deliver(ctx, fact.Teacher)
}

// pace draws how many lessons each secure rung of a lane took, ending where the
// current rung began; a lane that was shorter than the time there was started
// later.
func (m *model) pace(l lane, lessons int) {
	room := float64(lessons - l.weeks)
	total, drawn := 0.0, make([]float64, l.secure)
	for i := range drawn {
		drawn[i] = 2.4 * math.Exp(0.4*m.rng.NormFloat64())
		total += drawn[i]
	}
	fit := min(1, room/max(total, 1))
	begins := room - total*fit
	for i := range l.items[:l.secure+1] {
		m.from[l.items[i]] = int(begins)
		if i < l.secure {
			begins += drawn[i] * fit
			m.dues[l.items[i]] = max(int(begins), m.from[l.items[i]]+1)
		}
	}
}

func (m *model) lesson(ctx context.Context, k, of int, day calendar.Date, start time.Time) error {
	*m.clock, m.at = start, start
	view, err := places.Lesson(ctx, m.app, m.who, m.id, "")
	if err != nil {
		return err
	}
	m.say(fact.LessonOpened{Day: day})
	for _, b := range view.Plan.Blocks {
		switch b.Kind {
		case "opener":
			m.say(fact.OpenedWith{Rung: b.Rung})
			m.say(fact.Heard{Rung: b.Rung, Grade: "easily"})
		case "upkeep":
			m.say(fact.Heard{Rung: b.Rung, Grade: []string{"rough", "fine", "fine", "easily"}[m.rng.IntN(4)]})
		}
	}
	for _, l := range m.lanes {
		for i, item := range l.items {
			if first, known := m.from[item]; known && k >= first {
				m.work(view, l, i, k, of)
			}
		}
	}
	if m.st.begin == "before" {
		m.small(view, k)
	}
	if k == of-1 {
		for _, note := range m.st.notes {
			m.say(fact.Noted{Text: note})
		}
	}
	if last := k - of + len(m.st.thumb); last >= 0 {
		if err := m.playedIn(ctx, last); err != nil {
			return err
		}
	}
	m.say(fact.LessonClosed{Day: day})
	return m.deliver(ctx, fact.Teacher)
}

// playedIn keeps a take of the roll in hand, played with a thumb that stands out as the student's does
// then. It draws nothing from the model's randomness: the history about it is what it would be without.
func (m *model) playedIn(ctx context.Context, n int) error {
	view, err := places.Ladder(ctx, m.app, m.who, m.id)
	if err != nil {
		return err
	}
	for _, r := range view.Rungs {
		if r.State != "current" || len(r.Plays) == 0 || !strings.HasPrefix(r.Plays[0].Exercise, "roll") {
			continue
		}
		set := touch.Setting{Beat: 800, Thumb: m.st.thumb[n], Spread: 2, Seed: uint64(n + 1)}
		v, err := notes.Played(ctx, m.app, m.who, notes.PlayedAsk{Exercise: r.Plays[0].Exercise, Instrument: m.st.instrument, Rung: r.ID, From: "keys", Simulated: &set})
		if err != nil {
			return err
		}
		id := ulid.MustNew(ulid.Timestamp(m.at), strings.NewReader(fmt.Sprintf("played in %4d", n)))
		m.facts = append(m.facts, fact.Fact{ID: id.String(), Student: m.id, At: m.at, Body: v.Keep[0]})
	}
	return nil
}

// small tells what became of the small things of a mixture: each is tried for
// two to four lessons. A beat that is not steady takes longer than all.
func (m *model) small(view places.LessonView, k int) {
	for _, b := range view.Plan.Blocks {
		if b.Kind != "mixture" {
			continue
		}
		tried := m.tries[b.Rung]
		m.tries[b.Rung]++
		if tried == 0 {
			m.say(fact.Taught{Rung: b.Rung})
			continue
		}
		steady := b.Title != "March to the drum"
		if steady && tried >= 1+m.rng.IntN(3) {
			m.say(fact.FootholdTried{Rung: b.Rung, Outcome: "granted"})
		} else {
			m.say(fact.FootholdTried{Rung: b.Rung, Outcome: "not-yet"})
		}
	}
}

// work tells what one lesson did for one rung.
func (m *model) work(view places.LessonView, l lane, i, k, of int) {
	item := l.items[i]
	due, secured := m.dues[item]
	if secured && k > due {
		return
	}
	rung := m.rungs[item]
	var v places.RungView
	for _, r := range view.Rungs {
		if r.ID == rung {
			v = r
		}
	}
	if v.Taught == nil {
		m.say(fact.Taught{Rung: rung})
	}
	if n := len(v.Parts); n > 0 { // one part a week
		if done := k - m.from[item]; done > 0 && done <= n {
			m.say(fact.FootholdTried{Rung: rung, Part: v.Parts[done-1].ID, Outcome: "granted"})
		}
	}
	points := len(v.Points)
	met := l.met * (k - m.from[item] + 1) / max(of-m.from[item], 1)
	if secured {
		met = points * (k - m.from[item] + 1) / (due - m.from[item] + 1)
	}
	slipping := item == m.st.slips && !secured && k >= of-2
	if slipping {
		met = 0
	}
	for j, p := range v.Points {
		switch {
		case p.Key == shelf.Spots:
		case p.Own && p.State == ladder.Unmarked: // the habit comes back with each new piece
			m.say(fact.PointMarked{Rung: rung, Point: p.Key, State: fact.Open})
		case j < met && p.State != ladder.Met:
			m.say(fact.SelfJudged{Rung: rung, Point: p.Key, Says: []string{"yes", "nearly", "yes", "no"}[m.rng.IntN(4)]})
			m.say(fact.PointMarked{Rung: rung, Point: p.Key, State: fact.Met})
		case j == met && p.State == ladder.Unmarked && m.rng.IntN(2) == 0:
			m.say(fact.PointMarked{Rung: rung, Point: p.Key, State: fact.Open})
		}
	}
	if slipping { // what was met comes apart
		for _, p := range v.Points[:min(3, len(v.Points))] {
			if p.State == ladder.Met {
				m.say(fact.PointMarked{Rung: rung, Point: p.Key, State: fact.Open})
			}
		}
	}
	m.spot(l, i, k, of)
	if secured && k == due {
		if m.rng.IntN(5) == 0 {
			m.say(fact.FootholdTried{Rung: rung, Outcome: "not-yet"})
		}
		m.say(fact.FootholdTried{Rung: rung, Outcome: "granted"})
	}
}

// spot notes a hard place in a rung's second lesson and drills it after.
func (m *model) spot(l lane, i, k, of int) {
	item := l.items[i]
	rung, current := m.rungs[item], i == l.secure
	hasSpots := l.strand.Piece()
	if !hasSpots || current && l.spot == "" {
		return
	}
	due := of
	if !current {
		due = m.dues[item]
	}
	switch id, noted := m.spots[rung]; {
	case !noted && k < due:
		where := l.spot
		if !current {
			where = []string{"bar 3", "bar 5", "bars 3 to 4", "the last bar"}[m.rng.IntN(4)]
		}
		m.spots[rung] = m.say(fact.SpotNoted{Rung: rung, Where: where, Goal: 5})
	case noted && current:
		m.say(fact.SpotDrilled{Rung: rung, Spot: id, Run: 3})
	case noted:
		m.say(fact.SpotDrilled{Rung: rung, Spot: id, Run: 5})
	}
}

// home tells of practice between lessons: on each day kept, the minutes, how it
// felt, and the lines of that day's sheet that were ticked.
func (m *model) home(ctx context.Context, after calendar.Date, days int) error {
	view, err := places.Week(ctx, m.app, m.who, m.id, "", 0)
	if err != nil {
		return err
	}
	minutes := min(2*(2026-m.st.year), 32)
	lately := calendar.On(Now()).Sub(after) < 20 // of longer ago only the old pieces are ticked
	for d := 1; d < days; d++ {
		if m.rng.Float64() > m.st.days {
			continue
		}
		day := after.Add(d)
		m.at = day.Time().Add(18 * time.Hour)
		m.say(fact.Practised{Day: day, Minutes: minutes + m.rng.IntN(7) - 3, Felt: m.st.feel[m.rng.IntN(len(m.st.feel))]})
		for _, t := range view.Sheet.Days[d].Tasks {
			tick := fact.Ticked{Day: day, Document: view.Document.ID, Line: t.Key, Rung: t.Rung}
			if t.Band == "upkeep" && m.rng.IntN(4) > 0 || t.Band == "now" && lately && m.rng.IntN(3) > 0 {
				m.say(tick)
			}
		}
	}
	if len(m.facts) == 0 {
		return nil
	}
	return m.deliver(ctx, fact.Family)
}
