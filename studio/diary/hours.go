package diary

import (
	"cmp"
	"context"
	"errors"
	"math"
	"slices"

	"patientladder/core/calendar"
	"patientladder/core/gather"
	"patientladder/core/ladder"
	"patientladder/core/phrase"
	"patientladder/core/reason"
	"patientladder/core/upkeep"
	"patientladder/studio"
	"patientladder/studio/notes"
)

// A HoursView is all hours that several students share, and who might share one.
type HoursView struct {
	Today  calendar.Date  `json:"today"`
	Hours  []gather.Hour  `json:"hours" doc:"the last first"`
	Groups []gather.Group `json:"groups"`
}

// Hours shows the hours that several students share.
func Hours(ctx context.Context, a *studio.App, who studio.Who) (HoursView, error) {
	r, err := a.Enter(ctx, who)
	if err != nil {
		return HoursView{}, err
	}
	day, err1 := Day(ctx, a, who, "")
	students, err2 := r.Students(ctx)
	hours, err3 := HoursOf(ctx, r)
	if err := errors.Join(err1, err2, err3); err != nil {
		return HoursView{}, studio.Failed(err, "studio")
	}
	var attends []gather.Attends
	for _, st := range students {
		if here := slices.ContainsFunc(day.Students, func(c studio.StudentCard) bool { return c.ID == st.ID && c.State != "left" }); here {
			attends = append(attends, gather.Attends{ID: st.ID, FamilyName: st.FamilyName, Contact: st.Contact, Plays: r.Instruments.Of(st.Instrument).Name, Slot: st.Slot})
		}
	}
	return HoursView{r.Today(), studio.List(hours), studio.List(gather.Groups(attends))}, nil
}

// A PlayerView is a student who comes.
type PlayerView struct {
	Student string       `json:"student"`
	Name    string       `json:"name"`
	Age     int          `json:"age"`
	Plays   string       `json:"plays"`
	Rung    string       `json:"rung" doc:"of the tune that is handed on; empty where it is not on the ladder"`
	Easier  reason.Label `json:"easier"`
	Harder  reason.Label `json:"harder"`
}

// An HourView is such an hour with its plan.
type HourView struct {
	Today    calendar.Date      `json:"today"`
	Hour     gather.Hour        `json:"hour"`
	Players  []PlayerView       `json:"players" doc:"in the order in which they stand"`
	Common   []gather.Tune      `json:"common" doc:"what some of them can play, what most of them can first"`
	Tunes    []gather.Tune      `json:"tunes" doc:"that are chosen; proposed while none is"`
	Plan     []gather.HourBlock `json:"plan"`
	Schedule *gather.Schedule   `json:"schedule,omitempty" doc:"who plays when the first tune is handed on; none without one"`
	Seconds  int                `json:"seconds" doc:"of one round of it; 0 for not known"`
	Trouble  string             `json:"trouble" doc:"why it cannot be handed on so; empty where it can"`
}

// commonShown is how many common tunes are shown.
const commonShown = 24

// Hour shows an hour that several students share, planned.
func Hour(ctx context.Context, a *studio.App, who studio.Who, id string) (HourView, error) {
	r, err := a.Enter(ctx, who)
	if err != nil {
		return HourView{}, err
	}
	hours, err := HoursOf(ctx, r)
	if err != nil {
		return HourView{}, err
	}
	i := slices.IndexFunc(hours, func(h gather.Hour) bool { return h.ID == id })
	if i < 0 {
		return HourView{}, &studio.Error{Kind: studio.Missing, Says: "There is no such hour in this studio."}
	}
	h := hours[i]
	v := HourView{Today: r.Today(), Hour: h, Players: []PlayerView{}, Tunes: []gather.Tune{}}
	var players []gather.Player
	for _, student := range h.Students {
		p, err := a.Pupil(ctx, who, student)
		if err != nil {
			return v, err
		}
		players = append(players, player(&p))
	}
	all := gather.Common(players)
	for _, key := range h.Tunes {
		if i := slices.IndexFunc(all, func(t gather.Tune) bool { return t.Tune == key }); i >= 0 {
			v.Tunes = append(v.Tunes, all[i])
		}
	}
	if len(h.Tunes) == 0 {
		v.Tunes = studio.List(gather.Proposed(all, len(players)))
	}
	v.Common = studio.List(all[:min(len(all), commonShown)])
	for _, p := range players {
		one := PlayerView{Student: p.ID, Name: p.Name, Age: p.Age, Plays: p.Plays.Name}
		one.Easier, one.Harder = gather.Forms(p)
		if len(v.Tunes) > 0 {
			for _, c := range v.Tunes[0].Who {
				if c.Student == p.ID {
					one.Rung = c.Rung
				}
			}
		}
		v.Players = append(v.Players, one)
	}
	v.Plan = h.Plan(players, v.Tunes)
	if len(v.Tunes) > 0 {
		err = handOn(ctx, a, who, &v, len(players))
	}
	return v, err
}

// handOn works out who plays when the first tune is handed on.
func handOn(ctx context.Context, a *studio.App, who studio.Who, v *HourView, players int) error {
	tune := v.Tunes[0]
	bars, bar, beat := tune.Bars, gather.Beats(tune.Meter), 1.0
	if tune.Item != "" {
		read, done, err := notes.Read(ctx, a, who, tune.Item, "")
		if err != nil {
			return err
		}
		m := notes.ModelOf(read.Page)
		done()
		if n := len(m.Bars); n > 1 {
			bars, bar, beat = n, max(1, int(math.Round((m.Bars[1]-m.Bars[0])/m.Beat))), m.Beat
		}
	}
	beats := cmp.Or(v.Hour.Beats, bars*bar)
	each := v.Hour.Each
	if beats > 0 && each == 0 {
		each = gather.Suits(beats, bar, players)[0].Each
	}
	s, err := gather.HandOver(beats, bar, each, players)
	if err != nil {
		v.Trouble = phrase.Begin(err.Error()) + "."
		if beats == 0 {
			v.Trouble = "How many beats the tune has is not known: say it."
		}
		return nil
	}
	v.Schedule, v.Seconds = &s, int(math.Round(float64(beats)*beat*60/cmp.Or(tune.QPM, notes.Walking)))
	return nil
}

// player is what a student brings to an hour: what is in hand, and what is secure as memory has it.
func player(p *studio.Pupil) gather.Player {
	out := gather.Player{ID: p.ID, Name: p.FirstName, Age: studio.Age(p.Student, p.Today()), Plays: p.Plays}
	w := p.WayNow()
	recall := map[string]float64{}
	for _, q := range upkeep.Pieces(p.Standing, w.Known, p.Room.Now, upkeep.Once(w.Age)) {
		recall[q.ID] = q.Recall
	}
	for _, r := range slices.Concat(p.Standing.In(ladder.Current), p.Standing.In(ladder.Secure)) {
		if !r.Strand.Piece() {
			continue
		}
		q := gather.Piece{Tune: gather.TuneOf(r.Item.Title, r.Item.Composer), Rung: r.ID, Title: r.Item.Title, Key: r.Item.Key, Meter: r.Item.Meter, Bars: r.Item.Bars, QPM: r.Item.Tempo, Recall: recall[r.ID], Current: r.Foothold == nil}
		if r.Item.HasScore {
			q.Item = r.Item.ID
		}
		out.Pieces = append(out.Pieces, q)
	}
	return out
}

// A Duet is a piece in hand or lately secure, and who could play with it.
type Duet struct {
	Rung  string           `json:"rung"`
	Title string           `json:"title"`
	Key   string           `json:"key"`
	With  []gather.Partner `json:"with"`
}

// Duets shows who of the studio could play with a student's pieces in hand.
func Duets(ctx context.Context, a *studio.App, who studio.Who, student string) ([]Duet, error) {
	p, err := a.Pupil(ctx, who, student)
	if err != nil {
		return nil, err
	}
	mine := player(&p)
	students, err := p.Students(ctx)
	if err != nil {
		return nil, studio.Failed(err, "studio")
	}
	var others []gather.Player
	for _, st := range students {
		if st.ID == student || cmp.Or(st.Person, st.ID) == cmp.Or(p.Student.Person, student) {
			continue
		}
		other, err := a.Pupil(ctx, who, st.ID)
		if err != nil {
			return nil, err
		}
		if other.Card(other.Student, other.Standing, other.LessonDay()).State != "left" {
			others = append(others, player(&other))
		}
	}
	out := []Duet{}
	for _, q := range mine.Pieces {
		if with := gather.Partners(mine, q, others); q.Current && len(with) > 0 {
			out = append(out, Duet{q.Rung, q.Title, q.Key, with})
		}
	}
	return out, nil
}

// HoursOf are those with students who are still in the studio: of one that was deleted nothing is told.
func HoursOf(ctx context.Context, r studio.Room) ([]gather.Hour, error) {
	hours, err1 := r.Hours(ctx)
	here, err2 := here(ctx, r)
	if err := errors.Join(err1, err2); err != nil {
		return nil, studio.Failed(err, "studio")
	}
	for i := range hours {
		hours[i].Students = slices.DeleteFunc(hours[i].Students, func(id string) bool { return !here[id] })
		for id := range hours[i].Forms {
			if !here[id] {
				delete(hours[i].Forms, id)
			}
		}
	}
	return hours, nil
}

// KeepHour keeps an hour that several students share.
func KeepHour(ctx context.Context, a *studio.App, who studio.Who, id string, c studio.Change[gather.Hour]) error {
	c.Now.ID = id
	return a.Edit(ctx, who, func(r studio.Room) error {
		hours, err := HoursOf(ctx, r)
		if err != nil {
			return err
		}
		h, err := c.Onto(studio.Find(hours, func(h gather.Hour) bool { return h.ID == id }))
		if err != nil {
			return err
		}
		if err := studio.CheckNames(h.Name); err != nil {
			return err
		}
		if err := h.Check(); err != nil {
			return studio.Refuse("The hour cannot be kept: %v.", err)
		}
		here, err := here(ctx, r)
		if err != nil {
			return studio.Failed(err, "studio")
		}
		for _, id := range h.Students {
			if !here[id] {
				return studio.Refuse("A student of the hour is not in the studio any more. Take them out, and keep it then.")
			}
		}
		return studio.Failed(r.SetHour(ctx, h), "studio")
	})
}

// DropHour takes such an hour away.
func DropHour(ctx context.Context, a *studio.App, who studio.Who, id string, seen *gather.Hour) error {
	return a.Edit(ctx, who, func(r studio.Room) error {
		hours, err := HoursOf(ctx, r)
		if err != nil {
			return err
		}
		if err := studio.Unseen(seen, studio.Find(hours, func(h gather.Hour) bool { return h.ID == id })); err != nil {
			return err
		}
		return studio.Failed(r.DropHour(ctx, id), "studio")
	})
}
