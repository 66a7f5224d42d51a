package reading

import (
	"cmp"
	"fmt"
	"slices"
	"sort"
	"strings"

	"patientladder/core/score"
)

// Words are spoken phrases for rhythms of one beat and of two, by how the rhythm
// is written: lengths in beats joined by spaces, r before a rest, such as
// "1/2 1/2". Beats of three take thirds.
type Words map[string]string

// OwnWords are the words that a studio starts with: ours.
var OwnWords = Words{
	"1":               "tide",
	"r1":              "(hush)",
	"1/2 1/2":         "har-bour",
	"1/4 1/4 1/4 1/4": "bar-na-cle bay",
	"1/2 1/4 1/4":     "long net-mend",
	"1/4 1/4 1/2":     "mend-ing nets",
	"3/4 1/4":         "an—chor",
	"1/4 3/4":         "the quay",
	"1/2 r1/2":        "splash (and)",
	"r1/2 1/2":        "(and) row",
	"1/3 1/3 1/3":     "ma-ri-ner",
	"2/3 1/3":         "rock—ing",
	"1/3 2/3":         "a wave",
	"1/4 1/2 1/4":     "the slip-way",
	"2":               "swe—ll",
	"r2":              "(hush, hush)",
	"3/2 1/2":         "light—house",
	"1/2 3/2":         "the mo—le",
	"1/2 1 1/2":       "a fer-ry's",
	"1 1":             "ebb, flow",
	"3":               "slow—ly",
	"4":               "out—",
}

// A Spoken is a rhythm of a page with its words.
type Spoken struct {
	Rhythm string     `json:"rhythm" doc:"lengths in beats, r before a rest"`
	Say    string     `json:"say" doc:"empty where the list has no words for it"`
	Bar    int        `json:"bar" doc:"where first met"`
	Beat   score.Time `json:"beat"`
	Times  int        `json:"times"`
	IDs    []string   `json:"ids" doc:"of the notes that begin it, each time it comes"`
}

// Rhythms lists the rhythms of the tune, that is of the first staff's first
// voice, each beat one, or two where a note is held over the beat between, with
// their words; the most frequent first.
func (p Page) Rhythms(words Words) []Spoken {
	out := []Spoken{}
	at := map[string]int{}
	for _, c := range p.motifs() {
		i, met := at[c.rhythm]
		if !met {
			i = len(out)
			at[c.rhythm] = i
			out = append(out, Spoken{Rhythm: c.rhythm, Say: words[c.rhythm], Bar: c.start.bar, Beat: c.start.Onset, IDs: []string{}})
		}
		out[i].Times++
		if !c.start.Rest {
			out[i].IDs = append(out[i].IDs, c.start.ID)
		}
	}
	slices.SortStableFunc(out, func(a, b Spoken) int { return cmp.Compare(b.Times, a.Times) })
	return out
}

// A motif is the rhythm of a beat of the tune, or of a few.
type motif struct {
	rhythm string
	start  *seen
}

// motifs cuts the tune into them, in order.
func (p Page) motifs() []motif {
	if len(p.Staves) == 0 {
		return nil
	}
	var out []motif
	var signs []byte
	var start *seen
	known := map[string]string{} // most come back
	length := score.Time{}
	flush := func() {
		if len(signs) > 0 {
			rhythm, met := known[string(signs)]
			if !met {
				rhythm = string(signs)
				known[rhythm] = rhythm
			}
			out = append(out, motif{rhythm, start})
		}
		signs, length = signs[:0], score.Time{}
	}
	last := Place{}
	p.Staves = p.Staves[:1]
	for _, n := range melody(see(p)) {
		if n.bar != last.Bar {
			flush() // a cell does not cross a bar line
		}
		last = n.place()
		if len(signs) == 0 {
			start = n
		} else {
			signs = append(signs, ' ')
		}
		if n.Rest {
			signs = append(signs, 'r')
		}
		signs, _ = n.beats.AppendText(signs) // never fails
		length = length.Add(n.beats)
		// a cell ends where a beat does, counted from where it began
		if _, den := length.Fraction(); den == 1 {
			flush()
		}
	}
	flush()
	return out
}

// spoken tells the smallest chunks of the tune's hand their rhythms.
func spoken(c *Chunk, motifs []motif) {
	for i := range c.Parts {
		spoken(&c.Parts[i], motifs)
	}
	if len(c.Parts) > 0 {
		return
	}
	first := sort.Search(len(motifs), func(i int) bool { return !motifs[i].start.place().before(c.From) })
	last := first
	for last < len(motifs) && !c.To.before(motifs[last].start.place()) {
		last++
	}
	c.Rhythm = slices.Grow(c.Rhythm, last-first)
	for _, m := range motifs[first:last] {
		c.Rhythm = append(c.Rhythm, m.rhythm)
	}
}

// melody returns the notes and rests of the first staff's first voice, one of each
// chord.
func melody(s *sight) []*seen {
	var out []*seen
	voice := 0
	for _, n := range s.notes[0] {
		if voice == 0 {
			voice = n.Voice
		}
		if n.Voice != voice || n.beats.Sign() == 0 {
			continue
		}
		if last := len(out) - 1; last >= 0 && out[last].bar == n.bar && out[last].Onset == n.Onset {
			continue
		}
		out = append(out, n)
	}
	return out
}

// Check says what is wrong with a list of words.
func (w Words) Check() error {
	for rhythm, say := range w {
		if err := checkRhythm(rhythm, say); err != nil {
			return err
		}
	}
	return nil
}

func checkRhythm(rhythm, say string) error {
	sum := score.Time{}
	for part := range strings.FieldsSeq(rhythm) {
		t, err := score.ParseTime(strings.TrimPrefix(part, "r"))
		if err != nil || t.Sign() <= 0 {
			return fmt.Errorf("the rhythm %q has a length %q; lengths are beats such as 1/2, with r before a rest", rhythm, part)
		}
		sum = sum.Add(t)
	}
	switch _, den := sum.Fraction(); {
	case sum.Sign() == 0 || den != 1 || score.Quarters(4).Less(sum):
		return fmt.Errorf("the rhythm %q lasts %s beats; it must last one, two, three or four", rhythm, sum)
	case strings.TrimSpace(say) == "" || len(say) > 60:
		return fmt.Errorf("the rhythm %q needs words of at most 60 letters", rhythm)
	}
	return nil
}
