package studio

import (
	"patientladder/core/approach"
	"patientladder/core/reason"
	"patientladder/core/seat"
	"patientladder/core/shelf"
)

// BenchOf is where an instrument's player sits.
func BenchOf(h shelf.Home) seat.Bench {
	return seat.Bench{KeyTops: h.KeyTops, BenchLow: h.BenchLow, BenchHigh: h.BenchHigh, Tile: h.Tile, Pedals: !h.NoPedals}
}

// Body is a student as last measured.
func (p *Pupil) Body() seat.Player {
	cm := p.Standing.Body.CM
	return seat.Player{Stature: cm.Stature, Elbow: cm.Elbow, LowerLeg: cm.LowerLeg, Child: Age(p.Student, p.Today()) < 18}
}

// seatAtHome says how to sit at the home's instrument; nothing before both were measured.
func (p *Pupil) seatAtHome() []reason.Reason {
	if p.Standing.Body.At.IsZero() || p.Home.BenchHigh == 0 {
		return nil
	}
	fit, err := seat.Work(p.Body(), BenchOf(p.Home), p.Plays.Seat, seat.Preference(p.Approach[approach.Bench]))
	if err != nil {
		return nil
	}
	return fit.Says
}
