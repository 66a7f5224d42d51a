package studio

import (
	"cmp"
	"context"
	_ "embed"
	"math"
	"slices"
	"time"

	"patientladder/core/activity"
	"patientladder/core/advice"
	"patientladder/core/approach"
	"patientladder/core/calendar"
	"patientladder/core/climb"
	"patientladder/core/home"
	"patientladder/core/instrument"
	"patientladder/core/ladder"
	"patientladder/core/lesson"
	"patientladder/core/reading"
	"patientladder/core/shelf"
	"patientladder/core/skill"
	"patientladder/core/week"
	"patientladder/store"
	"patientladder/words"
)

// A Pupil is one student with all that is known, loaded for one use case.
type Pupil struct {
	Room
	store.Student
	History                       // shared, as the shelf and its items
	Plays   instrument.Profile    // at the student's age
	Chosen  approach.Approach     // when the student came
	Shelved []shelf.Item          // the studio's shelf
	Items   map[string]shelf.Item // the same by id
	Own     []activity.Activity   // the studio's, where a lesson is planned
	trees   map[string][]reading.Chunk
	inTurn  map[string]bool // by rung: its hands take turns
	tempos  map[string]reading.Tempo
	past    []week.Past // sheets given before
	pinned  map[string][]week.Task
	Among   []float64 // paces of the studio's other students
}

// Pupil loads a student of the studio of who is signed in.
func (a *App) Pupil(ctx context.Context, who Who, id string) (Pupil, error) {
	r, err := a.Enter(ctx, who)
	if err != nil {
		return Pupil{}, err
	}
	st, err := r.Student(ctx, id)
	if err != nil {
		return Pupil{}, Failed(err, "student")
	}
	return a.PupilOf(ctx, r, st)
}

// PupilOf loads the rest of a student of a room.
func (a *App) PupilOf(ctx context.Context, r Room, st store.Student) (Pupil, error) {
	p := Pupil{Room: r, Student: st, Plays: r.Instruments.Of(st.Instrument).PlayedAt(Age(st, r.Today())), Chosen: st.Approach}
	p.Graph = r.In.Skills(string(p.Plays.ID)).With(r.Row.Skills)
	if err := p.FetchShelf(ctx); err != nil {
		return Pupil{}, err
	}
	lived, err := r.Lived(ctx, []store.Student{st}, everything)
	if err != nil {
		return Pupil{}, err
	}
	p.take(lived[st.ID])
	p.Among, err = a.Among(ctx, r, st.ID)
	return p, err
}

// Taught loads a pupil with what a lesson is planned from.
func (a *App) Taught(ctx context.Context, who Who, student string) (Pupil, error) {
	p, err := a.Pupil(ctx, who, student)
	if err != nil {
		return p, err
	}
	if p.Own, err = p.Activities(ctx); err != nil {
		return p, Failed(err, "studio")
	}
	return p, nil
}

// take has the pupil stand where a history ends.
func (p *Pupil) take(h History) {
	p.History = h
	p.Approach = p.ApproachAt(p.Standing, p.Today())
}

// FetchShelf loads the studio's items.
func (p *Pupil) FetchShelf(ctx context.Context) error {
	of, err := p.ShelfAt(ctx, p.Row.ShelfVersion)
	p.Shelved, p.Items = of.Items, of.By
	return Failed(err, "shelf")
}

// ApproachAt returns the student's settings as they stand in a standing of a day.
func (p *Pupil) ApproachAt(s ladder.Standing, day calendar.Date) approach.Approach {
	return approach.Settled(Age(p.Student, day), outcomes(s.Probes), p.Chosen, s.Approach)
}

// outcomes are how probes were last answered.
func outcomes(probes map[string]ladder.Probe) map[string]string {
	out := make(map[string]string, len(probes))
	for key, p := range probes {
		out[key] = p.Outcome
	}
	return out
}

// A Way is what advice is given from, with the calendar that its ladder is drawn by.
type Way struct {
	advice.Way
	Marks calendar.Marks // where taught weeks from that moment begin
}

// horizon is how many taught weeks a ladder is drawn for to the week.
const horizon = 60

// Way reckons the path from a standing at a moment.
func (p *Pupil) Way(s ladder.Standing, a approach.Approach, at time.Time) Way {
	return Way{advice.Reckon(p.AsStudent(s, a, at), Age(p.Student, calendar.On(at))), p.Calendar().Marks(p.Slot, calendar.On(at), horizon)}
}

// AsStudent is what the path of a student is reckoned from, at a moment.
func (p *Pupil) AsStudent(s ladder.Standing, a approach.Approach, at time.Time) climb.Student {
	return climb.Student{Standing: s, Graph: p.Graph.Resting(a.RestsOn), Shelf: shelf.Offered(p.Shelved, p.Instruments, p.Plays), Presumed: p.Presumed(s), Approach: a,
		Home: p.Home, Studio: p.Row.Home, Plays: p.Plays, Calendar: p.Calendar(), Slot: p.Slot, Among: p.Among, Now: at}
}

// Presumed are the skills taken for granted from where the student began.
func (p *Pupil) Presumed(s ladder.Standing) []string {
	return climb.Presumed(p.Graph, p.Shelved, s.Began)
}

// Calendar is the studio's, with the student's own missed, moved and extra lessons and
// times away.
func (p *Pupil) Calendar() calendar.Calendar { return OwnCalendar(p.Row.Calendar, p.Standing) }

// WayNow reckons the path as things stand.
func (p *Pupil) WayNow() Way { return p.Way(p.Standing, p.Approach, p.Room.Now) }

// Until gives the standing at a moment; what was later taken back is left out.
func (p *Pupil) Until(t time.Time) ladder.Standing { return p.History.until(t, p.Items) }

// LessonDay returns the day of the lesson that a screen is about: today's when
// there is one or it was opened, else the next.
func (p *Pupil) LessonDay() calendar.Date {
	today := p.Today()
	if _, opened := p.Standing.Opened[today]; opened || len(p.Calendar().Lessons(p.Slot, today, today)) == 1 {
		return today
	}
	return p.Calendar().Next(p.Slot, today)
}

// Starts returns when the lesson of a day begins.
func (p *Pupil) Starts(d calendar.Date) time.Time { return p.SlotAt(d).On(d, p.Zone) }

// SlotAt is the slot of a day, at another time where the day's lesson was moved.
func (p *Pupil) SlotAt(d calendar.Date) calendar.Slot { return SlotOn(p.Slot, p.Standing, d) }

// FromHome is what comes back from home.
func (p *Pupil) FromHome() home.Answer {
	years := Age(p.Student, p.Today())
	out := home.Read(p.Standing, p.Today(), years)
	out.Talk = home.Next(p.Standing, p.Approach, p.Today(), years)
	return out
}

// Ask is what the lesson of a day is planned from.
func (p *Pupil) Ask(w Way, d calendar.Date) lesson.Ask {
	at := w.Now
	if d != "" && d != calendar.On(w.Now) {
		at = p.Starts(d)
	}
	ask := lesson.Ask{Standing: w.Standing, Changes: p.Standing.Changes[d], Graph: p.Graph, Bank: slices.Concat(p.In.Games(), p.Own), Path: w.Path, Presumed: w.Presumed, Ahead: w.Ahead,
		Approach: w.Approach, Plays: p.Plays, Age: Age(p.Student, cmp.Or(d, p.Today())), Minutes: p.Slot.Minutes, Day: d, At: at, Remote: p.Standing.Remote[d], Ache: p.Standing.Ache}
	if opened, open := p.Standing.Opened[d]; open && ask.Ache != nil && calendar.On(ask.Ache.At) == d && !ask.Ache.At.Before(opened) {
		ask.Stopped = max(1, int(math.Ceil(ask.Ache.At.Sub(opened).Minutes())))
	}
	return ask
}

// Plan plans the lesson of a day from a way.
func (p *Pupil) Plan(w Way, d calendar.Date) lesson.Plan { return lesson.Make(p.Ask(w, d)) }

// Voice are the words of the home, which sheets and letters are written in.
func (p *Pupil) Voice() *words.Words { return p.ReadIn(p.Language) }

// SkillsAtHome are the skills as the home reads them.
func (p *Pupil) SkillsAtHome() skill.Graph {
	return p.Voice().SkillsAtHome(string(p.Plays.ID)).With(p.Row.Skills)
}

// atHome is the pupil with the names of skills as the home reads them.
func (p *Pupil) atHome() *Pupil {
	home := *p
	home.Graph = p.SkillsAtHome()
	return &home
}

// Sheet writes the week sheet from a lesson's day.
func (p *Pupil) Sheet(w Way, from calendar.Date) week.Sheet {
	next, through := p.reach(from)
	return week.Make(week.Ask{Standing: w.Standing, Graph: p.Graph, Path: w.Path, Ahead: w.Ahead, Approach: w.Approach, Home: p.Home, Plays: p.Plays, Trees: p.trees, InTurn: p.inTurn, Tempos: p.tempos, Stuck: stuck(w), Seat: p.seatAtHome(), Past: before(p.past, from), Words: p.Words(), Pinned: p.pinned,
		Games:  activity.Played(slices.Concat(p.Voice().Games(), p.Own), w.Standing.Games(from), Age(p.Student, from), p.Plays.Family),
		Beyond: activity.Beyond(w.Presumed), Age: Age(p.Student, from), From: from, Next: next, Through: through, Calendar: p.Calendar(), At: w.Now, Bank: p.Voice().Games(), Voice: p.Voice()})
}

// before are the sheets that were given before a day.
func before(past []week.Past, day calendar.Date) []week.Past {
	return slices.DeleteFunc(slices.Clone(past), func(w week.Past) bool { return w.Day >= day })
}

// stuck are the rungs of a way that stick.
func stuck(w Way) map[string]bool {
	out := map[string]bool{}
	for _, s := range w.StuckRungs(w.Student) {
		out[s.Rung] = true
	}
	return out
}
