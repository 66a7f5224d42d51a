package instrument

// What bowed strings share.
var (
	bowedFirst = []string{"open-strings", "bow-hold"}
	tuning     = []string{"Tuning"}
)

// bowed are the strings with a bow, from the highest.
var bowed = Set{
	{ID: "violin", Name: "violin", Family: Bowed, Strings: notes("E5", "A4", "D4", "G3"), Frame: PatternHand,
		Clef: "G2", Low: note("G3"), High: note("E7"), Seat: Standing, Holds: "shoulder-hold", First: bowedFirst, Points: tuning},
	{ID: "viola", Name: "viola", Family: Bowed, Strings: notes("A4", "D4", "G3", "C3"), Frame: PatternHand,
		Clef: "C3", Low: note("C3"), High: note("A6"), Seat: Standing, Holds: "shoulder-hold", First: bowedFirst, Points: tuning},
	{ID: "cello", Name: "cello", Family: Bowed, Strings: notes("A3", "D3", "G2", "C2"), Frame: SemitoneHand,
		Clef: "F4", Low: note("C2"), High: note("A5"), Seat: Spike, Holds: "cello-seat", First: bowedFirst, Points: tuning},
	{ID: "double-bass", Name: "double bass", Family: Bowed, Strings: notes("G2", "D2", "A1", "E1"), Frame: BassHand, Written: 12,
		Clef: "F4", Low: note("E2"), High: note("G4"), Seat: Standing, Holds: "bass-stand", First: bowedFirst, Points: tuning},
}
