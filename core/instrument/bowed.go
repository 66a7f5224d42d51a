package instrument

import "patientladder/core/pitch"

// What bowed strings share.
var (
	bowedFirst = []string{"open-strings", "bow-hold"}
	tuning     = []string{"Tuning"}
)

// bowed are the strings with a bow, from the highest.
var bowed = Set{
	{ID: "violin", Name: "violin", Family: Bowed, Strings: pitch.MustParseAll("E5", "A4", "D4", "G3"), Frame: PatternHand,
		Clef: "G2", Low: pitch.MustParse("G3"), High: pitch.MustParse("E7"), Seat: Standing, Holds: "shoulder-hold", First: bowedFirst, Points: tuning},
	{ID: "viola", Name: "viola", Family: Bowed, Strings: pitch.MustParseAll("A4", "D4", "G3", "C3"), Frame: PatternHand,
		Clef: "C3", Low: pitch.MustParse("C3"), High: pitch.MustParse("A6"), Seat: Standing, Holds: "shoulder-hold", First: bowedFirst, Points: tuning},
	{ID: "cello", Name: "cello", Family: Bowed, Strings: pitch.MustParseAll("A3", "D3", "G2", "C2"), Frame: SemitoneHand,
		Clef: "F4", Low: pitch.MustParse("C2"), High: pitch.MustParse("A5"), Seat: Spike, Holds: "cello-seat", First: bowedFirst, Points: tuning},
	{ID: "double-bass", Name: "double bass", Family: Bowed, Strings: pitch.MustParseAll("G2", "D2", "A1", "E1"), Frame: BassHand, Written: 12,
		Clef: "F4", Low: pitch.MustParse("E2"), High: pitch.MustParse("G4"), Seat: Standing, Holds: "bass-stand", First: bowedFirst, Points: tuning},
}
