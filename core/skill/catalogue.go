package skill

// Catalogue returns the skills that the shipped materials speak of.
func Catalogue() Graph {
	g, err := New(catalogue)
	if err != nil {
		panic(err) // the test of this package would have failed first
	}
	return g
}

var catalogue = []Skill{
	{"steady-beat", "Steady beat", Shared, nil},
	{"halves", "Two to a beat", Shared, []string{"steady-beat"}},
	{"long-notes", "Notes of two and four beats", Shared, []string{"steady-beat"}},
	{"dotted", "Dotted rhythm", Shared, []string{"halves"}},
	{"three-time", "Three beats in a bar", Shared, []string{"steady-beat"}},
	{"six-eight", "Two swings of three", Shared, []string{"halves", "three-time"}},
	{"pickup", "Beginning before the bar", Shared, []string{"steady-beat"}},
	{"rests", "Silences counted", Shared, []string{"steady-beat"}},
	{"direction", "Up, down, same on the page", Shared, nil},
	{"steps", "Steps", Shared, []string{"direction"}},
	{"skips", "Skips", Shared, []string{"steps"}},
	{"landmarks", "Landmark notes", Shared, []string{"direction"}},
	{"key-signature", "Key signature kept in mind", Shared, []string{"landmarks"}},
	{"accidentals", "Sharps and flats on the way", Shared, []string{"landmarks"}},
	{"loud-soft", "Loud against soft", Shared, nil},
	{"ties", "Tied notes", Shared, []string{"long-notes"}},

	{"hand-shape", "Hanging hand on five keys", Keyboard, nil},
	{"five-fingers", "Five fingers, one after another", Keyboard, []string{"hand-shape"}},
	{"hands-in-turn", "Hands taking turns", Keyboard, []string{"five-fingers"}},
	{"held-left-hand", "Long notes under a tune", Keyboard, []string{"hands-in-turn", "long-notes"}},
	{"hands-together", "Both hands moving", Keyboard, []string{"held-left-hand"}},
	{"touch-detached", "Detached touch", Keyboard, []string{"five-fingers"}},
	{"touch-joined", "Joined touch", Keyboard, []string{"five-fingers"}},
	{"g-position", "Five fingers from G", Keyboard, []string{"five-fingers"}},
	{"f-position", "Five fingers from F, with B flat", Keyboard, []string{"five-fingers", "accidentals"}},
	{"thumb-under", "Thumb starts early, arm glides", Keyboard, []string{"five-fingers"}},
	{"scale-white", "One octave: C, G, D, A and E", Keyboard, []string{"thumb-under"}},
	{"scale-black", "One octave from black keys", Keyboard, []string{"scale-white"}},

	{"bow-hold", "Bow hold", Bowed, nil},
	{"long-bows", "Long straight bows", Bowed, []string{"bow-hold"}},
	{"string-levels", "Arm at each string's level", Bowed, []string{"bow-hold"}},
	{"first-finger", "First finger in place", Bowed, nil},
	{"block-fingers", "Fingers set as a block", Bowed, []string{"first-finger"}},
	{"stepping-fingers", "Fingers stepping one by one", Bowed, []string{"block-fingers"}},
	{"slur-three", "Three notes in a bow", Bowed, []string{"long-bows", "stepping-fingers"}},
	{"quick-crossings", "Quick string crossings", Bowed, []string{"string-levels"}},
	{"reach-back", "First finger reached back", Bowed, []string{"stepping-fingers"}},
	{"slow-bows", "Long slow bows", Bowed, []string{"long-bows"}},

	{"resting-hand", "Natural hand on the strings", Plucked, nil},
	{"alternating", "i and m in turn", Plucked, []string{"resting-hand"}},
	{"thumb-bass", "Thumb on the low strings", Plucked, []string{"resting-hand"}},
	{"pima", "p i m a evenly", Plucked, []string{"thumb-bass", "alternating"}},
	{"first-position", "First position", Plucked, nil},
	{"held-chord", "Fingers that stay down", Plucked, []string{"first-position"}},
}
