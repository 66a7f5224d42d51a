package roster

import (
	"cmp"
	"context"
	"fmt"
	"maps"
	"slices"
	"strings"
	"time"

	"patientladder/core/approach"
	"patientladder/core/calendar"
	"patientladder/core/climb"
	"patientladder/core/fact"
	"patientladder/core/instrument"
	"patientladder/core/ladder"
	"patientladder/core/placement"
	"patientladder/core/reason"
	"patientladder/core/shelf"
	"patientladder/store"
	"patientladder/studio"
	"patientladder/studio/places"
)

// A NewStudent is what is asked of one: the least.
type NewStudent struct {
	ID         string            `json:"id" minLength:"26" maxLength:"26" doc:"made by the client: a ULID"`
	FirstName  string            `json:"firstName" maxLength:"100"`
	FamilyName string            `json:"familyName" maxLength:"100"`
	BirthYear  int               `json:"birthYear" minimum:"1900" maximum:"2100"`
	BirthMonth int               `json:"birthMonth" minimum:"1" maximum:"12"`
	Instrument instrument.ID     `json:"instrument"`
	Slot       calendar.Slot     `json:"slot"`
	Approach   approach.Approach `json:"approach,omitempty" doc:"questions answered otherwise than is usual for the age"`
	Home       *shelf.Home       `json:"home,omitempty" doc:"the instrument practised on; one that can do everything when left out"`
	Contact    string            `json:"contact,omitempty" maxLength:"400" doc:"mail addresses that the week sheet goes to, two at most"`
	Books      []string          `json:"books,omitempty" maxItems:"20" doc:"books and pools to climb through"`
	Person     string            `json:"person,omitempty" maxLength:"26" doc:"the student who is the same person, on another instrument: names, birth and addresses are that one's"`
	Probes     map[string]string `json:"probes,omitempty" doc:"what is known of skills already, by skill: pass, nearly or not-yet; nine at most"`
	Begin      string            `json:"begin,omitempty" maxLength:"60" doc:"where: an item's id, 'before' for before the first book, empty for the beginning of what was chosen"`
}

// beforeBook as the place to begin.
const beforeBook = "before"

// AddStudent takes on a student, with the books chosen and the first rungs
// placed.
func AddStudent(ctx context.Context, a *studio.App, who studio.Who, in NewStudent) (studio.StudentCard, error) {
	p, facts, err := begin(ctx, a, who, in)
	if err != nil {
		return studio.StudentCard{}, err
	}
	if p.FirstName == "" {
		return studio.StudentCard{}, studio.Refuse("The student needs a first name.")
	}
	if err := p.AddStudent(ctx, p.Student, facts); err != nil {
		return studio.StudentCard{}, studio.Failed(err, "studio")
	}
	return p.Card(p.Student, p.Standing, p.Row.Calendar.Next(p.Slot, p.Today().Add(-1))), nil
}

// A Beginning shows how a new student would begin.
type Beginning struct {
	Age      int               `json:"age"`
	Approach approach.Approach `json:"approach" doc:"with the usual answers for the age"`
	Rows     []approach.Row    `json:"rows" doc:"the questions of the approach"`
	Presumed []string          `json:"presumed" doc:"names of skills taken for granted from where the student begins"`
	Rungs    []FirstRung       `json:"rungs"`
	Empty    *reason.Reason    `json:"empty,omitempty" doc:"why there are none"`
	Before   bool              `json:"before" doc:"the student begins before the first book"`
	Ticks    []places.Question `json:"ticks" doc:"the three of those skills that most of the first rungs stand on"`
}

// ticks is how many skills are ticked off of a student who is taken over in a hurry.
const ticks = 3

// A FirstRung is one of the first rungs.
type FirstRung struct {
	Title  string          `json:"title"`
	Strand shelf.Strand    `json:"strand" enum:"book,technique,reading,repertoire"`
	Slope  climb.Slope     `json:"slope" enum:"climb,step,landing,"`
	Why    []reason.Reason `json:"why"`
}

// Begin shows how a new student would begin, and keeps nothing.
func Begin(ctx context.Context, a *studio.App, who studio.Who, in NewStudent) (Beginning, error) {
	p, facts, err := begin(ctx, a, who, in)
	if err != nil {
		return Beginning{}, err
	}
	s := ladder.Fold(facts, p.Items)
	w := p.Way(s, p.Approach, p.Room.Now)
	v := Beginning{Age: studio.Age(p.Student, p.Today()), Approach: p.Approach, Rows: approach.For(p.Plays), Presumed: p.Graph.Names(w.Presumed), Rungs: []FirstRung{}}
	for _, r := range s.Rungs {
		first := FirstRung{Title: r.Item.Title, Strand: r.Strand, Why: []reason.Reason{}}
		if load, ok := w.Loads[r.ID]; ok {
			first.Slope = load.Slope
		}
		v.Rungs = append(v.Rungs, first)
	}
	v.Before = s.BeforeBook
	switch {
	case len(v.Rungs) > 0:
	case len(in.Books) == 0:
		v.Empty = &reason.Reason{Code: "begins-empty"}
	default:
		none := reason.Of("begins-with-nothing", "book", in.Books[0])
		v.Empty = &none
	}
	var coming []shelf.Item
	for _, r := range s.Rungs {
		coming = append(coming, r.Item)
	}
	v.Ticks = places.Questions(&p, placement.Ticks(p.Graph, w.Presumed, coming, ticks))
	return v, nil
}

// begin checks a new student and works out the first facts: books, and either
// the small things before the first book or the first rungs.
func begin(ctx context.Context, a *studio.App, who studio.Who, in NewStudent) (studio.Pupil, []fact.Fact, error) {
	r, err := a.Enter(ctx, who)
	if err != nil {
		return studio.Pupil{}, nil, err
	}
	st := store.Student{ID: in.ID, FirstName: strings.TrimSpace(in.FirstName), FamilyName: strings.TrimSpace(in.FamilyName),
		BirthYear: in.BirthYear, BirthMonth: in.BirthMonth, Instrument: in.Instrument, Slot: in.Slot}
	if in.Person != "" {
		same, err := r.Student(ctx, in.Person)
		if err != nil {
			return studio.Pupil{}, nil, studio.Failed(err, "student")
		}
		st.FirstName, st.FamilyName, st.BirthYear, st.BirthMonth, in.Contact = same.FirstName, same.FamilyName, same.BirthYear, same.BirthMonth, same.Contact
		st.Person = cmp.Or(same.Person, same.ID)
	}
	named := st
	named.FirstName = cmp.Or(named.FirstName, "somebody") // a preview needs no name
	if err := checkPerson(r, named); err != nil {
		return studio.Pupil{}, nil, err
	}
	if err := in.Slot.Check(); err != nil {
		return studio.Pupil{}, nil, studio.Refuse("The lesson time does not work: %v.", err)
	}
	st.Approach = approach.Default(studio.Age(st, r.Today())).With(in.Approach)
	if err := st.Approach.Check(); err != nil {
		return studio.Pupil{}, nil, studio.Refuse("The approach does not work: %v.", err)
	}
	if in.Home != nil {
		if err := in.Home.Check(); err != nil {
			return studio.Pupil{}, nil, studio.Refuse("The instrument at home does not work: %v.", err)
		}
		st.Home = *in.Home
	}
	if st.Contact, err = contact(in.Contact); err != nil {
		return studio.Pupil{}, nil, err
	}
	p := studio.Pupil{Room: r, Student: st, Plays: r.Instruments.Of(st.Instrument).PlayedAt(studio.Age(st, r.Today()))}
	if err := p.FetchShelf(ctx); err != nil {
		return studio.Pupil{}, nil, err
	}
	if p.Among, err = a.Among(ctx, r, in.ID); err != nil {
		return studio.Pupil{}, nil, err
	}
	facts, err := firstFacts(&p, in)
	return p, facts, err
}

func firstFacts(p *studio.Pupil, in NewStudent) ([]fact.Fact, error) {
	if in.Begin == "" && beginsBefore(p, in.Books) {
		in.Begin = beforeBook
	}
	var facts []fact.Fact
	say := func(by fact.Author, b fact.Body) {
		// made from the student's own id, so that sending twice adds one of each
		facts = append(facts, fact.Fact{ID: fmt.Sprintf("%s%02d", in.ID[:24], len(facts)), Student: in.ID, At: p.Room.Now.UTC().Truncate(time.Microsecond), By: by, Body: b})
	}
	for i, book := range in.Books {
		if footOf(p, book) == "" {
			return nil, studio.Refuse("There is no book %q for %s on the shelf.", book, in.Instrument)
		}
		f := fact.BookChosen{Book: book}
		if i == 0 && in.Begin != beforeBook {
			f.From = in.Begin
			if f.From == "" {
				f.From = footOf(p, book)
			}
			if it, there := p.Items[f.From]; !there || !p.Instruments.Together(it.Instrument, in.Instrument) {
				return nil, studio.Refuse("The piece to begin at is not on the shelf for %s.", in.Instrument)
			}
		}
		say(fact.Teacher, f)
	}
	for _, id := range slices.Sorted(maps.Keys(in.Probes)) {
		if _, known := p.Graph[id]; !known || len(in.Probes) > 9 {
			return nil, studio.Refuse("%q cannot be ticked off: it is no skill of %s.", id, in.Instrument)
		}
		say(fact.Teacher, fact.Probed{Probe: id, Outcome: in.Probes[id]})
	}
	if in.Begin == beforeBook {
		say(fact.Teacher, fact.BeforeBook{})
		for _, it := range shelf.Offered(p.Shelved, p.Instruments, p.Plays) {
			if it.Unit == shelf.BeforeBook && p.Home.Lacks(p.Plays, it) == nil && len(facts) < 60 {
				say(fact.Program, fact.RungAdded{Item: it.ID, Strand: string(it.Strand), After: fact.Top, Revision: it.Revision})
			}
		}
		return facts, nil
	}
	s := ladder.Fold(facts, p.Items)
	for _, q := range p.Way(s, p.Student.Approach, p.Room.Now).Proposals {
		say(fact.Program, fact.RungAdded{Item: q.Item.ID, Strand: string(q.Item.Strand), After: fact.Top, Revision: q.Item.Revision})
	}
	return facts, nil
}

// beginsBefore reports whether all that was chosen is from before the first book: then that
// is where the student begins.
func beginsBefore(p *studio.Pupil, books []string) bool {
	for _, book := range books {
		if p.Items[footOf(p, book)].Unit != shelf.BeforeBook {
			return false
		}
	}
	return len(books) > 0
}

// footOf returns the first item of a book for the student's instrument; empty
// when there is none.
func footOf(p *studio.Pupil, book string) string {
	i := slices.IndexFunc(p.Shelved, func(it shelf.Item) bool { return it.Book == book && it.Instrument == p.Instrument })
	if i < 0 {
		return ""
	}
	return p.Shelved[i].ID
}

// SetHome keeps what a student's instrument at home can do; for the empty
// student, what the studio's can.
func SetHome(ctx context.Context, a *studio.App, who studio.Who, student string, c studio.Change[shelf.Home]) error {
	return a.Edit(ctx, who, func(r studio.Room) error {
		is := r.Row.Home
		if student != "" {
			st, err := r.Student(ctx, student)
			if err != nil {
				return studio.Failed(err, "student")
			}
			is = st.Home
		}
		home, err := c.Onto(&is)
		if err != nil {
			return err
		}
		if err := home.Check(); err != nil {
			return studio.Refuse("The instrument does not work: %v.", err)
		}
		if student == "" {
			return studio.Failed(r.SetStudioHome(ctx, home), "studio")
		}
		return studio.Failed(r.SetHome(ctx, student, home), "student")
	})
}
