// Package studio holds the use cases: load what is needed, ask core, save what
// was told. One file a use case.
package studio

import (
	"cmp"
	"context"
	"errors"
	"fmt"
	"math"
	"runtime"
	"slices"
	"time"

	"github.com/oklog/ulid/v2"

	"patientladder/core/activity"
	"patientladder/core/advice"
	"patientladder/core/approach"
	"patientladder/core/calendar"
	"patientladder/core/climb"
	"patientladder/core/fact"
	"patientladder/core/home"
	"patientladder/core/instrument"
	"patientladder/core/ladder"
	"patientladder/core/lesson"
	"patientladder/core/reading"
	"patientladder/core/shelf"
	"patientladder/core/skill"
	"patientladder/core/week"
	"patientladder/store"
)

// An Error is a failure with a sentence for the person and, when there is
// one, a cause for the log.
type Error struct {
	Kind  ErrorKind
	Says  string
	Cause error
}

// An ErrorKind tells how a failure answers.
type ErrorKind int

// The kinds of failures.
const (
	Invalid ErrorKind = iota
	Missing
	Conflict
	Denied
	AnotherFactor // the password was right, and a code is needed too
	Gone          // it was there once
	TooMany
	Unavailable
	Full
)

func (e *Error) Error() string {
	if e.Cause == nil {
		return e.Says
	}
	return e.Says + ": " + e.Cause.Error()
}

func (e *Error) Unwrap() error { return e.Cause }

// invalid makes an Error about what was sent.
func invalid(format string, a ...any) error {
	return &Error{Kind: Invalid, Says: fmt.Sprintf(format, a...)}
}

// told turns a failure of the store into one with a sentence. what names the
// thing that was looked for.
func told(err error, what string) error {
	switch {
	case err == nil:
		return nil
	case errors.Is(err, store.ErrNotFound):
		return &Error{Missing, "There is no such " + what + " in this studio.", err}
	case errors.Is(err, store.ErrFull):
		return &Error{Full, "The disk is full, so nothing was saved. Free some space and try again; what you marked waits here.", err}
	case errors.Is(err, store.ErrUnavailable):
		return &Error{Unavailable, "The database cannot be reached just now. What you marked waits here and is sent when it is back.", err}
	}
	return err
}

// An App is the studio's use cases over a store.
type App struct {
	store  *store.Store
	now    func() time.Time
	mailer Mailer // nil where no mail is sent
	base   string // of the links in mails
	paces  *paces
	kept   *histories
	reads  chan struct{} // as many turns as scores may be read at once
	closed bool          // new studios come by invitation

	confirms bool         // an address is confirmed before a studio is made
	aDay     store.Limits // of facts
}

// New makes the use cases. now is the machine's clock.
func New(s *store.Store, now func() time.Time) *App {
	return &App{store: s, now: now, aDay: aDay, paces: newPaces(), kept: newHistories(), reads: make(chan struct{}, max(2, runtime.GOMAXPROCS(0)))}
}

// Who is signed in.
type Who struct {
	Teacher string
	Studio  string
}

// room is a studio with its clock and zone, loaded for one use case.
type room struct {
	store.Studio
	row  store.StudioRow
	zone *time.Location
	now  time.Time
	kept *histories

	instruments instrument.Set // the program's and its own
	graph       skill.Graph    // the same of skills
}

// catalogue is the program's own skills.
var catalogue = skill.Catalogue()

func (r room) today() calendar.Date { return calendar.On(r.now) }

func (a *App) enter(ctx context.Context, who Who) (room, error) {
	st := a.store.In(who.Studio)
	row, err := st.Row(ctx)
	if err != nil {
		return room{}, told(err, "studio")
	}
	zone, err := time.LoadLocation(row.Zone)
	if err != nil {
		zone = time.UTC
	}
	return room{st, row, zone, a.now().Add(row.ClockShift).In(zone), a.kept, instrument.Shipped.With(row.Instruments), catalogue.With(row.Skills)}, nil
}

// pupil is one student with all that is known, loaded for one use case.
type pupil struct {
	room
	store.Student
	history // shared, as the shelf and its items
	plays   instrument.Profile
	chosen  approach.Approach // when the student came
	shelf   []shelf.Item
	items   map[string]shelf.Item // the shelf by id
	own     []activity.Activity   // the studio's, where a lesson is planned
	trees   map[string][]reading.Chunk
	inTurn  map[string]bool // by rung: its hands take turns
	tempos  map[string]reading.Tempo
	past    []week.Past // sheets given before
	pinned  map[string][]week.Task
	among   []float64 // paces of the studio's other students
}

func (a *App) pupil(ctx context.Context, who Who, id string) (pupil, error) {
	r, err := a.enter(ctx, who)
	if err != nil {
		return pupil{}, err
	}
	st, err := r.Student(ctx, id)
	if err != nil {
		return pupil{}, told(err, "student")
	}
	return a.pupilOf(ctx, r, st)
}

func (a *App) pupilOf(ctx context.Context, r room, st store.Student) (pupil, error) {
	p := pupil{room: r, Student: st, plays: r.instruments.Of(st.Instrument).PlayedAt(age(st, r.today())), chosen: st.Approach}
	if err := p.fetchShelf(ctx); err != nil {
		return pupil{}, err
	}
	lived, err := r.lived(ctx, []store.Student{st}, everything)
	if err != nil {
		return pupil{}, err
	}
	p.take(lived[st.ID])
	p.among, err = a.among(ctx, r, st.ID)
	return p, err
}

// take has the pupil stand where a history ends.
func (p *pupil) take(h history) {
	p.history = h
	p.Approach = p.approach(p.standing, p.today())
}

// present gives the books that a fact names their present titles.
func (r room) present(b fact.Body) fact.Body {
	switch b := b.(type) {
	case fact.BookChosen:
		b.Book = r.row.Titles.Now(b.Book)
		return b
	case fact.BookDropped:
		b.Book = r.row.Titles.Now(b.Book)
		return b
	}
	return b
}

// fetchShelf loads the studio's items.
func (p *pupil) fetchShelf(ctx context.Context) error {
	of, err := p.ShelfAt(ctx, p.row.ShelfVersion)
	p.shelf, p.items = of.Items, of.By
	return told(err, "shelf")
}

// approach returns the student's settings as they stand in a standing of a day.
func (p *pupil) approach(s ladder.Standing, day calendar.Date) approach.Approach {
	return approach.Settled(age(p.Student, day), outcomes(s.Probes), p.chosen, s.Approach)
}

// outcomes are how probes were last answered.
func outcomes(probes map[string]ladder.Probe) map[string]string {
	out := make(map[string]string, len(probes))
	for key, p := range probes {
		out[key] = p.Outcome
	}
	return out
}

// A way is what advice is given from, with the calendar that its ladder is drawn by.
type way struct {
	advice.Way
	marks calendar.Marks // where taught weeks from that moment begin
}

// horizon is how many taught weeks a ladder is drawn for to the week.
const horizon = 60

// way reckons the path from a standing at a moment.
func (p *pupil) way(s ladder.Standing, a approach.Approach, at time.Time) way {
	return way{advice.Reckon(p.asStudent(s, a, at), age(p.Student, calendar.On(at))), p.calendar().Marks(p.Slot, calendar.On(at), horizon)}
}

func (p *pupil) asStudent(s ladder.Standing, a approach.Approach, at time.Time) climb.Student {
	return climb.Student{Standing: s, Graph: p.graph.Resting(a.RestsOn), Shelf: shelf.Offered(p.shelf, p.instruments, p.plays), Presumed: p.presumed(s), Approach: a,
		Home: p.Home, Studio: p.row.Home, Plays: p.plays, Calendar: p.calendar(), Slot: p.Slot, Among: p.among, Now: at}
}

// presumed are the skills taken for granted from where the student began.
func (p *pupil) presumed(s ladder.Standing) []string {
	return climb.Presumed(p.graph, p.shelf, s.Began)
}

// calendar is the studio's, with the student's own missed, moved and extra lessons and
// times away.
func (p *pupil) calendar() calendar.Calendar { return ownCalendar(p.row.Calendar, p.standing) }

func ownCalendar(c calendar.Calendar, s ladder.Standing) calendar.Calendar {
	c.Off, c.On = make(map[calendar.Date]bool, len(s.Missed)), make(map[calendar.Date]bool, len(s.Extra))
	for day := range s.Missed {
		c.Off[day] = true
	}
	c.Free = slices.Clone(c.Free)
	for _, a := range s.Away {
		c.Free = append(c.Free, a.Span)
	}
	for day := range s.Extra {
		if away, _ := s.AwayOn(day); !c.Off[day] && !away.Left { // one who pauses may come once all the same
			c.On[day] = true
		}
	}
	return c
}

func (p *pupil) now() way { return p.way(p.standing, p.Approach, p.room.now) }

// until gives the standing at a moment; what was later taken back is left out.
func (p *pupil) until(t time.Time) ladder.Standing { return p.history.until(t, p.items) }

// age is in whole years at a day, reckoned from the month of birth.
func age(st store.Student, d calendar.Date) int {
	t := d.Time()
	years := t.Year() - st.BirthYear
	if int(t.Month()) < st.BirthMonth {
		years--
	}
	return years
}

// list is a list that goes out as one, empty rather than null.
func list[T any](l []T) []T {
	if l == nil {
		return []T{}
	}
	return l
}

// NewID makes an id for what the server itself makes.
func NewID() string { return ulid.Make().String() }

// lessonDay returns the day of the lesson that a screen is about: today's when
// there is one or it was opened, else the next.
func (p *pupil) lessonDay() calendar.Date {
	today := p.today()
	if _, opened := p.standing.Opened[today]; opened || len(p.calendar().Lessons(p.Slot, today, today)) == 1 {
		return today
	}
	return p.calendar().Next(p.Slot, today)
}

// starts returns when the lesson of a day begins.
func (p *pupil) starts(d calendar.Date) time.Time { return p.slot(d).On(d, p.zone) }

func (p *pupil) slot(d calendar.Date) calendar.Slot { return slotOn(p.Slot, p.standing, d) }

// slotOn is the weekly slot, at another time where the day's lesson was moved.
func slotOn(weekly calendar.Slot, s ladder.Standing, d calendar.Date) calendar.Slot {
	weekly.Start = cmp.Or(s.Extra[d], weekly.Start)
	return weekly
}

// home is what comes back from home.
func (p *pupil) home() home.Answer {
	years := age(p.Student, p.today())
	out := home.Read(p.standing, p.today(), years)
	out.Talk = home.Next(p.standing, p.Approach, p.today(), years)
	return out
}

// ask is what the lesson of a day is planned from.
func (p *pupil) ask(w way, d calendar.Date) lesson.Ask {
	at := w.Now
	if d != "" && d != calendar.On(w.Now) {
		at = p.starts(d)
	}
	ask := lesson.Ask{Standing: w.Standing, Changes: p.standing.Changes[d], Graph: p.graph, Bank: slices.Concat(activity.Bank(), p.own), Path: w.Path, Presumed: w.Presumed, Ahead: w.Ahead,
		Approach: w.Approach, Plays: p.plays, Age: age(p.Student, cmp.Or(d, p.today())), Minutes: p.Slot.Minutes, Day: d, At: at, Remote: p.standing.Remote[d], Ache: p.standing.Ache}
	if opened, open := p.standing.Opened[d]; open && ask.Ache != nil && calendar.On(ask.Ache.At) == d && !ask.Ache.At.Before(opened) {
		ask.Stopped = max(1, int(math.Ceil(ask.Ache.At.Sub(opened).Minutes())))
	}
	return ask
}

// plan plans the lesson of a day from a way.
func (p *pupil) plan(w way, d calendar.Date) lesson.Plan { return lesson.Make(p.ask(w, d)) }

// sheet writes the week sheet from a lesson's day.
func (p *pupil) sheet(w way, from calendar.Date) week.Sheet {
	return week.Make(week.Ask{Standing: w.Standing, Graph: p.graph, Path: w.Path, Ahead: w.Ahead, Approach: w.Approach, Home: p.Home, Plays: p.plays, Trees: p.trees, InTurn: p.inTurn, Tempos: p.tempos, Stuck: stuck(w), Seat: p.seatAtHome(), Past: before(p.past, from), Words: p.words(), Pinned: p.pinned,
		Games: activity.Played(slices.Concat(activity.Bank(), p.own), w.Standing.Games(from), age(p.Student, from), p.plays.Family),
		Age:   age(p.Student, from), From: from, Next: p.calendar().Next(p.Slot, from), At: w.Now})
}

// before are the sheets that were given before a day.
func before(past []week.Past, day calendar.Date) []week.Past {
	return slices.DeleteFunc(slices.Clone(past), func(w week.Past) bool { return w.Day >= day })
}

// stuck are the rungs of a way that stick.
func stuck(w way) map[string]bool {
	out := map[string]bool{}
	for _, s := range w.StuckRungs(w.Student) {
		out[s.Rung] = true
	}
	return out
}
