package instrument

// keyboards: the piano, and smaller keyboards that play from its shelf.
var keyboards = Set{
	keyboard("piano", "piano", 0),
	keyboard("keyboard-76", "keyboard of 76 keys", 76),
	keyboard("keyboard-61", "keyboard of 61 keys", 61),
	keyboard("keyboard-49", "keyboard of 49 keys", 49),
}

func keyboard(id ID, name string, keys int) Profile {
	p := Profile{ID: id, Name: name, Family: Keyboard, Keys: keys, Clef: "G2", Seat: AtKeys, First: []string{"key-groups", "one-finger"}, Points: []string{"Fingering"}}
	if id != "piano" {
		p.Kin = "piano"
	}
	return p
}

// Compass returns the lowest and highest key of a keyboard of so many keys, as MIDI
// numbers; 0 is a full one. Common layouts: 88 keys from A0; 76 from E1; 61 and 49 from
// C2; smaller ones from C3. Common practice, no source.
func Compass(keys int) (low, high int) {
	switch {
	case keys == 0 || keys >= 88:
		return 21, 108
	case keys >= 73:
		low = 28
	case keys >= 49:
		low = 36
	default:
		low = 48
	}
	return low, low + keys - 1
}
