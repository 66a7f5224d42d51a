package studio

import (
	"cmp"
	"context"
	"errors"
	"math"
	"slices"

	"patientladder/core/calendar"
	"patientladder/core/gather"
	"patientladder/core/ladder"
	"patientladder/core/upkeep"
)

// A HoursView is all hours that several students share, and who might share one.
type HoursView struct {
	Today  calendar.Date  `json:"today"`
	Hours  []gather.Hour  `json:"hours" doc:"the last first"`
	Groups []gather.Group `json:"groups"`
}

// Hours shows the hours that several students share.
func (a *App) Hours(ctx context.Context, who Who) (HoursView, error) {
	r, err := a.enter(ctx, who)
	if err != nil {
		return HoursView{}, err
	}
	day, err1 := a.Day(ctx, who, "")
	students, err2 := r.Students(ctx)
	hours, err3 := r.hours(ctx)
	if err := errors.Join(err1, err2, err3); err != nil {
		return HoursView{}, told(err, "studio")
	}
	var attends []gather.Attends
	for _, st := range students {
		if here := slices.ContainsFunc(day.Students, func(c StudentCard) bool { return c.ID == st.ID && c.State != "left" }); here {
			attends = append(attends, gather.Attends{ID: st.ID, FamilyName: st.FamilyName, Contact: st.Contact, Plays: r.instruments.Of(st.Instrument).Name, Slot: st.Slot})
		}
	}
	return HoursView{r.today(), list(hours), list(gather.Groups(attends))}, nil
}

// A PlayerView is a student who comes.
type PlayerView struct {
	Student string `json:"student"`
	Name    string `json:"name"`
	Age     int    `json:"age"`
	Plays   string `json:"plays"`
	Rung    string `json:"rung" doc:"of the tune that is handed on; empty where it is not on the ladder"`
	Easier  string `json:"easier"`
	Harder  string `json:"harder"`
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
func (a *App) Hour(ctx context.Context, who Who, id string) (HourView, error) {
	r, err := a.enter(ctx, who)
	if err != nil {
		return HourView{}, err
	}
	hours, err := r.hours(ctx)
	if err != nil {
		return HourView{}, err
	}
	i := slices.IndexFunc(hours, func(h gather.Hour) bool { return h.ID == id })
	if i < 0 {
		return HourView{}, &Error{Kind: Missing, Says: "There is no such hour in this studio."}
	}
	h := hours[i]
	v := HourView{Today: r.today(), Hour: h, Players: []PlayerView{}, Tunes: []gather.Tune{}}
	var players []gather.Player
	for _, student := range h.Students {
		p, err := a.pupil(ctx, who, student)
		if err != nil {
			return v, err
		}
		players = append(players, p.player())
	}
	all := gather.Common(players)
	for _, key := range h.Tunes {
		if i := slices.IndexFunc(all, func(t gather.Tune) bool { return t.Tune == key }); i >= 0 {
			v.Tunes = append(v.Tunes, all[i])
		}
	}
	if len(h.Tunes) == 0 {
		v.Tunes = list(gather.Proposed(all, len(players)))
	}
	v.Common = list(all[:min(len(all), commonShown)])
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
		err = a.handOn(ctx, who, &v, len(players))
	}
	return v, err
}

// handOn works out who plays when the first tune is handed on.
func (a *App) handOn(ctx context.Context, who Who, v *HourView, players int) error {
	tune := v.Tunes[0]
	bars, bar, beat := tune.Bars, gather.Beats(tune.Meter), 1.0
	if tune.Item != "" {
		read, done, err := a.read(ctx, who, tune.Item, "")
		if err != nil {
			return err
		}
		m := model(read.page)
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
		v.Trouble = capital(err.Error()) + "."
		if beats == 0 {
			v.Trouble = "How many beats the tune has is not known: say it."
		}
		return nil
	}
	v.Schedule, v.Seconds = &s, int(math.Round(float64(beats)*beat*60/cmp.Or(tune.QPM, walking)))
	return nil
}

// player is what a student brings to an hour: what is in hand, and what is secure as memory has it.
func (p *pupil) player() gather.Player {
	out := gather.Player{ID: p.ID, Name: p.FirstName, Age: age(p.Student, p.today()), Plays: p.plays}
	w := p.now()
	recall := map[string]float64{}
	for _, q := range upkeep.Pieces(p.standing, w.Known, p.room.now, upkeep.Once(w.Age)) {
		recall[q.ID] = q.Recall
	}
	for _, r := range slices.Concat(p.standing.In(ladder.Current), p.standing.In(ladder.Secure)) {
		if !r.Strand.Piece() {
			continue
		}
		q := gather.Piece{Tune: gather.TuneOf(r.Item.Title, r.Item.Composer), Rung: r.ID, Title: r.Item.Title, Key: r.Item.Key, Meter: gather.MeterOf(r.Item), Bars: r.Item.Bars, QPM: r.Item.Tempo, Recall: recall[r.ID], Current: r.Foothold == nil}
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
func (a *App) Duets(ctx context.Context, who Who, student string) ([]Duet, error) {
	p, err := a.pupil(ctx, who, student)
	if err != nil {
		return nil, err
	}
	mine := p.player()
	students, err := p.Students(ctx)
	if err != nil {
		return nil, told(err, "studio")
	}
	var others []gather.Player
	for _, st := range students {
		if st.ID == student || cmp.Or(st.Person, st.ID) == cmp.Or(p.Student.Person, student) {
			continue
		}
		other, err := a.pupil(ctx, who, st.ID)
		if err != nil {
			return nil, err
		}
		if other.card(other.Student, other.standing, other.lessonDay()).State != "left" {
			others = append(others, other.player())
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

// hours are those with students who are still in the studio: of one that was deleted nothing is told.
func (r room) hours(ctx context.Context) ([]gather.Hour, error) {
	hours, err1 := r.Hours(ctx)
	here, err2 := r.here(ctx)
	if err := errors.Join(err1, err2); err != nil {
		return nil, told(err, "studio")
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
func (a *App) KeepHour(ctx context.Context, who Who, h gather.Hour) error {
	r, err := a.enter(ctx, who)
	if err != nil {
		return err
	}
	if err := plain(h.Name); err != nil {
		return err
	}
	if err := h.Check(); err != nil {
		return invalid("The hour cannot be kept: %v.", err)
	}
	here, err := r.here(ctx)
	if err != nil {
		return told(err, "studio")
	}
	for _, id := range h.Students {
		if !here[id] {
			return invalid("A student of the hour is not in the studio any more. Take them out, and keep it then.")
		}
	}
	return told(r.SetHour(ctx, h), "studio")
}

// DropHour takes such an hour away.
func (a *App) DropHour(ctx context.Context, who Who, id string) error {
	r, err := a.enter(ctx, who)
	if err != nil {
		return err
	}
	return told(r.DropHour(ctx, id), "studio")
}
