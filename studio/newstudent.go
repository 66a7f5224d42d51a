package studio

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
	Begin      string            `json:"begin,omitempty" maxLength:"60" doc:"where: an item's id, 'before' for before the first book, empty for the foot of the first book"`
}

// beforeBook as the place to begin.
const beforeBook = "before"

// AddStudent takes on a student, with the books chosen and the first rungs
// placed.
func (a *App) AddStudent(ctx context.Context, who Who, in NewStudent) (StudentCard, error) {
	p, facts, err := a.begin(ctx, who, in)
	if err != nil {
		return StudentCard{}, err
	}
	if p.FirstName == "" {
		return StudentCard{}, invalid("The student needs a first name.")
	}
	if err := p.AddStudent(ctx, p.Student, facts); err != nil {
		return StudentCard{}, told(err, "studio")
	}
	return p.card(p.Student, p.standing, p.row.Calendar.Next(p.Slot, p.today().Add(-1))), nil
}

// A Beginning shows how a new student would begin.
type Beginning struct {
	Age      int               `json:"age"`
	Approach approach.Approach `json:"approach" doc:"with the usual answers for the age"`
	Rows     []approach.Row    `json:"rows" doc:"the questions of the approach"`
	Presumed []string          `json:"presumed" doc:"names of skills taken for granted from where the student begins"`
	Rungs    []FirstRung       `json:"rungs"`
	Ticks    []Question        `json:"ticks" doc:"the three of those skills that most of the first rungs stand on"`
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
func (a *App) Begin(ctx context.Context, who Who, in NewStudent) (Beginning, error) {
	p, facts, err := a.begin(ctx, who, in)
	if err != nil {
		return Beginning{}, err
	}
	s := ladder.Fold(facts, p.items)
	w := p.way(s, p.Approach, p.room.now)
	v := Beginning{Age: age(p.Student, p.today()), Approach: p.Approach, Rows: approach.For(p.plays), Presumed: p.graph.Names(w.Presumed), Rungs: []FirstRung{}}
	for _, r := range s.Rungs {
		first := FirstRung{Title: r.Item.Title, Strand: r.Strand, Why: []reason.Reason{}}
		if load, ok := w.Loads[r.ID]; ok {
			first.Slope = load.Slope
		}
		v.Rungs = append(v.Rungs, first)
	}
	var coming []shelf.Item
	for _, r := range s.Rungs {
		coming = append(coming, r.Item)
	}
	v.Ticks = p.questions(placement.Ticks(p.graph, w.Presumed, coming, ticks))
	return v, nil
}

// begin checks a new student and works out the first facts: books, and either
// the small things before the first book or the first rungs.
func (a *App) begin(ctx context.Context, who Who, in NewStudent) (pupil, []fact.Fact, error) {
	r, err := a.enter(ctx, who)
	if err != nil {
		return pupil{}, nil, err
	}
	st := store.Student{ID: in.ID, FirstName: strings.TrimSpace(in.FirstName), FamilyName: strings.TrimSpace(in.FamilyName),
		BirthYear: in.BirthYear, BirthMonth: in.BirthMonth, Instrument: in.Instrument, Slot: in.Slot}
	if in.Person != "" {
		same, err := r.Student(ctx, in.Person)
		if err != nil {
			return pupil{}, nil, told(err, "student")
		}
		st.FirstName, st.FamilyName, st.BirthYear, st.BirthMonth, in.Contact = same.FirstName, same.FamilyName, same.BirthYear, same.BirthMonth, same.Contact
		st.Person = cmp.Or(same.Person, same.ID)
	}
	named := st
	named.FirstName = cmp.Or(named.FirstName, "somebody") // a preview needs no name
	if err := r.checkPerson(named); err != nil {
		return pupil{}, nil, err
	}
	if err := in.Slot.Check(); err != nil {
		return pupil{}, nil, invalid("The lesson time does not work: %v.", err)
	}
	st.Approach = approach.Default(age(st, r.today())).With(in.Approach)
	if err := st.Approach.Check(); err != nil {
		return pupil{}, nil, invalid("The approach does not work: %v.", err)
	}
	if in.Home != nil {
		if err := in.Home.Check(); err != nil {
			return pupil{}, nil, invalid("The instrument at home does not work: %v.", err)
		}
		st.Home = *in.Home
	}
	if st.Contact, err = contact(in.Contact); err != nil {
		return pupil{}, nil, err
	}
	p := pupil{room: r, Student: st, plays: r.instruments.Of(st.Instrument).PlayedAt(age(st, r.today()))}
	if err := p.fetchShelf(ctx); err != nil {
		return pupil{}, nil, err
	}
	if p.among, err = a.among(ctx, r, in.ID); err != nil {
		return pupil{}, nil, err
	}
	facts, err := p.firstFacts(in)
	return p, facts, err
}

func (p *pupil) firstFacts(in NewStudent) ([]fact.Fact, error) {
	var facts []fact.Fact
	say := func(by fact.Author, b fact.Body) {
		// made from the student's own id, so that sending twice adds one of each
		facts = append(facts, fact.Fact{ID: fmt.Sprintf("%s%02d", in.ID[:24], len(facts)), Student: in.ID, At: p.room.now.UTC().Truncate(time.Microsecond), By: by, Body: b})
	}
	for i, book := range in.Books {
		if p.footOf(book) == "" {
			return nil, invalid("There is no book %q for %s on the shelf.", book, in.Instrument)
		}
		f := fact.BookChosen{Book: book}
		if i == 0 && in.Begin != beforeBook {
			f.From = in.Begin
			if f.From == "" {
				f.From = p.footOf(book)
			}
			if it, there := p.items[f.From]; !there || !p.instruments.Together(it.Instrument, in.Instrument) {
				return nil, invalid("The piece to begin at is not on the shelf for %s.", in.Instrument)
			}
		}
		say(fact.Teacher, f)
	}
	for _, id := range slices.Sorted(maps.Keys(in.Probes)) {
		if _, known := p.graph[id]; !known || len(in.Probes) > 9 {
			return nil, invalid("%q cannot be ticked off: it is no skill of %s.", id, in.Instrument)
		}
		say(fact.Teacher, fact.Probed{Probe: id, Outcome: in.Probes[id]})
	}
	if in.Begin == beforeBook {
		say(fact.Teacher, fact.BeforeBook{})
		for _, it := range shelf.Offered(p.shelf, p.instruments, p.plays) {
			if it.Unit == shelf.BeforeBook && p.Home.Lacks(p.plays, it) == nil && len(facts) < 60 {
				say(fact.Program, fact.RungAdded{Item: it.ID, Strand: string(it.Strand), After: fact.Top, Revision: it.Revision})
			}
		}
		return facts, nil
	}
	s := ladder.Fold(facts, p.items)
	for _, q := range p.way(s, p.Student.Approach, p.room.now).Proposals {
		say(fact.Program, fact.RungAdded{Item: q.Item.ID, Strand: string(q.Item.Strand), After: fact.Top, Revision: q.Item.Revision})
	}
	return facts, nil
}

// footOf returns the first item of a book for the student's instrument; empty
// when there is none.
func (p *pupil) footOf(book string) string {
	i := slices.IndexFunc(p.shelf, func(it shelf.Item) bool { return it.Book == book && it.Instrument == p.Instrument })
	if i < 0 {
		return ""
	}
	return p.shelf[i].ID
}

// SetHome keeps what a student's instrument at home can do; for the empty
// student, what the studio's can.
func (a *App) SetHome(ctx context.Context, who Who, student string, home shelf.Home) error {
	if err := home.Check(); err != nil {
		return invalid("The instrument does not work: %v.", err)
	}
	st := a.store.In(who.Studio)
	if student == "" {
		return told(st.SetStudioHome(ctx, home), "studio")
	}
	return told(st.SetHome(ctx, student, home), "student")
}
