package instrument

import "patientladder/core/pitch"

// What plucked strings share.
var (
	pluckedFirst = []string{"guitar-seat", "resting-hand"}
	strokes      = []string{"Even strokes"}
)

// plucked are the strings that fingers or a plectrum pluck.
var plucked = Set{
	{ID: "guitar", Name: "guitar", Family: Plucked, Strings: pitch.MustParseAll("E4", "B3", "G3", "D3", "A2", "E2"), Frame: FretHand, Roll: []string{"a", "m", "i", "p", "p", "p"},
		Clef: "G2", Written: 12, Low: pitch.MustParse("E3"), High: pitch.MustParse("B6"), Seat: Footrest, Holds: "guitar-seat", First: pluckedFirst, Points: strokes},
	{ID: "bass-guitar", Name: "bass guitar", Family: Plucked, Strings: pitch.MustParseAll("G2", "D2", "A1", "E1"), Frame: FretHand, Roll: []string{"i", "i", "i", "i"},
		Clef: "F4", Written: 12, Low: pitch.MustParse("E2"), High: pitch.MustParse("E5"), Seat: Standing, Holds: "guitar-seat", First: pluckedFirst, Points: strokes},
	{ID: "ukulele", Name: "ukulele", Family: Plucked, Strings: pitch.MustParseAll("A4", "E4", "C4", "G4"), Frame: FretHand, Roll: []string{"m", "i", "p", "p"},
		Clef: "G2", Low: pitch.MustParse("C4"), High: pitch.MustParse("A5"), Seat: Standing, Holds: "guitar-seat", First: pluckedFirst, Points: strokes},
	{ID: "mandolin", Name: "mandolin", Family: Plucked, Strings: pitch.MustParseAll("E5", "A4", "D4", "G3"), Frame: ShortFrets,
		Clef: "G2", Low: pitch.MustParse("G3"), High: pitch.MustParse("A6"), Seat: Standing, Holds: "guitar-seat", First: pluckedFirst, Points: strokes},
	{ID: "five-string", Name: "five-string with a drone", Family: Plucked, Strings: pitch.MustParseAll("D4", "B3", "G3", "D3", "G4"), Drone: 5, Frame: FretHand, Roll: []string{"m", "i", "t", "t", "t"},
		Clef: "G2", Written: 12, Low: pitch.MustParse("D4"), High: pitch.MustParse("D7"), Seat: Standing, Holds: "guitar-seat", First: pluckedFirst, Points: strokes},
}
