package studio

import (
	"context"

	"patientladder/core/approach"
	"patientladder/core/calendar"
	"patientladder/core/instrument"
	"patientladder/core/reason"
	"patientladder/core/seat"
	"patientladder/core/shelf"
)

// A SeatAt is how a student sits somewhere.
type SeatAt struct {
	Place seat.Bench `json:"place"`
	Fit   *seat.Fit  `json:"fit,omitempty"`
	Wrong string     `json:"wrong" doc:"why it cannot be worked out, and what to do; empty when it can"`
}

// A SeatView is how a student sits, in the studio and at home.
type SeatView struct {
	Student  StudentCard     `json:"student"`
	Body     seat.Player     `json:"body"`
	Measured calendar.Date   `json:"measured" doc:"empty for never"`
	Again    *reason.Reason  `json:"again,omitempty"`
	Bench    approach.School `json:"bench" doc:"the approach's school: level, above or below"`
	Studio   SeatAt          `json:"studio"`
	Home     SeatAt          `json:"home"`
	Seat     instrument.Seat `json:"seat" enum:",keys,spike,footstool,standing"`
	Looks    []seat.Look     `json:"looks" doc:"what a wrong seat looks like"`
}

// place is where an instrument's player sits.
func place(h shelf.Home) seat.Bench {
	return seat.Bench{KeyTops: h.KeyTops, BenchLow: h.BenchLow, BenchHigh: h.BenchHigh, Tile: h.Tile, Pedals: !h.NoPedals}
}

// body is a student as last measured.
func (p *pupil) body() seat.Player {
	cm := p.standing.Body.CM
	return seat.Player{Stature: cm.Stature, Elbow: cm.Elbow, LowerLeg: cm.LowerLeg, Child: age(p.Student, p.today()) < 18}
}

func (p *pupil) measured() calendar.Date {
	if p.standing.Body.At.IsZero() {
		return ""
	}
	return calendar.On(p.standing.Body.At)
}

// measureAgain says why the student is to be measured again; nil where it is not time.
func (p *pupil) measureAgain() *reason.Reason {
	return seat.Again(p.measured(), p.today(), age(p.Student, p.today()))
}

// Seat shows how a student sits.
func (a *App) Seat(ctx context.Context, who Who, student string) (SeatView, error) {
	p, err := a.pupil(ctx, who, student)
	if err != nil {
		return SeatView{}, err
	}
	v := SeatView{Student: p.card(p.Student, p.standing, p.lessonDay()), Body: p.body(), Measured: p.measured(), Bench: p.Approach[approach.Bench], Seat: p.plays.Seat, Looks: seat.Looks(),
		Again: p.measureAgain()}
	at := func(h shelf.Home) SeatAt { return seatAt(p.body(), place(h), p.plays.Seat, p.Approach[approach.Bench]) }
	v.Studio, v.Home = at(p.row.Home), at(p.Home)
	return v, nil
}

// seatAtHome says how to sit at the home's instrument; nothing before both were measured.
func (p *pupil) seatAtHome() []reason.Reason {
	if p.standing.Body.At.IsZero() || p.Home.BenchHigh == 0 {
		return nil
	}
	fit, err := seat.Work(p.body(), place(p.Home), p.plays.Seat, seat.Preference(p.Approach[approach.Bench]))
	if err != nil {
		return nil
	}
	return fit.Says
}

func seatAt(b seat.Player, at seat.Bench, how instrument.Seat, bench approach.School) SeatAt {
	out := SeatAt{Place: at}
	fit, err := seat.Work(b, at, how, seat.Preference(bench))
	if err != nil {
		out.Wrong = capital(err.Error()) + "."
		return out
	}
	out.Fit = &fit
	return out
}

// A SeatAsk is a seat tried out.
type SeatAsk struct {
	Seat  instrument.Seat `json:"seat" enum:"keys,spike,footstool,standing"`
	Body  seat.Player     `json:"body"`
	Place seat.Bench      `json:"place"`
	Bench approach.School `json:"bench" enum:"level,above,below"`
}

// TrySeat works out a seat and keeps nothing.
func (a *App) TrySeat(_ context.Context, _ Who, in SeatAsk) (SeatAt, error) {
	return seatAt(in.Body, in.Place, in.Seat, in.Bench), nil
}
