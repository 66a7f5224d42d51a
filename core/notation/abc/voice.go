package abc

import (
	"slices"
	"strings"

	"patientladder/core/pitch"
	"patientladder/core/score"
)

// A voice gathers the bars of one V: line of music.
type voice struct {
	id, name, clef string
	octave         int // that the clef adds to what is written
	key            signature
	meter          *score.Meter
	bars           []score.Bar
	bar            score.Bar // being filled
	cursor         score.Time
	accidentals    map[byte]int // by letter, until the bar line: section 11.3 of the standard

	endings   []int
	jumps     []jump     // read in the bar being filled
	broken    score.Time // factor for the next note after > or <; nought for none
	tuplet    tuplet
	slurs     int    // to begin at the next note
	open      int    // slurs
	heard     *index // of the newest note that is no rest, of a chord the first
	grace     bool
	pending   pending
	tied      bool // the note before ends in a tie
	tiedNotes []pitch.Pitch
	layer     int        // of an overlay in the bar being filled, from 1; 0 for the voice itself
	overlays  int        // the most of a bar
	full      score.Time // how far the bar being filled goes before its overlay
	lineStart int        // bar index where the present line of music began
	lineNote  int
}

// An index is a note's place in a bar, and the bar's; that of the bar being filled
// is the number of those before it.
type index struct{ bar, note int }

func (v *voice) at(p index) *score.Note {
	if p.bar == len(v.bars) {
		return &v.bar.Notes[p.note]
	}
	return &v.bars[p.bar].Notes[p.note]
}

type tuplet struct{ actual, normal, left int }

// pending gathers what stands before a note and belongs to it.
type pending struct {
	fingers, articulations []string
}

func (v *voice) mark(kind, text string) {
	v.bar.Marks = append(v.bar.Marks, score.Mark{Onset: v.cursor, Kind: kind, Text: text})
}

// quoted takes what stands in quotation marks: a chord symbol (section 4.18 of
// the standard) or words (4.19). Words whose place is not said are words too.
func (v *voice) quoted(s *scanner) error {
	s.pos++
	text, err := s.until('"')
	if err != nil {
		return err
	}
	symbol, none := score.ParseChordSymbol(text)
	switch {
	case none == nil:
		v.mark("chord", symbol.String())
	case text != "" && strings.IndexByte("^_<>@", text[0]) >= 0:
		v.mark("words", text[1:])
	case text != "":
		v.mark("words", text)
	}
	return nil
}

// take sets the clef from here on.
func (v *voice) take(c score.Clef) {
	v.bar.Clefs, v.octave = append(v.bar.Clefs, c), c.Octave
}

func (v *voice) filled() bool { return len(v.bar.Notes) > 0 }

// close ends the bar being filled; an empty bar is not one.
func (v *voice) close() {
	v.accidentals = nil
	if !v.filled() {
		if len(v.bars) > 0 { // behind the bar line: of the bar before
			v.goes(&v.bars[len(v.bars)-1])
		}
		return
	}
	v.goes(&v.bar)
	v.bar.Length = v.cursor
	v.settle()
	v.bar.Repeat.Endings = v.endings
	v.bars = append(v.bars, v.bar)
	v.bar, v.cursor = score.Bar{}, score.Time{}
}

// goes notes in a bar where the playing goes after it.
func (v *voice) goes(b *score.Bar) {
	for _, j := range v.jumps {
		at := b.Length
		if b == &v.bar {
			at = v.cursor
		}
		if j.says == "" { // a sign at the head
			at = score.Time{}
		} else if b.Says(j.to) == "" {
			b.Marks = append(b.Marks, score.Mark{Onset: at, Kind: "words", Text: j.says})
		}
		b.Marks = append(b.Marks, score.Jump(j.to, at))
	}
	v.jumps = nil
}

// overlay goes back to the beginning of the bar, to write another voice over it:
// section 7.4 of the standard.
func (v *voice) overlay() {
	if v.full.Less(v.cursor) {
		v.full = v.cursor
	}
	v.layer++
	v.overlays = max(v.overlays, v.layer)
	v.cursor, v.tied, v.tiedNotes = score.Time{}, false, nil
}

// settle puts the notes of a bar with overlays in the order of their onsets.
func (v *voice) settle() {
	if v.layer == 0 {
		return
	}
	if v.bar.Length.Less(v.full) {
		v.bar.Length = v.full
	}
	v.layer, v.full = 0, score.Time{}
	var last score.Note
	if v.heard != nil && v.heard.bar == len(v.bars) {
		last = v.bar.Notes[v.heard.note]
	}
	slices.SortStableFunc(v.bar.Notes, func(a, b score.Note) int { return a.Onset.Cmp(b.Onset) })
	if v.heard != nil && v.heard.bar == len(v.bars) {
		v.heard.note = slices.IndexFunc(v.bar.Notes, func(n score.Note) bool {
			return n.Onset == last.Onset && n.Voice == last.Voice && n.Pitch == last.Pitch && n.Rest == last.Rest
		})
	}
}

func (v *voice) closeLast() error {
	if v.tuplet.left > 0 && v.filled() {
		return &score.SyntaxError{Bar: len(v.bars) + 1, Msg: "a tuplet has fewer notes than it counts"}
	}
	if v.grace {
		return &score.SyntaxError{Bar: len(v.bars) + 1, Msg: "the '}' that closes the grace notes is missing"}
	}
	v.close()
	return nil
}

// lyrics lays a w: line under the notes of the music line before it: section
// 5.1 of the standard, with -, _, *, ~ and |.
func (v *voice) lyrics(text string, beyond func()) {
	var notes []index
	collect := func(bi int, b *score.Bar, from int) {
		last := score.Time{}
		for ni := from; ni < len(b.Notes); ni++ {
			n := &b.Notes[ni]
			chordMate := ni > from && n.Onset == last && !n.Rest
			last = n.Onset
			if !n.Rest && !n.Grace && !chordMate && n.Voice == 0 {
				notes = append(notes, index{bi, ni})
			}
		}
	}
	for bi := v.lineStart; bi < len(v.bars); bi++ {
		from := 0
		if bi == v.lineStart {
			from = v.lineNote
		}
		collect(bi, &v.bars[bi], from)
	}
	if v.filled() {
		from := 0
		if v.lineStart == len(v.bars) {
			from = v.lineNote
		}
		collect(len(v.bars), &v.bar, from)
	}
	text = strings.NewReplacer("-", "- ", "_", " _ ", "*", " * ", "|", " | ", `\-`, "-").Replace(text)
	i := 0
	for word := range strings.FieldsSeq(text) {
		if word == "|" {
			for i < len(notes) && i > 0 && notes[i].bar == notes[i-1].bar {
				i++
			}
			continue
		}
		if i >= len(notes) {
			beyond()
			return
		}
		if word != "_" && word != "*" {
			v.at(notes[i]).Lyric = strings.ReplaceAll(word, "~", " ")
		}
		i++
	}
}
