package musicxml

import (
	"fmt"

	"patientladder/core/score"
)

// beams returns the beam elements of a bar's notes by id.
func beams(b score.Bar, m score.Meter) map[string]string {
	out := map[string]string{}
	for voice := 1; voice <= 16; voice++ {
		var group []score.Note
		var of int
		flush := func() {
			for level := 1; level <= 4; level++ {
				beamLevel(group, level, out)
			}
			group = nil
		}
		last := score.Quarters(-1)
		for _, n := range b.Notes {
			if n.Voice != voice || n.Grace || n.Onset == last {
				continue
			}
			last = n.Onset
			at := b.Beamed(m, n.Onset)
			if len(group) > 0 && at != of {
				flush()
			}
			if n.Rest || flags(n) == 0 {
				flush()
				continue
			}
			of = at
			group = append(group, n)
		}
		flush()
	}
	return out
}

// beamLevel writes one level of beams over the runs of notes that have it.
func beamLevel(group []score.Note, level int, out map[string]string) {
	if len(group) < 2 {
		return
	}
	for i := 0; i < len(group); {
		j := i
		for j < len(group) && flags(group[j]) >= level {
			j++
		}
		for k := i; k < j; k++ {
			word := "continue"
			switch {
			case j-i == 1 && k == 0:
				word = "forward hook"
			case j-i == 1:
				word = "backward hook"
			case k == i:
				word = "begin"
			case k == j-1:
				word = "end"
			}
			out[group[k].ID] += fmt.Sprintf(`<beam number="%d">%s</beam>`, level, word)
		}
		i = max(j, i+1)
	}
}

// flags returns how many flags a note has: 1 for an eighth.
func flags(n score.Note) int {
	shown, err := n.Shown()
	if err != nil {
		return 0
	}
	name, _, _ := sign(shown)
	return map[string]int{"eighth": 1, "16th": 2, "32nd": 3, "64th": 4}[name]
}
