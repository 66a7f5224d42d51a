// Package seat works out how to sit at an instrument: the height of the seat, the
// firm tiles on it, and what carries the feet.
//
// All lengths are centimetres. What was measured with a tape is taken as it is;
// what was not is reckoned from stature with the proportions of Drillis and
// Contini (1966), as tabled in Winter, Biomechanics and Motor Control of Human
// Movement, with a spread that is said. The arithmetic of the seat is common
// practice, no source.
package seat

import (
	"fmt"
	"math"
	"strconv"

	"patientladder/core/approach"
	"patientladder/core/instrument"
	"patientladder/core/judgement"
	"patientladder/core/reason"
)

// A Player is what is known of a player; 0 for what was not measured.
type Player struct {
	Stature  float64 `json:"stature" minimum:"0" maximum:"300" doc:"cm, without shoes"`
	Elbow    float64 `json:"elbow" minimum:"0" maximum:"100" doc:"cm from the seat to the bent elbow, sitting, arm hanging"`
	LowerLeg float64 `json:"lowerLeg" minimum:"0" maximum:"100" doc:"cm from the floor to the hollow of the knee, shoes on"`
	Child    bool    `json:"child" doc:"still growing"`
}

// A Bench is where one sits; 0 for what is not known.
type Bench struct {
	KeyTops   float64 `json:"keyTops" minimum:"0" maximum:"150" doc:"cm from the floor to the tops of the white keys"`
	BenchLow  float64 `json:"benchLow" minimum:"0" maximum:"150" doc:"cm of the seat at its lowest setting; the same as the highest when it cannot be set"`
	BenchHigh float64 `json:"benchHigh" minimum:"0" maximum:"150"`
	Tile      float64 `json:"tile" minimum:"0" maximum:"20" doc:"cm that one firm tile adds"`
	Pedals    bool    `json:"pedals" doc:"the feet have pedals to reach"`
}

// Usual sizes where none is known: an acoustic keyboard's white keys stand about
// 71 to 75 cm above the floor. Common practice, no source.
const (
	usualKeyTops   = 73.0
	usualBenchLow  = 46.0
	usualBenchHigh = 56.0
	usualTile      = 3.0
)

// Proportions of stature: Drillis and Contini (1966).
const (
	elbowStanding = 0.630
	sittingHeight = 0.520
	kneeHeight    = 0.285
	shoulder      = 0.818
	upperArm      = 0.186
	forearm       = 0.146
	thigh         = 0.245
)

// A Length is how long something is, with how far that may be off.
type Length struct {
	Low  float64 `json:"low"`
	Best float64 `json:"best"`
	High float64 `json:"high"`
}

func (l Length) plus(by float64) Length { return Length{l.Low + by, l.Best + by, l.High + by} }

// from takes a length off another.
func from(l float64, s Length) Length { return Length{l - s.High, l - s.Best, l - s.Low} }

func exact(l float64) Length { return Length{l, l, l} }

// A Fit is how to sit.
type Fit struct {
	Seat      Length          `json:"seat" doc:"height of what is sat on"`
	Setting   float64         `json:"setting" doc:"of the bench itself, under the tiles"`
	Tiles     int             `json:"tiles"`
	Platform  Length          `json:"platform" doc:"height that carries the feet; 0 where they reach the floor"`
	Footstool Length          `json:"footstool" doc:"under one foot, for a guitar; 0 for none"`
	Estimated bool            `json:"estimated" doc:"something was reckoned from stature"`
	Says      []reason.Reason `json:"says" doc:"what to set up, in order, and what to mind"`
	Figure    []Joint         `json:"figure" doc:"a player from the side, to scale"`
	KeyTops   float64         `json:"keyTops" doc:"height of the keys in the figure; 0 for none"`
}

// A Joint of the figure, in cm from the floor under the front edge of the seat;
// x grows towards the instrument.
type Joint struct {
	Name string  `json:"name" enum:"hip,knee,heel,shoulder,elbow,wrist,head"`
	X    float64 `json:"x"`
	Y    float64 `json:"y"`
}

// FromStature reckons the seated elbow above the seat and the lower leg with
// shoes, with their spread: wider for children, who are not small adults.
func FromStature(stature float64, child bool) (elbow, lowerLeg Length) {
	off := judgement.SeatSpread * stature
	if child {
		off += judgement.SeatSpreadChild
	}
	e := (elbowStanding - (1 - sittingHeight)) * stature
	l := (kneeHeight-judgement.SeatHollow)*stature + judgement.SeatShoes
	return Length{e - off, e, e + off}, Length{l - off, l, l + off}
}

// Check says what cannot be of a body or a place, and what to do.
func Check(b Player, p Bench) error {
	in := func(what string, v, least, most float64) error {
		if v != 0 && (v < least || v > most) {
			return fmt.Errorf("%s of %s cm cannot be right; measure again (%s to %s cm)", what, cm(v), cm(least), cm(most))
		}
		return nil
	}
	for _, err := range []error{
		in("a stature", b.Stature, 70, 230), in("an elbow height above the seat", b.Elbow, 8, 40), in("a lower leg", b.LowerLeg, 15, 65),
		in("white keys at a height", p.KeyTops, 45, 95), in("a seat at its lowest", p.BenchLow, 15, 80), in("a seat at its highest", p.BenchHigh, 15, 90),
		in("a tile", p.Tile, 0.5, 10),
	} {
		if err != nil {
			return err
		}
	}
	switch {
	case b.Stature > 0 && b.Elbow > 0.25*b.Stature:
		return fmt.Errorf("an elbow %s cm above the seat is too high for a stature of %s cm; measure from the seat, not from the floor", cm(b.Elbow), cm(b.Stature))
	case b.Stature > 0 && b.LowerLeg > 0.36*b.Stature:
		return fmt.Errorf("a lower leg of %s cm is too long for a stature of %s cm; measure to the hollow of the knee", cm(b.LowerLeg), cm(b.Stature))
	case p.BenchLow > 0 && p.BenchHigh > 0 && p.BenchLow > p.BenchHigh:
		return fmt.Errorf("the seat's lowest setting of %s cm is above its highest of %s cm; swap the two", cm(p.BenchLow), cm(p.BenchHigh))
	case b.Stature == 0 && (b.Elbow == 0 || b.LowerLeg == 0):
		return fmt.Errorf("give a stature, or both the elbow above the seat and the lower leg; a tape measure is better")
	}
	return nil
}

// cm writes a length without needless figures.
func cm(l float64) string { return strconv.FormatFloat(math.Round(10*l)/10, 'f', -1, 64) }

func or(v, usual float64) float64 {
	if v == 0 {
		return usual
	}
	return v
}

// Work fits a player to a place. Prefer raises (or lowers) the elbow over the
// keys, within a few centimetres. Errors are those of Check.
func Work(b Player, p Bench, how instrument.Seat, prefer float64) (Fit, error) {
	if err := Check(b, p); err != nil {
		return Fit{}, err
	}
	f := Fit{Says: []reason.Reason{}}
	elbow, leg := exact(b.Elbow), exact(b.LowerLeg)
	if b.Stature > 0 {
		e, l := FromStature(b.Stature, b.Child)
		if b.Elbow == 0 {
			elbow, f.Estimated = e, true
		}
		if b.LowerLeg == 0 {
			leg, f.Estimated = l, true
		}
	}
	low, high, tile := or(p.BenchLow, usualBenchLow), or(p.BenchHigh, usualBenchHigh), or(p.Tile, usualTile)
	if p.BenchHigh == 0 && p.BenchLow > 0 {
		high = max(low, usualBenchHigh)
	}
	low = min(low, high)
	switch how {
	case instrument.AtKeys:
		f.KeyTops = or(p.KeyTops, usualKeyTops)
		f.Seat = from(f.KeyTops, elbow).plus(prefer)
	case instrument.Spike:
		f.Seat = leg.plus(judgement.SeatCello) // hips a little above the knees
	case instrument.Footrest:
		f.Seat = leg
		stool := judgement.SeatFootstool * or(b.Stature, elbow.Best/(elbowStanding-1+sittingHeight))
		f.Footstool = Length{stool - 3, stool, stool + 3}
	default:
		f.Seat = leg // the chair of one who sits down to it
	}
	f.raise(low, high, tile)
	if gap := from(0, leg).plus(f.height(tile)); gap.Best > noticed {
		f.Platform = Length{max(gap.Low, 0), gap.Best, gap.High}
	}
	f.say(p, how, low)
	f.draw(b, elbow, leg, tile)
	return f, nil
}

// noticed is a gap under the feet that is left as it is: less than a firm sole.
const noticed = 1.0

// raise sets bench and tiles for the height wanted: tiles only where the highest
// setting is too low, rounded up to whole ones.
func (f *Fit) raise(low, high, tile float64) {
	if f.Seat.Best > high {
		f.Tiles = int(math.Ceil((f.Seat.Best-high)/tile - 1e-9))
	}
	f.Setting = min(max(f.Seat.Best-float64(f.Tiles)*tile, low), high)
}

// height is that of what is sat on.
func (f *Fit) height(tile float64) float64 { return f.Setting + float64(f.Tiles)*tile }

func (f *Fit) say(p Bench, how instrument.Seat, low float64) {
	say := func(code string, pairs ...string) { f.Says = append(f.Says, reason.Of(code, pairs...)) }
	if how == instrument.Standing {
		say("seat-stand")
	}
	say("seat-height", "cm", cm(math.Round(2*f.Seat.Best)/2), "low", cm(math.Round(f.Seat.Low)), "high", cm(math.Round(f.Seat.High)))
	if f.Tiles > 0 {
		say("seat-tiles", "n", strconv.Itoa(f.Tiles))
	}
	if f.Seat.Best < low-noticed {
		say("seat-too-high", "cm", cm(math.Round(low-f.Seat.Best)))
	}
	if f.Platform.Best > 0 {
		code := "seat-platform"
		if p.Pedals && how == instrument.AtKeys {
			code = "seat-platform-pedals"
		}
		say(code, "cm", cm(math.Round(f.Platform.Best)), "low", cm(math.Round(f.Platform.Low)), "high", cm(math.Round(f.Platform.High)))
	}
	switch how {
	case instrument.Spike:
		say("seat-spike")
	case instrument.Footrest:
		say("seat-footstool", "cm", cm(math.Round(f.Footstool.Best)), "low", cm(math.Round(f.Footstool.Low)), "high", cm(math.Round(f.Footstool.High)))
	}
	say("seat-firm")
	if f.Estimated {
		say("seat-estimated")
	}
}

// draw makes the figure from what was measured and, where nothing was, from the
// proportions of stature.
func (f *Fit) draw(b Player, elbow, leg Length, tile float64) {
	h := or(b.Stature, elbow.Best/(elbowStanding-1+sittingHeight))
	seat, back := f.height(tile), thigh*h*0.5 // on the front half: half the thigh is carried
	knee := Joint{"knee", thigh*h - back, min(seat, leg.Best+f.Platform.Best)}
	sh := Joint{"shoulder", -back + 0.02*h, seat + (shoulder-1+sittingHeight)*h}
	el := Joint{"elbow", sh.X + 0.03*h, seat + elbow.Best}
	f.Figure = []Joint{{"hip", -back, seat}, knee, {"heel", knee.X, f.Platform.Best}, sh, el, {"wrist", el.X + forearm*h, el.Y}, {"head", sh.X + 0.01*h, seat + sittingHeight*h}}
}

// Preference returns how far over the keys a school of the approach wants the
// elbow: beginners start in the middle. Common practice, no source.
func Preference(school approach.School) float64 {
	switch school {
	case approach.Above:
		return judgement.SeatPreference
	case approach.Below:
		return -judgement.SeatPreference
	}
	return 0
}
