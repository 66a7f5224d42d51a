package studio

import (
	linked "container/list"
	"context"
	"maps"
	"math"
	"runtime/debug"
	"slices"
	"sync"
	"time"

	"patientladder/core/fact"
	"patientladder/core/ladder"
	"patientladder/core/shelf"
	"patientladder/store"
)

// A History is what a student's facts come to, with the turn of the last delivery among them: it holds while
// that is the student's turn, whichever copy of the program was told since. It is shared, and never changed.
type History struct {
	first    int64 // turn before the student's first delivery
	turn     int64
	place    string       // in whose zone the facts' moments are
	titles   shelf.Titles // that books in them have
	version  int64        // of the shelf that the standing was folded by
	Facts    []fact.Fact  // in order
	Standing ladder.Standing
	before   *past // the same as the two before
}

// A past is how a student stood at a moment before, as it was last asked for.
type past struct {
	mu       sync.Mutex
	at       time.Time
	standing ladder.Standing
}

// until gives the standing at a moment; what was later taken back is left out.
func (h History) until(t time.Time, items map[string]shelf.Item) ladder.Standing {
	h.before.mu.Lock()
	defer h.before.mu.Unlock()
	if !h.before.at.Equal(t) {
		var facts []fact.Fact
		for _, f := range h.Facts {
			if !f.At.After(t) || IsRetraction(f) {
				facts = append(facts, f)
			}
		}
		h.before.at, h.before.standing = t, ladder.Fold(facts, items)
	}
	return h.before.standing
}

// with is a history that has got some facts more.
func (h History) with(more []fact.Fact, items map[string]shelf.Item) History {
	h.before = h.before.after(more)
	if len(more) > 0 {
		h.Facts = slices.Concat(h.Facts, more)
		slices.SortStableFunc(h.Facts, ladder.Order)
	}
	h.Standing = ladder.Fold(h.Facts, items)
	return h
}

// after is the past of a history that has got some facts more: the same, unless one of them has changed it.
func (p *past) after(more []fact.Fact) *past {
	if p == nil {
		return &past{}
	}
	p.mu.Lock()
	defer p.mu.Unlock()
	if slices.ContainsFunc(more, func(f fact.Fact) bool { return !f.At.After(p.at) || IsRetraction(f) }) {
		return &past{}
	}
	return &past{at: p.at, standing: p.standing}
}

// IsRetraction reports whether a fact takes another back.
func IsRetraction(f fact.Fact) bool { _, is := f.Body.(fact.Retracted); return is }

// A Part names the facts that a history is of.
type Part struct {
	name  string
	kinds []fact.Body // none for all
}

// The parts that screens about the whole studio ask for, and all.
var (
	everything = Part{name: "all"}
	Comings    = Part{"comings", append([]fact.Body{fact.LessonOpened{}, fact.LessonClosed{}}, outOfTurn...)}
	Talks      = Part{"talks", append([]fact.Body{fact.Talked{}, fact.LessonClosed{}, fact.ApproachSet{}, fact.Probed{}}, outOfTurn...)}
	Placed     = Part{"places", placing}
	speeds     = Part{"speeds", []fact.Body{fact.RungAdded{}, fact.Taught{}, fact.FootholdTried{}, fact.LessonClosed{}}}
)

// histories keeps what was last made of students, as many facts of it as memory is lent for; what was not asked
// for longest goes first.
type histories struct {
	mu   sync.Mutex
	by   map[historyOf]*linked.Element // of histories' entries
	used *linked.List                  // the last used first
	kept int                           // facts
	most int
}

type historyOf struct{ studio, student, part string }

type historyKept struct {
	of historyOf
	History
}

// A fact takes some 400 bytes with its share of the standing. A tenth of the memory that the program may take is
// lent for them: until garbage is collected there is twice as much of it as is kept.
const (
	bytesOfFact   = 400
	lentForFacts  = 10
	mostOfNoLimit = 1_000_000
)

func newHistories() *histories {
	most := mostOfNoLimit
	if limit := debug.SetMemoryLimit(-1); limit < math.MaxInt64 {
		most = int(limit / lentForFacts / bytesOfFact)
	}
	return &histories{by: map[historyOf]*linked.Element{}, used: linked.New(), most: most}
}

// beforeAll is the turn before a student's first.
const beforeAll = -1

func (h *histories) get(of historyOf) History {
	h.mu.Lock()
	defer h.mu.Unlock()
	e, there := h.by[of]
	if !there {
		return History{turn: beforeAll}
	}
	h.used.MoveToFront(e)
	return e.Value.(historyKept).History
}

func (h *histories) put(of historyOf, one History) {
	h.mu.Lock()
	defer h.mu.Unlock()
	h.drop(h.by[of])
	h.by[of] = h.used.PushFront(historyKept{of, one})
	for h.kept += len(one.Facts); h.kept > h.most && h.used.Len() > 1; {
		h.drop(h.used.Back())
	}
}

func (h *histories) drop(e *linked.Element) {
	if e == nil {
		return
	}
	gone := h.used.Remove(e).(historyKept)
	delete(h.by, gone.of)
	h.kept -= len(gone.Facts)
}

// forget drops what is kept of a studio, or of one student.
func (h *histories) forget(studio, student string) {
	h.mu.Lock()
	defer h.mu.Unlock()
	for of, e := range h.by {
		if of.studio == studio && (student == "" || of.student == student) {
			h.drop(e)
		}
	}
}

// Lived returns the histories of students by id, as the database has them now: of those who were told nothing
// since they are at hand, of the others what is new is fetched.
func (r Room) Lived(ctx context.Context, students []store.Student, of Part) (map[string]History, error) {
	out := make(map[string]History, len(students))
	var missing []store.Deliveries
	for _, st := range students {
		h := r.kept.get(historyOf{r.Row.ID, st.ID, of.name})
		if h.first != st.First || h.turn > st.Turn || h.place != r.Row.Zone || !maps.Equal(h.titles, r.Row.Titles) {
			h = History{turn: beforeAll}
		}
		out[st.ID] = h
		if h.turn != st.Turn {
			missing = append(missing, store.Deliveries{Student: st.ID, After: h.turn, To: st.Turn})
		}
	}
	fresh := make(map[string][]fact.Fact, len(missing))
	if len(missing) > 0 {
		facts, err := r.FactsIn(ctx, missing, of.kinds...)
		if err != nil {
			return nil, Failed(err, "student")
		}
		for _, f := range facts {
			f.At = f.At.In(r.Zone) // days are the studio's days
			f.Body = r.Present(f.Body)
			fresh[f.Student] = append(fresh[f.Student], f)
		}
	}
	for _, st := range students {
		h := out[st.ID]
		if h.turn == st.Turn && h.version == r.Row.ShelfVersion {
			continue
		}
		shelf, err := r.ShelfAt(ctx, r.Row.ShelfVersion)
		if err != nil {
			return nil, Failed(err, "shelf")
		}
		if h.version != r.Row.ShelfVersion {
			h.before = nil
		}
		h = h.with(fresh[st.ID], shelf.By)
		h.first, h.turn, h.place, h.titles, h.version = st.First, st.Turn, r.Row.Zone, r.Row.Titles, r.Row.ShelfVersion
		out[st.ID] = h
		r.kept.put(historyOf{r.Row.ID, st.ID, of.name}, h)
	}
	return out, nil
}

// Standings are those of all students of a part of their facts.
func (r Room) Standings(ctx context.Context, of Part) (map[string]ladder.Standing, error) {
	students, err := r.Students(ctx)
	if err != nil {
		return nil, Failed(err, "student")
	}
	lived, err := r.Lived(ctx, students, of)
	out := make(map[string]ladder.Standing, len(lived))
	for id, h := range lived {
		out[id] = h.Standing
	}
	return out, err
}

// Forget drops what is kept in memory of a studio, or of one student.
func (a *App) Forget(studio, student string) {
	a.kept.forget(studio, student)
}

// outOfTurn are the kinds that take lessons off their weekly slot or add others.
var outOfTurn = []fact.Body{fact.LessonMissed{}, fact.LessonMoved{}, fact.LessonExtra{}, fact.Paused{}, fact.Left{}, fact.Returned{}}

// placing are the kinds of facts that say where a rung stands.
var placing = []fact.Body{fact.RungAdded{}, fact.RungMoved{}, fact.RungParked{}, fact.RungResumed{}, fact.Taught{}, fact.FootholdTried{}, fact.Polished{}, fact.BeforeBook{}, fact.Probed{}}
