package gather

import (
	"fmt"
	"slices"
	"strings"

	"patientladder/core/instrument"
	"patientladder/core/lesson"
)

// An HourBlock is a stretch of a shared hour.
type HourBlock struct {
	Kind    string   `json:"kind" enum:"know,through,hand-on,walk,choose,stand,parts,voices,inside,good"`
	Name    string   `json:"name"`
	From    int      `json:"from" doc:"minutes from the beginning"`
	Minutes int      `json:"minutes"`
	How     []string `json:"how" doc:"what to do, step by step"`
	Why     string   `json:"why"`
}

// A block as an hour may have it. From what age on the youngest suits it.
type game struct {
	kind              string
	name              string
	least, best, most int
	weight            float64
	must              bool
	from              int // age of the youngest
	how               []string
	why               string
}

// games are what a shared hour is made of, in order. Common practice, no source.
var games = []game{
	{"know", "Who is here", 3, 5, 8, 3, true, 0, []string{"No instruments yet: stand in a ring.", "Each says a name and claps it; all give it back. Once round forwards, once backwards.", "Then somebody claps one of the names: whose was it?"}, "A new group listens sooner when it has laughed once."},
	{"through", "Play it through", 4, 8, 15, 3, true, 0, nil, "First together, as a piece of music, before any game."},
	{"hand-on", "Hand it on", 6, 10, 20, 3, true, 0, []string{"Hand the tune on as the table below has it; all others go on fingering without a sound.", "Nobody stops: whoever is handed it is already there."}, "Pulse, memory and inner hearing at once; nobody notices the practice."},
	{"walk", "Walk it over", 3, 5, 8, 1.6, false, 0, []string{"Whoever has played walks to somebody while fingering on, and stands before them on the last beat: they go on.", "Instruments that cannot walk: a nod, or the teacher walks."}, "Eyes up, and ready for any turn."},
	{"choose", "As many as you like", 3, 5, 8, 1.4, false, 6, []string{"Whoever plays chooses how many notes, from one to a line, and hands on by a look.", "Be ready for any."}, "The tune has to go on in everybody."},
	{"stand", "The teacher stands before", 3, 4, 8, 1.2, false, 0, []string{"Stand before whoever plays next, a beat ahead; no word.", "Then a student does it."}, "All must be ready at every beat."},
	{"parts", "Parts given out", 3, 6, 10, 1.4, false, 0, []string{"Give each a part of the piece, beforehand or on the spot; play it together, each in turn.", "Then swap the parts."}, "A part is a place to begin from, not only the top."},
	{"voices", "Somebody else plays it", 3, 5, 8, 1.4, false, 9, []string{"Each draws a character: somebody old, in a hurry, on ice, half asleep.", "Play a line as that one; the others say who it was."}, "The same notes, said by another."},
	{"inside", "Two bars inside", 2, 4, 6, 0.9, false, 7, []string{"All play; at a lifted hand it goes silent and goes on inside; at the next all come in together.", "Two bars first, then four."}, "Who hears on inside comes in together."},
	{"good", "One good thing", 3, 5, 8, 3, true, 0, []string{"Each plays a line alone, if they like.", "Whoever sits to the left says one thing that was good in it, a real one."}, "What is heard by others is believed sooner."},
}

// Plan gives an hour its blocks, to the minute: what the youngest can, what is new for a group that does
// not know itself yet, without what the teacher left out.
func (h Hour) Plan(players []Player, tunes []Tune) []HourBlock {
	youngest := 99
	for _, p := range players {
		youngest = min(youngest, p.Age)
	}
	var parts []lesson.Part
	var in []game
	for _, g := range games {
		if g.kind == "know" && !h.Fresh || youngest < g.from || slices.Contains(h.Left, g.kind) {
			continue
		}
		if len(tunes) == 0 && g.kind != "know" && g.kind != "good" {
			continue // there is nothing that they play together
		}
		if g.kind == "through" {
			g.best, g.most = max(g.best, 4*len(tunes)), max(g.most, 6*len(tunes))
		}
		in = append(in, g)
		parts = append(parts, lesson.Part{Least: g.least, Best: g.best, Most: g.most, Weight: g.weight, Must: g.must})
	}
	out := []HourBlock{}
	at := 0
	for i, minutes := range lesson.Share(parts, h.Minutes) {
		if minutes == 0 {
			continue
		}
		b := HourBlock{Kind: in[i].kind, Name: in[i].name, From: at, Minutes: minutes, How: slices.Clone(in[i].how), Why: in[i].why}
		switch b.Kind {
		case "through":
			for _, t := range tunes {
				b.How = append(b.How, through(t, players))
			}
		case "hand-on":
			if h.SitOut {
				b.How = append(b.How, "Who misses a turn has a second chance; who misses twice sits out one round.")
			} else {
				b.How = append(b.How, "Who misses a turn comes in at the next; nobody sits out.")
			}
		}
		at += minutes
		out = append(out, b)
	}
	return out
}

// through says how a tune is played together.
func through(t Tune, players []Player) string {
	names := func(ids []string) string {
		var out []string
		for _, id := range ids {
			for _, p := range players {
				if p.ID == id {
					out = append(out, p.Name)
				}
			}
		}
		return listed(out)
	}
	says := fmt.Sprintf("“%s”: all together, a bar counted in by a student.", t.Title)
	if len(t.Keys) > 1 {
		says = fmt.Sprintf("“%s” stands in %s: each group in turn, not at once.", t.Title, listed(t.Keys))
	}
	if len(t.Missing) > 0 {
		says += fmt.Sprintf(" %s: one note a bar, or the beat.", names(t.Missing))
	}
	return says
}

// listed writes a, b and c.
func listed(list []string) string {
	if len(list) < 2 {
		return strings.Join(list, "")
	}
	return strings.Join(list[:len(list)-1], ", ") + " and " + list[len(list)-1]
}

// Forms are the easier and the harder form of what a player does, by what is played. Common practice, no
// source.
func Forms(p Player) (easier, harder string) {
	switch p.Plays.Family {
	case instrument.Keyboard:
		easier, harder = "the first note of each bar, one hand", "by heart, or an octave higher; ready to begin at any bar"
	case instrument.Bowed:
		easier, harder = "the open string of each bar, or the bow in the air", "by heart, walking; ready to begin at any bar"
	case instrument.Plucked:
		easier, harder = "the thumb's string of each bar", "by heart, with the tune and its bass; ready to begin at any bar"
	default:
		easier, harder = "the first note of each bar", "by heart; ready to begin at any bar"
	}
	if p.Age < 7 {
		easier = "the beat on the lap, or " + easier
	}
	return easier, harder
}
