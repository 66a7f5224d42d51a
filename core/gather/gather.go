// Package gather plans an hour in which several students play together: what all of them can play, who
// plays which passage when the tune is handed on, games that hide practice, and the minutes.
//
// Who plays when is arithmetic: a tune of so many beats, handed on every few beats among so many players,
// comes back to the same player at the same passage after the least common multiple of both. The games,
// the forms of each player and the order of an hour are common practice, no source.
package gather

import (
	"cmp"
	"fmt"
	"slices"
	"strings"
	"time"

	"patientladder/core/calendar"
	"patientladder/core/instrument"
	"patientladder/core/judgement"
	"patientladder/core/reading"
	"patientladder/core/score"
)

// An Hour is one that several students share.
type Hour struct {
	ID       string            `json:"id" minLength:"26" maxLength:"26" doc:"made by the client: a ULID"`
	Name     string            `json:"name" maxLength:"100"`
	Day      calendar.Date     `json:"day"`
	Start    string            `json:"start,omitempty" maxLength:"5" doc:"15:04; empty where it is not known yet"`
	Minutes  int               `json:"minutes" minimum:"10" maximum:"240"`
	Students []string          `json:"students" maxItems:"40" doc:"in the order in which they stand"`
	Tunes    []string          `json:"tunes" maxItems:"12" doc:"keys of what is played, the first of them handed on"`
	Each     int               `json:"each,omitempty" minimum:"0" maximum:"64" doc:"beats before it is handed on; 0 for what suits"`
	Beats    int               `json:"beats,omitempty" minimum:"0" maximum:"2000" doc:"of the first tune; 0 for as it is written"`
	Fresh    bool              `json:"fresh" doc:"they do not know each other yet"`
	SitOut   bool              `json:"sitOut" doc:"who misses twice sits out a round; else nobody does"`
	Left     []string          `json:"left" maxItems:"20" doc:"kinds of what is left out"`
	Forms    map[string]string `json:"forms,omitempty" doc:"easier or harder, by student; as it is for others"`
	Marked   bool              `json:"marked" doc:"it was given, and what was good is told"`
}

// Check says what is wrong with an hour.
func (h Hour) Check() error {
	switch _, err := calendar.ParseDate(string(h.Day)); {
	case strings.TrimSpace(h.Name) == "":
		return fmt.Errorf("it needs a name")
	case err != nil:
		return fmt.Errorf("%q is no day", h.Day)
	case len(h.Students) < 2:
		return fmt.Errorf("it takes at least two students")
	}
	if _, err := time.Parse("15:04", h.Start); h.Start != "" && err != nil {
		return fmt.Errorf("%q is no time of day", h.Start)
	}
	for i, id := range h.Students {
		if slices.Contains(h.Students[:i], id) {
			return fmt.Errorf("one student stands in it twice")
		}
	}
	for id, form := range h.Forms {
		if form != Easier && form != Harder || !slices.Contains(h.Students, id) {
			return fmt.Errorf("a form is easier or harder, of a student who is there")
		}
	}
	return nil
}

// The forms of a player's part.
const (
	Easier = "easier"
	Harder = "harder"
)

// A Piece is one that a player has.
type Piece struct {
	Tune    string // what makes it the same as another's: Key
	Rung    string
	Item    string // with notes; empty for none
	Title   string
	Key     string  // as G major; empty for not known
	Meter   string  // as 3/4; empty for not known
	Bars    int     // 0 for not known
	QPM     float64 // quarter notes a minute; 0 for none written
	Recall  float64 // that it still goes well, from memory
	Current bool    // in hand, and not secure
}

// Beats is how many beats a bar of a meter such as 6/8 has; four where it is not known.
func Beats(meter string) int {
	m, err := score.ParseMeter(meter)
	if err != nil {
		return 4
	}
	return reading.Beats(m)
}

// TuneOf is what a title and a composer have in common with the same tune of another instrument: their
// letters.
func TuneOf(title, composer string) string {
	plain := func(s string) string {
		var b strings.Builder
		for _, r := range strings.ToLower(s) {
			if r >= 'a' && r <= 'z' || r >= '0' && r <= '9' || r > 127 {
				b.WriteRune(r)
			}
		}
		return b.String()
	}
	title, _, _ = strings.Cut(title, " (")
	return plain(title) + "/" + plain(composer)
}

// A Player is a student who comes.
type Player struct {
	ID     string
	Name   string
	Age    int
	Plays  instrument.Profile
	Pieces []Piece
}

// A Tune is one that some of the players can play.
type Tune struct {
	Tune    string   `json:"tune" doc:"its key"`
	Title   string   `json:"title"`
	Who     []Can    `json:"who"`
	Missing []string `json:"missing" doc:"ids of the players who cannot"`
	Keys    []string `json:"keys" doc:"as they have it; more than one: in turn, not at once"`
	Meter   string   `json:"meter" doc:"empty for not known"`
	Bars    int      `json:"bars"`
	Recall  float64  `json:"recall" doc:"of who has it least"`
	Item    string   `json:"-"` // with its notes; empty for none
	QPM     float64  `json:"-"` // quarter notes a minute; 0 for none written
}

// A Can is a player who can play a tune.
type Can struct {
	Student string  `json:"student"`
	Rung    string  `json:"rung"`
	Recall  float64 `json:"recall"`
}

// Common lists what players can play: secure and fresh in the memory of each, what most of them have first,
// then what is freshest.
func Common(players []Player) []Tune {
	by := map[string]*Tune{}
	for _, p := range players {
		for _, q := range p.Pieces {
			if q.Current || q.Recall < judgement.GatherFresh {
				continue
			}
			t := by[q.Tune]
			if t == nil {
				t = &Tune{Tune: q.Tune, Title: q.Title, Meter: q.Meter, Bars: q.Bars, Recall: q.Recall, Missing: []string{}, Keys: []string{}}
				by[q.Tune] = t
			}
			if slices.ContainsFunc(t.Who, func(c Can) bool { return c.Student == p.ID }) {
				continue
			}
			t.Who, t.Recall = append(t.Who, Can{p.ID, q.Rung, q.Recall}), min(t.Recall, q.Recall)
			if q.Key != "" && !slices.Contains(t.Keys, q.Key) {
				t.Keys = append(t.Keys, q.Key)
			}
			t.Meter, t.Bars, t.Item, t.QPM = cmp.Or(t.Meter, q.Meter), cmp.Or(t.Bars, q.Bars), cmp.Or(t.Item, q.Item), cmp.Or(t.QPM, q.QPM)
		}
	}
	var out []Tune
	for _, t := range by {
		for _, p := range players {
			if !slices.ContainsFunc(t.Who, func(c Can) bool { return c.Student == p.ID }) {
				t.Missing = append(t.Missing, p.ID)
			}
		}
		out = append(out, *t)
	}
	slices.SortFunc(out, func(a, b Tune) int {
		return cmp.Or(cmp.Compare(len(b.Who), len(a.Who)), cmp.Compare(len(a.Keys), len(b.Keys)), cmp.Compare(b.Recall, a.Recall), cmp.Compare(a.Title, b.Title))
	})
	return out
}

// A Partner is another student who could play with a piece.
type Partner struct {
	Student string `json:"student"`
	Name    string `json:"name"`
	Rung    string `json:"rung"`
	Title   string `json:"title" doc:"of what the other plays"`
	Same    bool   `json:"same" doc:"the same piece"`
	Key     string `json:"key"`
	How     string `json:"how" enum:"halves,lead,beside" doc:"halves: the same piece, half and half as a duet; lead: the same, the other leads; beside: another piece of the same key and meter"`
}

// fold reports whether one of two lengths holds the other a whole number of times.
func fold(a, b int) bool { return a > 0 && b > 0 && max(a, b)%min(a, b) == 0 }

// Proposed are the tunes that an hour begins from while none is chosen: some that most of them can play.
func Proposed(common []Tune, players int) []Tune {
	const some = 3
	var out []Tune
	for _, t := range common {
		if len(t.Who) >= 2 && 2*len(t.Who) >= players && len(out) < some {
			out = append(out, t)
		}
	}
	return out
}

// Partners lists what others could play with a piece of a player, the same piece first: who has it
// secure leads while it is in hand here, and shares it half and half once it is secure; else what
// has the same key and meter and goes into its bars, one piece of each, which the ear must decide.
func Partners(of Player, piece Piece, others []Player) []Partner {
	var out []Partner
	for _, p := range others {
		if p.ID == of.ID {
			continue
		}
		for _, q := range p.Pieces {
			if q.Current || q.Recall < judgement.GatherFresh {
				continue
			}
			one := Partner{Student: p.ID, Name: p.Name, Rung: q.Rung, Title: q.Title, Same: q.Tune == piece.Tune, Key: q.Key}
			switch alike := q.Key == piece.Key || q.Key == "" || piece.Key == ""; {
			case one.Same && alike && piece.Current:
				one.How = "lead"
			case one.Same && alike:
				one.How = "halves"
			case !one.Same && q.Key != "" && q.Key == piece.Key && q.Meter != "" && q.Meter == piece.Meter && fold(q.Bars, piece.Bars) &&
				!slices.ContainsFunc(out, func(had Partner) bool { return had.Student == p.ID && had.How == "beside" }):
				one.How = "beside"
			default:
				continue
			}
			out = append(out, one)
		}
	}
	slices.SortStableFunc(out, func(a, b Partner) int {
		rank := map[bool]int{true: 0, false: 1}
		return cmp.Or(cmp.Compare(rank[a.Same], rank[b.Same]), cmp.Compare(a.Name, b.Name), cmp.Compare(a.Title, b.Title))
	})
	return out
}
