package week

import "slices"

// A Bracketed is a piece of a sheet whose chunks are drawn over its notes.
type Bracketed struct {
	Rung   string    `json:"rung"`
	Item   string    `json:"item"`
	Title  string    `json:"title"`
	From   int       `json:"from" doc:"first bar that is drawn"`
	To     int       `json:"to" doc:"last"`
	Chunks []Bracket `json:"chunks"`
}

// A Bracket is a chunk as it is drawn.
type Bracket struct {
	From   string `json:"from" doc:"id of its first note in the score"`
	To     string `json:"to" doc:"id of its last"`
	Hand   string `json:"hand" enum:",right,left,both"`
	Level  int    `json:"level" doc:"0 for a smallest chunk, more for one that is joined from others"`
	Says   string `json:"says" doc:"its hand and finger, where it starts"`
	Number int    `json:"number" doc:"in the order of learning, from 1"`
}

// Bracketed gathers what a sheet builds of each piece in hand, in the order in which it
// is learnt. item names that of a task.
func (s Sheet) Bracketed(item func(Task) string) []Bracketed {
	out := []Bracketed{}
	for _, d := range s.Days {
		for _, t := range d.Tasks {
			if t.Band != "now" || t.Start == nil || t.Spot != "" || t.From == 0 {
				continue
			}
			i := slices.IndexFunc(out, func(b Bracketed) bool { return b.Rung == t.Rung })
			if i < 0 {
				out, i = append(out, Bracketed{Rung: t.Rung, Item: item(t), Title: t.Title, From: t.From, To: t.To, Chunks: []Bracket{}}), len(out)
			}
			b := &out[i]
			b.From, b.To = min(b.From, t.From), max(b.To, t.To)
			if slices.ContainsFunc(b.Chunks, func(c Bracket) bool { return c.From == t.Start.From && c.To == t.Start.To && c.Hand == t.Start.Hand }) {
				continue
			}
			b.Chunks = append(b.Chunks, Bracket{From: t.Start.From, To: t.Start.To, Hand: t.Start.Hand, Level: t.Start.Level, Says: t.Says.Mark, Number: len(b.Chunks) + 1})
		}
	}
	return out
}
