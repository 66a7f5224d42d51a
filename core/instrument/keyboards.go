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
