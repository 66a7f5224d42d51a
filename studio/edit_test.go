package studio_test

import (
	"errors"
	"fmt"
	"math/rand/v2"
	"os"
	"slices"
	"strconv"
	"strings"
	"sync"
	"testing"
	"time"

	"github.com/anishathalye/porcupine"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"patientladder/core/activity"
	"patientladder/core/calendar"
	"patientladder/core/fact"
	"patientladder/core/gather"
	"patientladder/core/programme"
	"patientladder/core/reading"
	"patientladder/core/report"
	"patientladder/core/shelf"
	"patientladder/core/skill"
	"patientladder/internal/full"
	"patientladder/studio"
	"patientladder/studio/account"
	"patientladder/studio/diary"
	"patientladder/studio/library"
	"patientladder/studio/notes"
	"patientladder/studio/places"
	"patientladder/studio/roster"
	"patientladder/studio/sending"
	"patientladder/studio/studiotest"
)

// Histories is how many random histories of each thing are run: LADDER_HISTORIES, else a sample.
func histories(t *testing.T) int {
	if n, err := strconv.Atoi(os.Getenv("LADDER_HISTORIES")); err == nil {
		return n
	}
	return full.Or(12, 500)
}

// A seen thing is what the model knows of it: two texts and a list, in the simplest words.
type seen struct {
	there      bool
	one, other string
	list       string // sorted, with a space after each
}

func (s seen) with(field, value string) seen {
	switch field {
	case "one":
		s.one = value
	case "other":
		s.other = value
	case "add":
		all := append(strings.Fields(s.list), value)
		slices.Sort(all)
		s.list = listed(slices.Compact(all))
	case "take":
		s.list = listed(slices.DeleteFunc(strings.Fields(s.list), func(v string) bool { return v == value }))
	}
	s.there = true
	return s
}

func listed(all []string) string {
	if len(all) == 0 {
		return ""
	}
	return strings.Join(all, " ") + " "
}

// An asking is one request of a client, made from what it last saw; field is empty for a look,
// "drop" to take the thing away.
type asking struct {
	was          seen
	field, value string
}

type answering struct {
	state   seen // of a look
	refused bool // it was overtaken
}

// modelOf says what may follow if every request happens at one moment, one after the other. It
// shares no code with the program: a change of one field is kept where the field is as it was
// seen, or is so already; what is added to a list or taken out of it is kept always.
func modelOf(first seen) porcupine.Model {
	return porcupine.Model{
		Init: func() any { return first },
		Step: func(state, input, output any) (bool, any) {
			is, in, out := state.(seen), input.(asking), output.(answering)
			switch {
			case in.field == "":
				return out.state == is, is
			case in.field == "drop" && out.refused:
				return !is.there || is != in.was, is
			case in.field == "drop":
				return !is.there || is == in.was, seen{}
			case !is.there && in.was.there:
				return out.refused, is
			case !is.there:
				return !out.refused, in.was.with(in.field, in.value)
			case !in.was.there:
				return out.refused || is == in.was.with(in.field, in.value), is // the same made twice may be one
			}
			now := is.with(in.field, in.value)
			free := true
			switch in.field {
			case "one":
				free = is.one == in.was.one || is.one == in.value || in.was.one == in.value
				if in.was.one == in.value {
					now = is // nothing was changed
				}
			case "other":
				free = is.other == in.was.other || is.other == in.value || in.was.other == in.value
				if in.was.other == in.value {
					now = is
				}
			case "add":
				if strings.Contains(in.was.list, in.value+" ") {
					now = is
				}
			case "take":
				if !strings.Contains(in.was.list, in.value+" ") {
					now = is
				}
			}
			if !free {
				return out.refused, is
			}
			return !out.refused, now
		},
		DescribeOperation: func(input, output any) string { return fmt.Sprintf("%+v: %+v", input, output) },
	}
}

// A thing under test tells how a random history deals with it.
type thing struct {
	name   string
	fields []string
	values map[string][]string
	begin  func() seen // afresh, before each history
	look   func() seen
	ask    func(asking) error
	after  func(says string) // what must hold when all is done
}

// of makes a thing of its type: how it is looked up, changed and dropped, and where its fields are.
func of[T any](name string, look func() *T, keep func(studio.Change[T]) error, drop func(*T) error, one, other func(*T) *string, list func(*T) *[]string) thing {
	read := func(v *T) seen {
		if v == nil {
			return seen{}
		}
		s := seen{there: true, one: *one(v)}
		if other != nil {
			s.other = *other(v)
		}
		if list != nil {
			all := slices.Clone(*list(v))
			slices.Sort(all)
			s.list = listed(all)
		}
		return s
	}
	var mu sync.Mutex
	whole := map[seen]T{} // by what the model knows, the thing as it was seen
	known := func(v *T) seen {
		s := read(v)
		if v != nil {
			mu.Lock()
			whole[s] = *v
			mu.Unlock()
		}
		return s
	}
	th := thing{name: name, fields: []string{"", "one"}, values: map[string][]string{}}
	if other != nil {
		th.fields = append(th.fields, "other")
	}
	if list != nil {
		th.fields = append(th.fields, "add", "take")
	}
	if drop != nil {
		th.fields = append(th.fields, "drop")
	}
	th.look = func() seen { return known(look()) }
	th.ask = func(in asking) error {
		mu.Lock()
		was, there := whole[in.was]
		mu.Unlock()
		if in.field == "drop" {
			return drop(&was)
		}
		c := studio.Change[T]{Now: was}
		if there && in.was.there {
			c.Was = &was
		}
		now := in.was.with(in.field, in.value)
		*one(&c.Now) = now.one
		if other != nil {
			*other(&c.Now) = now.other
		}
		if list != nil {
			kept := slices.Clone(*list(&was))
			kept = slices.DeleteFunc(kept, func(v string) bool { return !slices.Contains(strings.Fields(now.list), v) })
			for _, v := range strings.Fields(now.list) {
				if !slices.Contains(kept, v) {
					kept = append(kept, v)
				}
			}
			*list(&c.Now) = kept
		}
		return keep(c)
	}
	return th
}

// run is one history: two to five clients, each with a few requests, made from what it saw last.
func (th thing) run(t *testing.T, r *rand.Rand) []porcupine.Operation {
	clients, each := 2+r.IntN(4), 2+r.IntN(2)
	var mu sync.Mutex
	var history []porcupine.Operation
	var all sync.WaitGroup
	began := time.Now()
	for client := range clients {
		mine := rand.New(rand.NewPCG(r.Uint64(), r.Uint64()))
		all.Go(func() {
			do := func(in asking) answering {
				call := time.Since(began).Nanoseconds()
				var out answering
				if in.field == "" {
					out.state = th.look()
				} else if err := th.ask(in); err != nil {
					var known *studio.Error
					if !errors.As(err, &known) || known.Kind != studio.Stale && known.Kind != studio.Missing {
						t.Errorf("%s: %+v: %v", th.name, in, err)
					}
					out.refused = true
				}
				end := time.Since(began).Nanoseconds()
				mu.Lock()
				history = append(history, porcupine.Operation{ClientId: client, Input: in, Output: out, Call: call, Return: end})
				mu.Unlock()
				return out
			}
			saw := do(asking{}).state
			for range each {
				field := th.fields[mine.IntN(len(th.fields))]
				values := th.values[field]
				switch {
				case field == "":
					saw = do(asking{}).state
				case !saw.there && field != "one": // a new thing begins with its name
				case len(values) == 0:
					do(asking{saw, field, ""})
				default:
					do(asking{saw, field, values[mine.IntN(len(values))]})
				}
			}
		})
	}
	all.Wait()
	return history
}

// Whatever several devices do with one thing at once, from pages new and old, it is as if they had
// done it one after the other, and no change of one is lost to another without a word. Checked as
// linearizability: Herlihy and Wing, "Linearizability: a correctness condition for concurrent
// objects", 1990.
func TestSeveralDevicesAtOnce(t *testing.T) {
	studioWith := func(t *testing.T) []thing {
		r := studiotest.New(t)
		other := roster.NewStudent{ID: studio.NewID(), FirstName: "Ada", BirthYear: 2015, BirthMonth: 1, Instrument: "cello", Slot: calendar.Slot{Weekday: 2, Start: "15:00", Minutes: 30}}
		_, err := roster.AddStudent(ctx, r.App, r.Who, other)
		require.NoError(t, err)
		return things(t, r, other.ID)
	}
	every := studioWith(t)
	for at := range every {
		t.Run(strings.ReplaceAll(every[at].name, " ", "_"), func(t *testing.T) {
			seeds := rand.New(rand.NewPCG(11, 33+uint64(at)))
			th, overtaken := every[at], 0
			for i := range histories(t) {
				if i > 0 && i%perStudio == 0 {
					th = studioWith(t)[at]
				}
				first := th.begin()
				history := th.run(t, seeds)
				for _, op := range history {
					if op.Output.(answering).refused {
						overtaken++
					}
				}
				if !porcupine.CheckOperations(modelOf(first), history) {
					for _, op := range history {
						t.Logf("client %d, %d to %d: %+v: %+v", op.ClientId, op.Call, op.Return, op.Input, op.Output)
					}
					require.Fail(t, "no order of the requests explains the answers", "%s, history %d, from %+v", th.name, i, first)
				}
				if th.after != nil {
					th.after(fmt.Sprintf("history %d", i))
				}
			}
			t.Logf("%s: %d histories, %d changes overtaken", th.name, histories(t), overtaken)
		})
	}
}

// perStudio is how many histories one studio lives through: what they leave behind would make each
// further one slower.
const perStudio = 250

// things are all that is changed as a whole.
func things(t *testing.T, r *studiotest.Room, another string) []thing {
	fail := func(err error) { require.NoError(t, err) }
	words := func(th thing, one, other, list []string) thing {
		th.values["one"], th.values["other"], th.values["add"], th.values["take"] = one, other, list, list
		return th
	}
	named := []string{"Ash", "Beech", "Cedar"}
	var id string

	item := of("item", func() *shelf.Item {
		v, err := library.Item(ctx, r.App, r.Who, id)
		if err != nil {
			return nil
		}
		return &v.Item
	}, func(c studio.Change[shelf.Item]) error {
		if c.Was == nil {
			c.Now = shelf.Item{Title: c.Now.Title, Instrument: "cello", Strand: shelf.Book, Book: "Own", Staves: 1}
		}
		return library.SaveItem(ctx, r.App, r.Who, id, c)
	},
		func(was *shelf.Item) error { return library.DropItem(ctx, r.App, r.Who, id, was) },
		func(it *shelf.Item) *string { return &it.Title }, func(it *shelf.Item) *string { return &it.Composer }, func(it *shelf.Item) *[]string { return &it.Brings })
	item.begin = func() seen {
		id = studio.NewID()
		fail(library.SaveItem(ctx, r.App, r.Who, id, studio.Set(shelf.Item{ID: id, Title: "Ash", Instrument: "cello", Strand: shelf.Book, Book: "Own", Staves: 1})))
		return item.look()
	}
	item = words(item, named, named, []string{"steady-beat", "two-to-a-beat", "dotted"})
	for _, v := range slices.Clone(item.values["add"]) {
		if _, known := studio.Catalogue[v]; !known {
			item.values["add"] = slices.DeleteFunc(item.values["add"], func(o string) bool { return o == v })
			item.values["take"] = item.values["add"]
		}
	}
	require.NotEmpty(t, item.values["add"])

	var rungs []string
	r.Tell(fact.LessonOpened{Day: "2026-11-18"})
	for range 3 {
		rungs = append(rungs, r.Tell(fact.RungAdded{Item: "lamp", Strand: "book", After: fact.Top}))
	}
	type concert struct {
		programme.Event
		Rungs []string
	}
	opened := func(e *programme.Event) *concert {
		if e == nil {
			return nil
		}
		c := &concert{Event: *e}
		for _, one := range e.Entries {
			c.Rungs = append(c.Rungs, one.Rung)
		}
		return c
	}
	shut := func(c concert) programme.Event {
		c.Entries = []programme.Listing{}
		for _, rung := range c.Rungs {
			c.Entries = append(c.Entries, programme.Listing{Student: r.Student, Rung: rung})
		}
		return c.Event
	}
	event := of("concert", func() *concert {
		v, err := diary.Events(ctx, r.App, r.Who)
		fail(err)
		return opened(studio.Find(v.Events, func(e programme.Event) bool { return e.ID == id }))
	}, func(c studio.Change[concert]) error {
		out := studio.Change[programme.Event]{Now: shut(c.Now)}
		if c.Was != nil {
			was := shut(*c.Was)
			out.Was = &was
		}
		if out.Now.Day == "" {
			out.Now.Day, out.Now.Kind = "2026-12-05", "concert"
		}
		return diary.KeepEvent(ctx, r.App, r.Who, id, out)
	}, func(was *concert) error { seen := shut(*was); return diary.DropEvent(ctx, r.App, r.Who, id, &seen) },
		func(c *concert) *string { return &c.Name }, func(c *concert) *string { return &c.Place }, func(c *concert) *[]string { return &c.Rungs })
	event.begin = func() seen {
		id = studio.NewID()
		fail(diary.KeepEvent(ctx, r.App, r.Who, id, studio.Set(programme.Event{ID: id, Name: "Ash", Kind: "concert", Day: "2026-12-05", Entries: []programme.Listing{{Student: r.Student, Rung: rungs[0]}}})))
		return event.look()
	}
	event.after = func(says string) { // the dates on the ladder are those of the concert, and none outlives it
		e := event.look()
		v, err := places.Ladder(ctx, r.App, r.Who, r.Student)
		fail(err)
		for _, rung := range v.Rungs {
			assert.Equal(t, strings.Contains(e.list, rung.ID+" "), rung.Target != "", "concert, %s: %+v and %s", says, e, rung.ID)
		}
		if e.there {
			fail(diary.DropEvent(ctx, r.App, r.Who, id, nil))
			v, err = places.Ladder(ctx, r.App, r.Who, r.Student)
			fail(err)
			assert.False(t, slices.ContainsFunc(v.Rungs, func(rung places.RungView) bool { return rung.Target != "" }), "concert, %s: a date outlives it", says)
		}
	}
	event = words(event, named, named, rungs)

	hour := of("shared hour", func() *gather.Hour {
		v, err := diary.Hours(ctx, r.App, r.Who)
		fail(err)
		return studio.Find(v.Hours, func(h gather.Hour) bool { return h.ID == id })
	}, func(c studio.Change[gather.Hour]) error {
		if c.Now.Day == "" {
			c.Now.Day, c.Now.Minutes, c.Now.Students = "2026-12-05", 60, []string{r.Student, another}
		}
		return diary.KeepHour(ctx, r.App, r.Who, id, c)
	}, func(was *gather.Hour) error { return diary.DropHour(ctx, r.App, r.Who, id, was) },
		func(h *gather.Hour) *string { return &h.Name }, nil, func(h *gather.Hour) *[]string { return &h.Left })
	hour.begin = func() seen {
		id = studio.NewID()
		fail(diary.KeepHour(ctx, r.App, r.Who, id, studio.Set(gather.Hour{ID: id, Name: "Ash", Day: "2026-12-05", Minutes: 60, Students: []string{r.Student, another}, Left: []string{}, Tunes: []string{}})))
		return hour.look()
	}
	hour = words(hour, named, nil, []string{"walk", "know", "voices"})

	// a calendar is its free days; a span goes by its name and its days
	type days struct {
		calendar.Calendar
		One  string // the name of its only term
		Free []string
	}
	span := func(s string) calendar.Span {
		d := calendar.Date(s)
		return calendar.Span{Name: "free", From: d, To: d}
	}
	toDays := func(c calendar.Calendar) *days {
		out := &days{Calendar: c}
		if len(c.Terms) > 0 {
			out.One = c.Terms[0].Name
		}
		for _, f := range c.Free {
			out.Free = append(out.Free, string(f.From))
		}
		return out
	}
	fromDays := func(d days) calendar.Calendar {
		c := calendar.Calendar{Terms: []calendar.Span{{Name: "term", From: "2026-09-07", To: "2026-12-11"}}, Free: []calendar.Span{}}
		for _, f := range d.Free {
			c.Free = append(c.Free, span(f))
		}
		return c
	}
	cal := of("calendar", func() *days {
		v, err := diary.Calendar(ctx, r.App, r.Who)
		fail(err)
		return toDays(calendar.Calendar{Terms: v.Terms, Free: v.Free})
	}, func(c studio.Change[days]) error {
		was := fromDays(*c.Was)
		return diary.SetCalendar(ctx, r.App, r.Who, studio.Change[calendar.Calendar]{Was: &was, Now: fromDays(c.Now)})
	}, nil, func(d *days) *string { return &d.One }, nil, func(d *days) *[]string { return &d.Free })
	cal.fields = []string{"", "add", "take"}
	cal.begin = func() seen {
		fail(diary.SetCalendar(ctx, r.App, r.Who, studio.Set(fromDays(days{Free: []string{"2026-10-05"}}))))
		return cal.look()
	}
	cal = words(cal, nil, nil, []string{"2026-10-05", "2026-10-12", "2026-10-19"})

	person := of("student", func() *roster.Person {
		v, err := roster.Student(ctx, r.App, r.Who, another)
		fail(err)
		return &v.Person
	}, func(c studio.Change[roster.Person]) error {
		return roster.CorrectStudent(ctx, r.App, r.Who, another, c)
	}, nil,
		func(p *roster.Person) *string { return &p.FirstName }, func(p *roster.Person) *string { return &p.FamilyName }, nil)
	person.begin = func() seen {
		fail(roster.CorrectStudent(ctx, r.App, r.Who, another, studio.Set(roster.Person{FirstName: "Ash", FamilyName: "Ash", BirthYear: 2016, BirthMonth: 3, Instrument: "cello"})))
		return person.look()
	}
	person = words(person, named, named, nil)

	slotOf := func() *calendar.Slot {
		v, err := r.App.Store.In(r.Who.Studio).Student(ctx, another)
		fail(err)
		return &v.Slot
	}
	slot := of("weekly lesson", slotOf, func(c studio.Change[calendar.Slot]) error { return diary.SetSlot(ctx, r.App, r.Who, another, c) }, nil,
		func(s *calendar.Slot) *string { return &s.Start }, nil, nil)
	slot.begin = func() seen {
		fail(diary.SetSlot(ctx, r.App, r.Who, another, studio.Set(calendar.Slot{Weekday: 3, Start: "15:00", Minutes: 30})))
		return slot.look()
	}
	slot = words(slot, []string{"15:00", "16:00", "17:00"}, nil, nil)

	contact := of("address", func() *roster.Contact {
		v, err := r.App.Store.In(r.Who.Studio).Student(ctx, another)
		fail(err)
		return &roster.Contact{Address: v.Contact}
	}, func(c studio.Change[roster.Contact]) error { return roster.SetContact(ctx, r.App, r.Who, another, c) }, nil,
		func(c *roster.Contact) *string { return &c.Address }, nil, nil)
	contact.begin = func() seen {
		fail(roster.SetContact(ctx, r.App, r.Who, another, studio.Set(roster.Contact{Address: "ash@homes.example"})))
		return contact.look()
	}
	contact = words(contact, []string{"ash@homes.example", "beech@homes.example", "cedar@homes.example"}, nil, nil)

	type keyboard struct {
		shelf.Home
		Keys string
	}
	home := of("instrument at home", func() *keyboard {
		v, err := r.App.Store.In(r.Who.Studio).Student(ctx, another)
		fail(err)
		return &keyboard{v.Home, strconv.Itoa(v.Home.Keys)}
	}, func(c studio.Change[keyboard]) error {
		was, now := c.Was.Home, c.Now.Home
		was.Keys, _ = strconv.Atoi(c.Was.Keys)
		now.Keys, _ = strconv.Atoi(c.Now.Keys)
		return roster.SetHome(ctx, r.App, r.Who, another, studio.Change[shelf.Home]{Was: &was, Now: now})
	}, nil, func(k *keyboard) *string { return &k.Keys }, nil, nil)
	home.begin = func() seen {
		fail(roster.SetHome(ctx, r.App, r.Who, another, studio.Set(shelf.Home{Keys: 61})))
		return home.look()
	}
	home = words(home, []string{"61", "76", "49"}, nil, nil)

	names := of("account", func() *account.Names {
		v, err := account.Show(ctx, r.App, r.Who, "")
		fail(err)
		return &account.Names{Name: v.Name, Studio: v.Studio, Zone: v.Zone}
	}, func(c studio.Change[account.Names]) error { return account.SetAccount(ctx, r.App, r.Who, c) }, nil,
		func(n *account.Names) *string { return &n.Name }, func(n *account.Names) *string { return &n.Studio }, nil)
	names.begin = func() seen {
		fail(account.SetAccount(ctx, r.App, r.Who, studio.Set(account.Names{Name: "Ash", Studio: "Ash", Zone: "Europe/London"})))
		return names.look()
	}
	names = words(names, named, named, nil)

	type rhythms struct {
		Words      reading.Words
		One, Other string
	}
	spoken := of("rhythm words", func() *rhythms {
		v, err := notes.Words(ctx, r.App, r.Who)
		fail(err)
		return &rhythms{v.Words, v.Words["1"], v.Words["2"]}
	}, func(c studio.Change[rhythms]) error {
		of := func(w rhythms) reading.Words { return reading.Words{"1": w.One, "2": w.Other} }
		was := of(*c.Was)
		return notes.SetWords(ctx, r.App, r.Who, studio.Change[reading.Words]{Was: &was, Now: of(c.Now)})
	}, nil, func(w *rhythms) *string { return &w.One }, func(w *rhythms) *string { return &w.Other }, nil)
	spoken.begin = func() seen {
		fail(notes.SetWords(ctx, r.App, r.Who, studio.Set(reading.Words{"1": "ash", "2": "a-ash"})))
		return spoken.look()
	}
	spoken = words(spoken, []string{"ash", "oak", "elm"}, []string{"a-ash", "bee-ech", "ce-dar"}, nil)

	game := of("activity", func() *activity.Activity {
		v, err := library.Activities(ctx, r.App, r.Who)
		fail(err)
		return studio.Find(v.Activities, func(a activity.Activity) bool { return a.ID == id })
	}, func(c studio.Change[activity.Activity]) error {
		if c.Now.Aim == "" {
			title, look := c.Now.Title, c.Now.Look
			c.Now = ownGame(id)
			c.Now.Title, c.Now.Look = title, look
		}
		return library.SaveActivity(ctx, r.App, r.Who, id, c)
	}, func(was *activity.Activity) error { return library.DropActivity(ctx, r.App, r.Who, id, was) },
		func(a *activity.Activity) *string { return &a.Title }, func(a *activity.Activity) *string { return &a.Look }, nil)
	game.begin = func() seen {
		id = strings.ToLower(studio.NewID())
		fail(library.SaveActivity(ctx, r.App, r.Who, id, studio.Set(ownGame(id))))
		return game.look()
	}
	game = words(game, named, named, nil)

	own := of("skill", func() *skill.Skill {
		v, err := library.Skills(ctx, r.App, r.Who)
		fail(err)
		return studio.Find(v.Skills, func(s skill.Skill) bool { return s.ID == id })
	}, func(c studio.Change[skill.Skill]) error {
		if c.Now.Family == "" {
			name := c.Now.Name
			c.Now = ownSkill(id)
			c.Now.Name = name
		}
		return library.SaveSkill(ctx, r.App, r.Who, id, c)
	}, func(was *skill.Skill) error { return library.DropSkill(ctx, r.App, r.Who, id, was) },
		func(s *skill.Skill) *string { return &s.Name }, nil, func(s *skill.Skill) *[]string { return &s.RestsOn })
	own.begin = func() seen {
		if id != "" { // room for three hundred
			_ = library.DropSkill(ctx, r.App, r.Who, id, nil)
		}
		id = studio.NewID()
		fail(library.SaveSkill(ctx, r.App, r.Who, id, studio.Set(ownSkill(id))))
		return own.look()
	}
	own = words(own, named, nil, item.values["add"])

	fiddle := of("instrument", func() *library.InstrumentView {
		room, err := r.App.Enter(ctx, r.Who)
		fail(err)
		return library.OwnInstrument(room, ownWhistle().ID)
	}, func(c studio.Change[library.InstrumentView]) error {
		if c.Now.Family == "" {
			name := c.Now.Name
			c.Now = ownWhistle()
			c.Now.Name = name
		}
		return library.SaveInstrument(ctx, r.App, r.Who, ownWhistle().ID, c)
	}, func(was *library.InstrumentView) error {
		return library.DropInstrument(ctx, r.App, r.Who, ownWhistle().ID, was)
	}, func(p *library.InstrumentView) *string { return &p.Name }, nil, nil)
	fiddle.begin = func() seen {
		_ = library.DropInstrument(ctx, r.App, r.Who, ownWhistle().ID, nil)
		id = studio.NewID()
		fail(library.SaveInstrument(ctx, r.App, r.Who, ownWhistle().ID, studio.Set(ownWhistle())))
		return fiddle.look()
	}
	fiddle = words(fiddle, []string{"Ash pipe", "Beech pipe", "Cedar pipe"}, nil, nil)

	term := report.Report{}
	letter := of("report", func() *report.Report {
		v, err := sending.Report(ctx, r.App, r.Who, r.Student, "2026-09-07")
		fail(err)
		return &v.Report
	}, func(c studio.Change[report.Report]) error { return sending.KeepReport(ctx, r.App, r.Who, r.Student, c) }, nil,
		func(p *report.Report) *string { return textOf(p, "word") }, func(p *report.Report) *string { return textOf(p, "next") }, nil)
	letter.begin = func() seen {
		if term.Paragraphs == nil {
			fail(diary.SetCalendar(ctx, r.App, r.Who, studio.Set(calendar.Calendar{Terms: []calendar.Span{{Name: "autumn", From: "2026-09-07", To: "2026-12-11"}}, Free: []calendar.Span{}})))
			v, err := sending.Report(ctx, r.App, r.Who, r.Student, "2026-09-07")
			fail(err)
			term = v.Drafted
		}
		fresh := term
		fresh.Paragraphs = slices.Clone(term.Paragraphs)
		*textOf(&fresh, "word"), *textOf(&fresh, "next") = "Ash", "Ash"
		fail(sending.KeepReport(ctx, r.App, r.Who, r.Student, studio.Set(fresh)))
		return letter.look()
	}
	letter = words(letter, named, named, nil)
	return []thing{item, event, hour, cal, person, slot, contact, home, names, spoken, game, own, fiddle, letter}
}

func textOf(r *report.Report, key string) *string {
	r.Paragraphs = slices.Clone(r.Paragraphs)
	for i := range r.Paragraphs {
		if r.Paragraphs[i].Key == key {
			return &r.Paragraphs[i].Text
		}
	}
	r.Paragraphs = append(r.Paragraphs, report.Paragraph{Key: key, Title: key})
	return &r.Paragraphs[len(r.Paragraphs)-1].Text
}

func ownGame(id string) activity.Activity {
	return activity.Activity{ID: id, Title: "Ash", Aim: "left-right", Family: "shared", From: 5, To: 9, Least: 2, Most: 4, Levels: []string{"Show the hand that is named."}, Exit: "eight of eight", Look: "Ash", Own: true}
}

func ownSkill(id string) skill.Skill {
	return skill.Skill{ID: id, Name: "Ash", Family: "shared", Area: "hands", Weight: 1, RestsOn: []string{}, Chain: []skill.Link{{Do: "Let it go.", Minutes: 1, Weeks: 1}}}
}

func ownWhistle() library.InstrumentView {
	return library.InstrumentView{ID: "own-whistle", Name: "Ash pipe", Family: "other", Strings: []string{}, Own: true, Clef: "G2", Low: "D4", High: "B5"}
}

// Two pieces that are each told to be the same as the other never both vanish: of every piece
// that was there, it or what it is the same as stands on the shelf.
func TestMergesFormNoCircle(t *testing.T) {
	r := studiotest.New(t)
	seeds := rand.New(rand.NewPCG(5, 8))
	for i := range histories(t) {
		if i > 0 && i%perStudio == 0 {
			r = studiotest.New(t)
		}
		var ids []string
		for n := range 3 {
			id := studio.NewID()
			ids = append(ids, id)
			require.NoError(t, library.SaveItem(ctx, r.App, r.Who, id, studio.Set(shelf.Item{ID: id, Title: fmt.Sprintf("%d of %d", n, i), Instrument: "cello", Strand: shelf.Book, Book: "Own", Staves: 1})))
		}
		var all sync.WaitGroup
		for range 2 + seeds.IntN(4) {
			a, b := ids[seeds.IntN(3)], ids[seeds.IntN(3)]
			all.Go(func() { _ = library.SameItem(ctx, r.App, r.Who, a, b) }) // one of them may be refused
		}
		all.Wait()
		v, err := library.Shelf(ctx, r.App, r.Who, "", 0)
		require.NoError(t, err)
		for _, id := range ids {
			one, err := r.App.Store.In(r.Who.Studio).Listed(ctx, id)
			require.NoError(t, err)
			assert.True(t, slices.ContainsFunc(v.Items, func(it shelf.Item) bool { return it.ID == id || it.ID == one.SameAs }), "history %d: nothing stands for %s", i, one.Title)
		}
	}
}
