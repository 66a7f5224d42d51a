package gather

import (
	"fmt"
	"slices"
	"strings"

	"patientladder/core/instrument"
	"patientladder/core/lesson"
	"patientladder/core/reason"
)

// An HourBlock is a stretch of a shared hour.
type HourBlock struct {
	Kind    string         `json:"kind" enum:"know,through,hand-on,walk,choose,stand,parts,voices,inside,good"`
	Name    reason.Label   `json:"name"`
	From    int            `json:"from" doc:"minutes from the beginning"`
	Minutes int            `json:"minutes"`
	How     []reason.Label `json:"how" doc:"what to do, step by step"`
	Why     reason.Label   `json:"why"`
}

// A block as an hour may have it. From what age on the youngest suits it.
type game struct {
	kind              string
	least, best, most int
	weight            float64
	must              bool
	from              int // age of the youngest
	steps             int // in the catalogue
}

// how is what to do, step by step.
func (g game) how() []reason.Label {
	out := []reason.Label{}
	for i := range g.steps {
		out = append(out, reason.Said(fmt.Sprintf("together.%s-how-%d", g.kind, i+1)))
	}
	return out
}

// games are what a shared hour is made of, in order. Common practice, no source.
var games = []game{
	{"know", 3, 5, 8, 3, true, 0, 3},
	{"through", 4, 8, 15, 3, true, 0, 0},
	{"hand-on", 6, 10, 20, 3, true, 0, 2},
	{"walk", 3, 5, 8, 1.6, false, 0, 2},
	{"choose", 3, 5, 8, 1.4, false, 6, 2},
	{"stand", 3, 4, 8, 1.2, false, 0, 2},
	{"parts", 3, 6, 10, 1.4, false, 0, 2},
	{"voices", 3, 5, 8, 1.4, false, 9, 2},
	{"inside", 2, 4, 6, 0.9, false, 7, 2},
	{"good", 3, 5, 8, 3, true, 0, 2},
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
		b := HourBlock{Kind: in[i].kind, Name: reason.Said("together." + in[i].kind), From: at, Minutes: minutes, How: in[i].how(), Why: reason.Said("together." + in[i].kind + "-why")}
		switch b.Kind {
		case "through":
			for _, t := range tunes {
				b.How = append(b.How, through(t, players)...)
			}
		case "hand-on":
			if h.SitOut {
				b.How = append(b.How, reason.Said("together.sits-out"))
			} else {
				b.How = append(b.How, reason.Said("together.comes-in"))
			}
		}
		at += minutes
		out = append(out, b)
	}
	return out
}

// through says how a tune is played together.
func through(t Tune, players []Player) []reason.Label {
	says := []reason.Label{reason.SaidOf("together.all", "title", t.Title)}
	if len(t.Keys) > 1 {
		says[0] = reason.SaidOf("together.other-keys", "title", t.Title, "keys", strings.Join(t.Keys, ","))
	}
	if len(t.Missing) > 0 {
		var names []string
		for _, id := range t.Missing {
			for _, p := range players {
				if p.ID == id {
					names = append(names, p.Name)
				}
			}
		}
		says = append(says, reason.SaidOf("together.not-yet", "names", strings.Join(names, ", ")))
	}
	return says
}

// Forms are the easier and the harder form of what a player does, by what is played. Common practice, no
// source.
func Forms(p Player) (easier, harder reason.Label) {
	played := string(p.Plays.Family)
	if !slices.Contains(instrument.Families, p.Plays.Family) {
		played = string(instrument.Other)
	}
	low := "together.easier-" + played
	if p.Age < 7 {
		low += "-young"
	}
	return reason.Said(low), reason.Said("together.harder-" + played)
}
