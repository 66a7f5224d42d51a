// Package year lives students through forty weeks by the program's own use cases and
// holds every plan, sheet and forecast on the way against the rules that a year must keep.
//
// A life (lives.go) says who is lived and what befalls them. A mind (model.go) is what the
// student really can, drawn at random: the program never sees it, so that what it foretells
// can be scored. The rules (sheets.go, lessons.go, ladders.go) read what a teacher or a
// family would read. What comes out are statements about this model, not about children.
package year

import (
	"context"
	"fmt"
	"math/rand/v2"
	"os"
	"slices"
	"sync"
	"time"

	"github.com/oklog/ulid/v2"

	"patientladder/core/calendar"
	"patientladder/core/fact"
	"patientladder/core/lesson"
	"patientladder/core/shelf"
	"patientladder/demo"
	"patientladder/store"
	"patientladder/studio"
	"patientladder/studio/account"
	"patientladder/studio/library"
	"patientladder/studio/places"
	"patientladder/studio/roster"
)

const zone = "Europe/London"

// Names lists the students who can be lived.
func Names() []string {
	var out []string
	for _, l := range lives {
		out = append(out, l.name)
	}
	return out
}

// Live lives one student for some weeks of lessons in a studio of its own, and counts the
// rules.
func Live(ctx context.Context, s *store.Store, name string, seed uint64, weeks int, by Policy) (Ledger, error) {
	st, err := Open(ctx, s)
	if err != nil {
		return Ledger{}, err
	}
	return st.Live(ctx, name, seed, weeks, by)
}

// Password is that of each studio's teacher.
const Password = "four-lanterns-north"

// A Studio is one whose students are lived.
type Studio struct {
	Email string // of its teacher

	store  *store.Store
	who    studio.Who
	violin sync.Once // brought onto the shelf
	viola  sync.Once
}

// Open makes a studio with the shipped books.
func Open(ctx context.Context, s *store.Store) (*Studio, error) {
	st := &Studio{Email: studio.NewID() + "@year.example", store: s}
	app := st.at(new(terms.Terms[0].From.Time()))
	var err error
	st.who, err = account.Make(ctx, app, account.SignUp{Name: "Ines Falk", Email: st.Email, Password: Password, Studio: "The Net Loft", Zone: zone, Calendar: terms})
	if err != nil {
		return nil, err
	}
	return st, demo.OwnBooks(ctx, app, st.who)
}

// ID returns the studio's id.
func (st *Studio) ID() string { return st.who.Studio }

// at is the program by a clock.
func (st *Studio) at(clock *time.Time) *studio.App {
	return studio.New(st.store, func() time.Time { return *clock }).Lives()
}

// Live lives a student of the studio.
func (st *Studio) Live(ctx context.Context, name string, seed uint64, weeks int, by Policy) (Ledger, error) {
	return st.live(ctx, name, seed, weeks, by, nil)
}

// live is Live, with something else done after the days of each week.
func (st *Studio) live(ctx context.Context, name string, seed uint64, weeks int, by Policy, also func(r *run, k int)) (Ledger, error) {
	i := slices.IndexFunc(lives, func(l life) bool { return l.name == name })
	if i < 0 {
		return Ledger{}, fmt.Errorf("nobody is called %s", name)
	}
	l := lives[i]
	clock := terms.Terms[0].From.Time()
	app := st.at(&clock)
	var err error
	if l.instrument == "violin" {
		st.violin.Do(func() { err = library.AddItems(ctx, app, st.who, violin()) })
	}
	if l.instrument == "viola" {
		st.viola.Do(func() {
			var list []store.NewItem
			for _, it := range titles() {
				list = append(list, store.NewItem{Item: it})
			}
			err = library.AddItems(ctx, app, st.who, list)
		})
	}
	if err != nil {
		return Ledger{}, err
	}
	r := &run{ctx: ctx, app: app, who: st.who, clock: &clock, life: l, rng: rand.New(rand.NewPCG(seed, 7)), ledger: &Ledger{Of: fmt.Sprintf("seed %d: ", seed)}, seen: newSeen(), policy: by, show: os.Getenv("LADDER_SHOW") != ""}
	if r.place, err = time.LoadLocation(zone); err != nil {
		return Ledger{}, err
	}
	if err := r.begin(seed); err != nil {
		return *r.ledger, fmt.Errorf("%s: %w", l.name, err)
	}
	for k := range weeks {
		if err := r.week(k); err != nil {
			return *r.ledger, fmt.Errorf("%s, lesson %d, %s: %w", l.name, k+1, r.day, err)
		}
		if also != nil {
			also(r, k)
		}
	}
	return *r.ledger, r.end()
}

// A run is one life as it goes.
type run struct {
	ctx    context.Context
	app    *studio.App
	who    studio.Who
	clock  *time.Time
	place  *time.Location
	life   life
	rng    *rand.Rand
	mind   *mind
	items  map[string]shelf.Item
	id     string
	at     time.Time
	facts  []fact.Fact
	day    calendar.Date // of the lesson in hand
	ledger *Ledger
	seen   seen
	policy Policy
	queue  map[shelf.Strand][]shelf.Item // what comes in a plain order
	show   bool                          // print each plan and sheet
}

func (r *run) newID() string {
	var entropy [10]byte
	for i := range entropy {
		entropy[i] = byte(r.rng.UintN(256))
	}
	var id ulid.ULID
	_ = id.SetTime(ulid.Timestamp(r.at)) // neither can fail: the time is in range, the entropy ten bytes
	_ = id.SetEntropy(entropy[:])
	return id.String()
}

// say tells a fact, a few seconds after the one before.
func (r *run) say(b fact.Body) string {
	r.at = r.at.Add(5 * time.Second)
	f := fact.Fact{ID: r.newID(), Student: r.id, At: r.at.UTC(), Body: b}
	r.facts = append(r.facts, f)
	return f.ID
}

func (r *run) deliver(by fact.Author) error {
	if len(r.facts) == 0 {
		return nil
	}
	*r.clock = r.at.Add(time.Second)
	err := r.app.TellAs(r.ctx, r.who, by, r.facts)
	r.facts = nil
	return err
}

// begin takes the student on before the first lesson.
func (r *run) begin(seed uint64) error {
	v, err := library.Shelf(r.ctx, r.app, r.who, "", 0)
	if err != nil {
		return err
	}
	r.items = map[string]shelf.Item{}
	var books []shelf.Item
	for {
		for _, it := range v.Items {
			r.items[it.ID] = it
			if it.Instrument == r.life.instrument {
				books = append(books, it)
			}
		}
		if v.Next == 0 {
			break
		}
		if v, err = library.Shelf(r.ctx, r.app, r.who, "", v.Next); err != nil {
			return err
		}
	}
	r.seen.mixture = r.life.begin == "before"
	r.mind = newMind(r.life, seed, books)
	r.day = terms.Lessons(r.life.slot, terms.Terms[0].From, terms.Terms[0].To)[0]
	r.at = r.life.slot.On(r.day, r.place).Add(-2 * time.Hour)
	*r.clock = r.at
	r.id = r.newID()
	_, err = roster.AddStudent(r.ctx, r.app, r.who, roster.NewStudent{ID: r.id, FirstName: r.life.name, FamilyName: "Falk", BirthYear: 2026 - r.life.age, BirthMonth: 3,
		Instrument: r.life.instrument, Slot: r.life.slot, Approach: r.life.approach, Home: r.life.home, Books: r.life.books, Begin: r.life.begin})
	if err == nil && r.life.own != "" {
		r.say(fact.OwnPoint{Name: r.life.own})
		err = r.deliver(fact.Teacher)
	}
	if err == nil && r.policy != ByPath && r.life.begin != "before" {
		err = r.plainly(books)
	}
	return err
}

func (r *run) has(k int, e event) bool { return slices.Contains(r.life.events[k], e) }

// week lives one lesson of the slot and the days up to the next.
func (r *run) week(k int) error {
	slot := r.day
	day, start := slot, r.life.slot.On(slot, r.place)
	defer func() { r.day = terms.Next(r.life.slot, slot) }()
	switch {
	case r.has(k, missed):
		r.at = start.Add(-time.Hour)
		r.say(fact.LessonMissed{Day: slot, By: "illness"})
		if err := r.deliver(fact.Teacher); err != nil {
			return err
		}
		return r.home(k, slot, terms.Next(r.life.slot, slot))
	case r.has(k, untold):
		r.at = start
		return r.home(k, slot, terms.Next(r.life.slot, slot))
	case r.has(k, moved):
		r.at = start.Add(-time.Hour)
		r.say(fact.LessonMoved{Day: slot, To: slot.Add(1)})
		if err := r.deliver(fact.Teacher); err != nil {
			return err
		}
		day = slot.Add(1)
		start = r.life.slot.On(day, r.place)
	}
	next := terms.Next(r.life.slot, slot)
	if r.has(k, extra) {
		r.at = start.Add(-time.Hour)
		r.say(fact.LessonExtra{Day: day.Add(3)})
		if err := r.deliver(fact.Teacher); err != nil {
			return err
		}
		if err := r.given(k, day, start); err != nil {
			return err
		}
		if err := r.after(k, day); err != nil {
			return err
		}
		if err := r.home(k, day, day.Add(3)); err != nil {
			return err
		}
		day = day.Add(3)
		start = r.life.slot.On(day, r.place)
	}
	if err := r.given(k, day, start); err != nil {
		return err
	}
	if err := r.after(k, day); err != nil {
		return err
	}
	return r.home(k, day, next)
}

// given gives a lesson by the plan as it is offered.
func (r *run) given(k int, day calendar.Date, start time.Time) error {
	*r.clock, r.at = start, start
	if r.has(k, remote) {
		r.say(fact.LessonRemote{Day: day, Remote: true})
		if err := r.deliver(fact.Teacher); err != nil {
			return err
		}
	}
	r.at = start
	if r.has(k, short) {
		r.say(fact.LessonLength{Day: day, Minutes: r.life.slot.Minutes * 2 / 3})
		if err := r.deliver(fact.Teacher); err != nil {
			return err
		}
	}
	*r.clock = r.at
	view, err := places.Lesson(r.ctx, r.app, r.who, r.id, day)
	if err != nil {
		return err
	}
	if view.Day != day {
		return fmt.Errorf("the lesson shown is of %s", view.Day)
	}
	if done, err := r.planned(k, day, view.Plan); err != nil || done {
		if err != nil {
			return err
		}
		if view, err = places.Lesson(r.ctx, r.app, r.who, r.id, day); err != nil {
			return err
		}
	}
	r.onPlan(view)
	r.onGames(fmt.Sprintf("%s, lesson of %s", r.life.name, day), view.Plan)
	r.truths("lesson", view.Plan.Says, view.Rungs, day)
	for _, b := range view.Plan.Blocks {
		r.truths("block "+string(b.Kind), b.Why, about(view.Rungs, b.Rung), day)
	}
	r.say(fact.LessonOpened{Day: day})
	worked := map[string]bool{}
	for _, b := range view.Plan.Blocks {
		r.block(b, view, day, worked)
	}
	r.afterwards(worked)
	r.tick(view)
	if r.has(k, fault) {
		r.say(fact.Seen{Fault: view.Faults[r.rng.IntN(len(view.Faults))].Key})
		r.seen.faulted = day
	}
	r.at = start.Add(time.Duration(view.Plan.Minutes) * time.Minute)
	r.say(fact.LessonClosed{Day: day})
	r.pains(k, day)
	if r.has(k, pained) {
		r.say(fact.Pained{Side: "right", Where: "wrist"})
		r.seen.ache = true
	}
	if r.has(k, cleared) {
		r.say(fact.PainCleared{})
		r.seen.ache = false
	}
	r.seen.lessons++
	r.onGaps(view)
	r.seen.before, r.seen.lesson = r.seen.lesson, day
	return r.deliver(fact.Teacher)
}

// planned does to the plan what befalls it; it reports whether anything was changed.
func (r *run) planned(k int, day calendar.Date, plan lesson.Plan) (bool, error) {
	if r.overrules(day, plan) {
		return true, r.deliver(fact.Teacher)
	}
	for _, b := range plan.Blocks {
		switch {
		case r.has(k, swapped) && len(b.Choices) > 0 && b.Kind != lesson.Current:
			r.say(fact.BlockSwapped{Day: day, Block: b.Key, Into: b.Choices[0].Into})
			r.seen.chosen[day] = true
		case r.has(k, skipped) && b.Kind == lesson.Upkeep:
			r.say(fact.BlockDropped{Day: day, Block: b.Key})
		case r.has(k, stretched) && b.Kind == lesson.Current:
			r.say(fact.BlockTimed{Day: day, Block: b.Key, Minutes: min(b.Minutes+5, b.Most)})
		default:
			continue
		}
		return true, r.deliver(fact.Teacher)
	}
	return false, nil
}

// age is how old the student is on a day.
func (r *run) age(d calendar.Date) int {
	age := r.life.age + d.Time().Year() - 2026
	if d.Time().Month() < time.March {
		age--
	}
	return age
}

// piece is what the student knows of a rung.
func (r *run) piece(rung, item string) *piece {
	p := r.mind.pieces[rung]
	if p == nil {
		p = &piece{item: r.items[item]}
		r.mind.pieces[rung] = p
	}
	return p
}
