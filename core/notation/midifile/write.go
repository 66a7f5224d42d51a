package midifile

import (
	"bytes"
	"cmp"
	"encoding/binary"
	"fmt"
	"slices"

	"patientladder/core/pitch"
	"patientladder/core/score"
)

// Write writes a score as a file of format 1: a track of tempo, meters and
// keys, then a track for each staff of each part, which share the part's name
// and channel. Repeats are played out. It fails when no division of the quarter
// note holds all times.
func Write(s score.Score) ([]byte, error) {
	w := &writer{division: 24}
	for _, p := range s.Parts {
		for _, b := range p.Bars {
			w.fit(b.Length)
			for _, n := range b.Notes {
				w.fit(n.Onset)
				w.fit(n.Duration)
			}
		}
	}
	if w.division > 0x7fff {
		return nil, fmt.Errorf("the note values need %d ticks of a quarter note, more than MIDI counts", w.division)
	}
	order := s.Played()
	chunks := [][]byte{w.conductor(s, order)}
	for pi, p := range s.Parts {
		channel := byte(pi % 15)
		if channel >= 9 {
			channel++ // the tenth is for drums
		}
		for staff := 1; staff <= max(p.Staves, 1); staff++ {
			chunks = append(chunks, w.staff(p, staff, order, channel))
		}
	}
	if w.strokes == 0 {
		return nil, fmt.Errorf("there is no note to write")
	}
	var out bytes.Buffer
	out.WriteString("MThd")
	out.Write(binary.BigEndian.AppendUint32(nil, 6))
	for _, n := range []uint16{1, uint16(len(chunks)), uint16(w.division)} {
		out.Write(binary.BigEndian.AppendUint16(nil, n))
	}
	for _, c := range chunks {
		out.WriteString("MTrk")
		out.Write(binary.BigEndian.AppendUint32(nil, uint32(len(c))))
		out.Write(c)
	}
	return out.Bytes(), nil
}

type writer struct {
	division int64
	strokes  int // notes written
}

// fit makes the division hold a time.
func (w *writer) fit(t score.Time) {
	_, den := t.Fraction()
	a, b := w.division, den
	for b != 0 {
		a, b = b, a%b
	}
	if w.division/a < 1<<20 { // past it the file is refused anyway
		w.division = w.division / a * den
	}
}

func (w *writer) ticks(t score.Time) int64 {
	num, den := t.Fraction()
	return num * (w.division / den)
}

// An event is a message at a tick; of one tick the lower rank comes first.
type event struct {
	tick int64
	rank int
	data []byte
}

// The ranks: keys are let go before others are pressed.
const (
	setting = iota
	release
	stroke
)

// chunk writes events as the content of a track.
func chunk(events []event) []byte {
	slices.SortStableFunc(events, func(a, b event) int {
		if c := cmp.Compare(a.tick, b.tick); c != 0 {
			return c
		}
		return cmp.Compare(a.rank, b.rank)
	})
	var out bytes.Buffer
	now := int64(0)
	for _, e := range events {
		out.Write(quantity(e.tick - now))
		out.Write(e.data)
		now = e.tick
	}
	out.Write([]byte{0, 0xff, 0x2f, 0})
	return out.Bytes()
}

// quantity writes a variable-length quantity.
func quantity(n int64) []byte {
	out := []byte{byte(n & 0x7f)}
	for n >>= 7; n > 0; n >>= 7 {
		out = append(out, byte(n&0x7f)|0x80)
	}
	slices.Reverse(out)
	return out
}

func meta(kind byte, data []byte) []byte {
	return slices.Concat([]byte{0xff, kind}, quantity(int64(len(data))), data)
}

// conductor writes the first track. After a bar that is shorter than its meter, such
// as a pickup, the meter stands anew, since bars are counted from it.
func (w *writer) conductor(s score.Score, order []int) []byte {
	events := []event{{0, setting, meta(0x03, []byte(s.Title))}}
	at := score.Time{}
	var meter score.Meter
	var key pitch.Key
	cut := false // the bar before is shorter than its meter
	for i, b := range order {
		tick := w.ticks(at)
		for pi, p := range s.Parts {
			if b > len(p.Bars) {
				continue
			}
			bar := p.Bars[b-1]
			if bar.Meter != nil && pi == 0 && (i == 0 || *bar.Meter != meter) {
				meter, cut = *bar.Meter, true
			}
			if cut && pi == 0 && meter.BeatType > 0 {
				power := byte(0)
				for 1<<power < meter.BeatType {
					power++
				}
				events = append(events, event{tick, setting, meta(0x58, []byte{byte(meter.Beats), power, 24, 8})})
			}
			if bar.Key != nil && pi == 0 && (i == 0 || *bar.Key != key) {
				key = *bar.Key
				minor := byte(0)
				if key.Mode == "minor" {
					minor = 1
				}
				events = append(events, event{tick, setting, meta(0x59, []byte{byte(int8(key.Fifths)), minor})})
			}
			for _, m := range bar.Marks {
				if m.QPM > 0 {
					us := int64(60e6 / m.QPM)
					us = min(us, 1<<24-1)
					events = append(events, event{w.ticks(at.Add(m.Onset)), setting, meta(0x51, []byte{byte(us >> 16), byte(us >> 8), byte(us)})})
				}
			}
		}
		length := s.Parts[0].Bars[b-1].Length
		at, cut = at.Add(length), meter.BeatType > 0 && length.Less(meter.Length())
	}
	return chunk(events)
}

// strengths of the loudness marks, of 127. Common practice, no source.
var strengths = map[string]byte{"pppp": 12, "ppp": 20, "pp": 33, "p": 49, "mp": 64, "mf": 80, "f": 96, "ff": 112, "fff": 122, "ffff": 127}

// staff writes the notes of one staff, ties joined.
func (w *writer) staff(p score.Part, staff int, order []int, channel byte) []byte {
	events := []event{{0, setting, meta(0x03, []byte(p.Name))}}
	type moment struct {
		bar  int
		beat score.Time
	}
	words := map[moment]string{}
	loud := map[int]byte{} // strength from each bar on, a bar's last mark counted
	strength := strengths["mf"]
	for bi, b := range p.Bars {
		for _, n := range b.Notes {
			if n.Lyric != "" && n.Staff == staff {
				words[moment{bi + 1, n.Onset}] = n.Lyric
			}
		}
		for _, m := range b.Marks {
			if v := strengths[m.Text]; v > 0 && m.Kind == "dynamic" {
				strength = v
			}
		}
		loud[bi+1] = strength
	}
	for _, n := range p.Sounding(staff, order) {
		key := n.Pitch.MIDI()
		if key < 0 || key > 127 {
			continue
		}
		w.strokes++
		on, off := w.ticks(n.Onset), w.ticks(n.Onset.Add(n.Duration))
		if word := words[moment{n.Bar, n.Beat}]; word != "" {
			events = append(events, event{on, setting, meta(0x05, []byte(word))})
			delete(words, moment{n.Bar, n.Beat})
		}
		events = append(events,
			event{on, stroke, []byte{0x90 | channel, byte(key), loud[n.Bar]}},
			event{off, release, []byte{0x80 | channel, byte(key), 64}})
	}
	return chunk(events)
}

// Losses lists what a MIDI file cannot hold of a score, each with the first bar
// in which it stands.
func Losses(s score.Score) []score.Unread {
	lost := score.Score{}
	for _, p := range s.Parts {
		key, meter := pitch.Key{}, score.Meter{}
		for bi, b := range p.Bars {
			if b.Key != nil {
				key = *b.Key
			}
			if b.Meter != nil {
				meter = *b.Meter
			}
			note := func(what string, stands bool) {
				if stands {
					lost.Note(what, bi+1)
				}
			}
			note("a last bar that is not full", bi+1 == len(p.Bars) && meter.BeatType > 0 && b.Length.Less(meter.Length()))
			note("repeats and endings (played out)", b.Repeat.Starts || b.Repeat.Ends > 0 || len(b.Repeat.Endings) > 0)
			for _, n := range b.Notes {
				_, fine := n.Duration.Fraction()
				note("values that are no thirds, fifths or sevenths, or shorter than 1/32 of a quarter note (set anew on reading)", !slices.Contains(values, fine))
				note("fingers", len(n.Fingers) > 0)
				note("strings and frets", n.String > 0)
				note("articulations", len(n.Articulations) > 0)
				note("slurs", n.SlurStarts > 0)
				note("grace notes", n.Grace)
				note("the spelling of a note that its key spells otherwise", !n.Rest && !n.Grace && key.Spell(n.Pitch.MIDI()) != n.Pitch)
			}
			for _, m := range b.Marks {
				note("da capo, dal segno (played out)", m.Kind == "jump")
				note("words above the staff", m.Kind == "words")
				note("chord symbols", m.Kind == "chord")
				note("pedal", m.Kind == "pedal")
				note("growing and fading", m.Kind == "dynamic" && strengths[m.Text] == 0)
				note("loudness as written (kept as strength)", m.Kind == "dynamic" && strengths[m.Text] > 0)
			}
		}
	}
	return lost.Unread
}
