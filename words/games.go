package words

import (
	"fmt"

	"patientladder/core/activity"
	"patientladder/core/fault"
)

// Games are the activities that come with the program, in the words of the language.
func (w *Words) Games() []activity.Activity {
	w.naming.Lock()
	defer w.naming.Unlock()
	if w.games != nil {
		return w.games
	}
	for _, a := range activity.Bank() {
		say := func(part string) string { return w.whereSaid("game." + a.ID + "." + part) }
		a.Title, a.Things, a.Exit, a.Easier, a.Harder, a.Look = say("title"), say("things"), say("exit"), say("easier"), say("harder"), say("look")
		n := len(a.Levels)
		a.Levels, a.Grown = make([]string, n), make([]string, n)
		for i := range n {
			a.Levels[i], a.Grown[i] = say(fmt.Sprintf("level-%d", i+1)), say(fmt.Sprintf("level-%d-grown", i+1))
		}
		w.games = append(w.games, a)
	}
	return w.games
}

// Fault is a fault of body or hand in the words of the language.
func (w *Words) Fault(f fault.Fault) fault.Fault {
	key := "fault." + f.Key
	f.Seen, f.Try, f.Why = w.whereSaid(key+".seen"), w.whereSaid(key+".try"), w.whereSaid(key+".why")
	return f
}

// whereSaid is a message where the catalogue has it; empty where it says nothing.
func (w *Words) whereSaid(key string) string {
	if !w.keys[key] {
		return ""
	}
	return w.Text(key, nil)
}
