// Package score holds a piece in memory: parts, bars and notes in exact
// rational time.
//
// Bars count from 1. Onsets and durations are in quarter notes (Time). A
// note's onset is measured from the start of its bar, a bar's start from the
// start of the written piece. What a reader met and could not keep stands in
// Unread, so that nothing is lost without a word.
package score

import (
	"fmt"
	"slices"
	"strconv"
	"strings"

	"patientladder/core/pitch"
)

// A Score is one piece as written.
type Score struct {
	Title    string
	Composer string
	Parts    []Part
	Unread   []Unread
}

// A Part is what one player reads, on one staff or several.
type Part struct {
	Name   string
	Staves int // at least 1
	// Elsewhere says that its instrument sounds at another pitch than is written and kept.
	Elsewhere bool
	// Tuning are the open strings that the part itself names, string 1 first, as they sound
	// with the capo; none where it names none.
	Tuning []pitch.Pitch
	Capo   int // fret on which a capo lies; 0 for none
	Bars   []Bar
}

// Pickup reports whether the part begins with less than a bar.
func (p Part) Pickup() bool {
	return len(p.Bars) > 1 && p.Bars[0].Length.Less(p.Bars[1].Length)
}

// A Bar is one measure of one part.
type Bar struct {
	Start  Time // from the start of the written piece
	Length Time // as filled, not as the meter promises
	Key    *pitch.Key
	Meter  *Meter
	Clefs  []Clef // changes, in order
	Notes  []Note // by onset; rests included
	Marks  []Mark
	Repeat Repeat
	Double bool // a double bar line ends it, before the end of the piece
}

// A Meter is a time signature.
type Meter struct {
	Beats    int
	BeatType int // 4 for a quarter note
}

// ParseMeter reads the form String writes.
func ParseMeter(s string) (Meter, error) {
	beats, of, _ := strings.Cut(s, "/")
	b, err1 := strconv.Atoi(beats)
	t, err2 := strconv.Atoi(of)
	if err1 != nil || err2 != nil || b < 1 || b > 64 || t < 1 || t > 64 || t&(t-1) != 0 {
		return Meter{}, fmt.Errorf("%q is not a meter such as 3/4", s)
	}
	return Meter{b, t}, nil
}

// String writes the meter as it is counted: "3/4".
func (m Meter) String() string { return strconv.Itoa(m.Beats) + "/" + strconv.Itoa(m.BeatType) }

// Length returns the length of a full bar.
func (m Meter) Length() Time { return Frac(int64(m.Beats)*4, int64(m.BeatType)) }

// Beamed returns which group of a bar a moment falls in, from 0: eighths and
// shorter notes are beamed within a quarter, or within three eighths where the
// meter counts in threes. A pickup is the end of a bar, so its groups are counted
// from there. Common practice, no source.
func (b Bar) Beamed(m Meter, onset Time) int {
	beat := 1.0
	if m.BeatType == 8 && m.Beats%3 == 0 {
		beat = 1.5
	}
	if m.BeatType > 0 && b.Length.Less(m.Length()) && b.Start.Sign() == 0 {
		onset = onset.Add(m.Length().Sub(b.Length))
	}
	return int(onset.Float() / beat)
}

// A Clef is a sign on a line of a staff.
type Clef struct {
	Onset Time // from the start of the bar
	Staff int
	Sign  string // G, F, C, percussion, TAB
	Line  int
	// Octave is -1 for a clef with a small 8 below: its notes stand an octave
	// higher on the staff than they are kept.
	Octave int
}

// A Note is a sounding note or a rest. Notes of one voice that share an onset
// are a chord.
type Note struct {
	ID       string // unique within the score; kept when the score is drawn
	Onset    Time   // from the start of the bar
	Duration Time   // nought for a grace note
	Pitch    pitch.Pitch
	Rest     bool
	Grace    bool
	Voice    int // from 1
	Staff    int // from 1

	TieFrom, TieTo       bool // continues the note before; goes on into the next
	SlurStarts, SlurEnds int
	Dots                 int
	Tuplet               *Tuplet
	Fingers              []string
	String, Fret         int      // of tablature: string from 1, the highest-sounding; 0 where none is written
	Articulations        []string // staccato, accent, tenuto, fermata, up-bow, trill-mark, ...
	Lyric                string   // a syllable; a hyphen at its end where the word goes on
}

// Shown returns the length that a note's sign shows, in quarter notes: of a note in
// a tuplet that before it is squeezed. It fails where that is not on the grid.
func (n Note) Shown() (Time, error) {
	if n.Tuplet == nil {
		return n.Duration, nil
	}
	return n.Duration.Scaled(int64(n.Tuplet.Actual), int64(n.Tuplet.Normal))
}

// A Tuplet says that Actual notes stand in the time of Normal.
type Tuplet struct{ Actual, Normal int }

// A Mark stands at a moment of a bar: loudness, tempo, words, a chord symbol, or where the
// playing goes.
type Mark struct {
	Onset Time
	Kind  string  // dynamic, tempo, words, pedal, chord, jump
	Text  string  // "mf", "Gently", "Am7"
	QPM   float64 // of a tempo: quarter notes a minute
	Beat  Time    // of a tempo: the note value it counts
}

// Repeat says how a bar takes part in repeats.
type Repeat struct {
	Starts  bool  // a repeat opens before this bar
	Ends    int   // the passage closes after this bar and is played this many times; 0 for none
	Endings []int // passes in which this bar is played; empty for all
}

// Unread is one kind of thing that a reader met and did not keep.
type Unread struct {
	What  string `json:"what"`
	Bar   int    `json:"bar" doc:"where first met; 0 for before the first bar"`
	Count int    `json:"count"`
}

// A SyntaxError says why a file could not be read, and where.
type SyntaxError struct {
	Line   int // from 1; 0 when not known
	Column int // from 1; 0 for the whole line
	Bar    int // from 1; 0 when before the first bar
	Msg    string
}

func (e *SyntaxError) Error() string {
	var where []string
	if e.Line > 0 {
		where = append(where, fmt.Sprintf("line %d", e.Line))
	}
	if e.Column > 0 {
		where = append(where, fmt.Sprintf("column %d", e.Column))
	}
	if e.Bar > 0 {
		where = append(where, fmt.Sprintf("bar %d", e.Bar))
	}
	if len(where) == 0 {
		return e.Msg
	}
	return strings.Join(where, ", ") + ": " + e.Msg
}

// Bars returns the number of written bars: those of the longest part.
func (s Score) Bars() int {
	n := 0
	for _, p := range s.Parts {
		n = max(n, len(p.Bars))
	}
	return n
}

// Pitches returns the notes of the score.
func (s Score) Pitches() map[pitch.Pitch]bool {
	out := map[pitch.Pitch]bool{}
	for _, p := range s.Parts {
		for _, b := range p.Bars {
			for _, n := range b.Notes {
				if !n.Rest {
					out[n.Pitch] = true
				}
			}
		}
	}
	return out
}

// Note counts what a reader could not keep, by kind.
func (s *Score) Note(what string, bar int) {
	for i := range s.Unread {
		if s.Unread[i].What == what {
			s.Unread[i].Count++
			return
		}
	}
	s.Unread = append(s.Unread, Unread{what, bar, 1})
}

// Finish aligns the bars of all parts, gives every note its id and pads short
// parts. Every reader calls it last. A bar starts where the longest version of
// the bar before it ends.
func (s *Score) Finish() {
	s.leaveForCoda()
	starts := make([]Time, s.Bars()+1)
	for b := range starts[1:] {
		longest := Time{}
		for _, p := range s.Parts {
			if b < len(p.Bars) && longest.Less(p.Bars[b].Length) {
				longest = p.Bars[b].Length
			}
		}
		starts[b+1] = starts[b].Add(longest)
	}
	for pi := range s.Parts {
		p := &s.Parts[pi]
		p.Staves = max(p.Staves, 1)
		for len(p.Bars) < s.Bars() {
			p.Bars = append(p.Bars, Bar{})
		}
		for bi := range p.Bars {
			bar := &p.Bars[bi]
			bar.Start = starts[bi]
			bar.Double = bar.Double && bi+1 < len(p.Bars)
			bar.Length = starts[bi+1].Sub(starts[bi])
			for mi := range bar.Marks {
				if m := &bar.Marks[mi]; bar.Length.Less(m.Onset) {
					m.Onset = bar.Length
				}
			}
			slices.SortStableFunc(bar.Marks, func(a, b Mark) int { return a.Onset.Cmp(b.Onset) })
		}
		p.name(pi)
	}
}

// name gives the notes of the part with an index their ids. They share one text.
func (p *Part) name(index int) {
	count := 0
	for bi := range p.Bars {
		count += len(p.Bars[bi].Notes)
	}
	var text strings.Builder
	text.Grow(count * len("p1b100n10"))
	ends := make([]int, 0, count)
	for bi := range p.Bars {
		head := "p" + strconv.Itoa(index+1) + "b" + strconv.Itoa(bi+1) + "n"
		for ni := range p.Bars[bi].Notes {
			text.WriteString(head)
			text.WriteString(strconv.Itoa(ni + 1))
			ends = append(ends, text.Len())
		}
	}
	ids, from, i := text.String(), 0, 0
	for bi := range p.Bars {
		for ni := range p.Bars[bi].Notes {
			p.Bars[bi].Notes[ni].ID = ids[from:ends[i]]
			from, i = ends[i], i+1
		}
	}
}
