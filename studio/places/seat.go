package places

import (
	"context"

	"patientladder/core/approach"
	"patientladder/core/calendar"
	"patientladder/core/instrument"
	"patientladder/core/phrase"
	"patientladder/core/reason"
	"patientladder/core/seat"
	"patientladder/core/shelf"
	"patientladder/studio"
)

// A SeatAt is how a student sits somewhere.
type SeatAt struct {
	Place seat.Bench `json:"place"`
	Fit   *seat.Fit  `json:"fit,omitempty"`
	Wrong string     `json:"wrong" doc:"why it cannot be worked out, and what to do; empty when it can"`
}

// A SeatView is how a student sits, in the studio and at home.
type SeatView struct {
	Student  studio.StudentCard `json:"student"`
	Body     seat.Player        `json:"body"`
	Measured calendar.Date      `json:"measured" doc:"empty for never"`
	Again    *reason.Reason     `json:"again,omitempty"`
	Bench    approach.School    `json:"bench" doc:"the approach's school: level, above or below"`
	Studio   SeatAt             `json:"studio"`
	Home     SeatAt             `json:"home"`
	Seat     instrument.Seat    `json:"seat" enum:",keys,spike,footstool,standing"`
	Looks    []seat.Look        `json:"looks" doc:"what a wrong seat looks like"`
}

func measured(p *studio.Pupil) calendar.Date {
	if p.Standing.Body.At.IsZero() {
		return ""
	}
	return calendar.On(p.Standing.Body.At)
}

// MeasureAgain says why the student is to be measured again; nil where it is not time.
func MeasureAgain(p *studio.Pupil) *reason.Reason {
	return seat.Again(measured(p), p.Today(), studio.Age(p.Student, p.Today()))
}

// Seat shows how a student sits.
func Seat(ctx context.Context, a *studio.App, who studio.Who, student string) (SeatView, error) {
	p, err := a.Pupil(ctx, who, student)
	if err != nil {
		return SeatView{}, err
	}
	v := SeatView{Student: p.Card(p.Student, p.Standing, p.LessonDay()), Body: p.Body(), Measured: measured(&p), Bench: p.Approach[approach.Bench], Seat: p.Plays.Seat, Looks: seat.Looks(),
		Again: MeasureAgain(&p)}
	at := func(h shelf.Home) SeatAt {
		return seatAt(p.Body(), studio.BenchOf(h), p.Plays.Seat, p.Approach[approach.Bench])
	}
	v.Studio, v.Home = at(p.Row.Home), at(p.Home)
	return v, nil
}

func seatAt(b seat.Player, at seat.Bench, how instrument.Seat, bench approach.School) SeatAt {
	out := SeatAt{Place: at}
	fit, err := seat.Work(b, at, how, seat.Preference(bench))
	if err != nil {
		out.Wrong = phrase.Begin(err.Error()) + "."
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
func TrySeat(_ context.Context, a *studio.App, _ studio.Who, in SeatAsk) (SeatAt, error) {
	return seatAt(in.Body, in.Place, in.Seat, in.Bench), nil
}
