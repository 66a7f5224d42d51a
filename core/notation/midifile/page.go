package midifile

import (
	"cmp"
	"errors"
	"fmt"
	"math"
	"slices"

	"patientladder/core/pitch"
	"patientladder/core/score"
)

// values are the denominators that onsets and ends may have, in quarter notes,
// the usual ones first.
var values = []int64{1, 2, 4, 3, 8, 6, 12, 16, 32, 24, 5, 10, 7, 14}

// snap returns the note value nearest to a tick: the tick itself where it is
// one, else the plainest within a two-hundredth of a quarter note, else the
// nearest sixteenth or triplet eighth. moved reports the last.
func (f *file) snap(tick int64) (t score.Time, moved bool) {
	if t, err := score.NewTime(tick, f.division); err == nil {
		if _, den := t.Fraction(); slices.Contains(values, den) {
			return t, false
		}
	}
	for _, den := range values {
		if t, off := f.nearest(tick, den); off < 0.005 {
			return t, false
		}
	}
	sixteenth, a := f.nearest(tick, 4)
	triplet, b := f.nearest(tick, 6)
	if b < a {
		return triplet, true
	}
	return sixteenth, true
}

// nearest returns the multiple of 1/den nearest to a tick and how far away it
// is, in quarter notes.
func (f *file) nearest(tick, den int64) (t score.Time, off float64) {
	n := (2*tick*den + f.division) / (2 * f.division)
	return score.Frac(n, den), math.Abs(float64(tick)/float64(f.division) - float64(n)/float64(den))
}

// score sets the presses as notes.
func (f *file) score() (score.Score, error) {
	f.settleKey()
	s := score.Score{Unread: f.unread.Unread}
	var sung []track
	for _, t := range f.tracks {
		if s.Title == "" && len(t.notes) == 0 {
			s.Title = t.name
		}
		if len(t.notes) > 0 {
			sung = append(sung, t)
		}
	}
	if len(sung) == 0 {
		return s, errors.New("the file has no notes")
	}
	if len(sung) > maxParts {
		return s, fmt.Errorf("more than %d tracks with notes", maxParts)
	}
	bars, err := f.bars()
	if err != nil {
		return s, err
	}
	for i := 0; i < len(sung); i++ {
		staves := [][]press{sung[i].notes}
		words := sung[i].words
		name := sung[i].name
		switch hands := handsOf(sung[i]); {
		case i+1 < len(sung) && together(sung[i], sung[i+1], len(sung) == 2):
			staves = append(staves, sung[i+1].notes)
			i++
		case len(hands) == 2:
			staves = hands
			s.Note("hands, told apart at middle C", 0)
		}
		p := score.Part{Name: name, Staves: len(staves), Bars: make([]score.Bar, len(bars))}
		for bi := range bars {
			p.Bars[bi].Length = bars[bi].length
			if len(s.Parts) == 0 {
				p.Bars[bi].Marks = bars[bi].marks
			}
			p.Bars[bi].Key, p.Bars[bi].Meter = bars[bi].key, bars[bi].meter
		}
		for staff, notes := range staves {
			p.Bars[0].Clefs = append(p.Bars[0].Clefs, clefFor(notes, staff+1))
			f.lay(&s, &p, bars, notes, staff+1)
		}
		f.sing(&s, &p, bars, words)
		for bi := range p.Bars {
			slices.SortStableFunc(p.Bars[bi].Notes, func(a, b score.Note) int { return a.Onset.Cmp(b.Onset) })
		}
		respell(p.Bars, bars)
		s.Parts = append(s.Parts, p)
	}
	return s, nil
}

// together reports whether two tracks are the hands of one player: they share
// name and channel, or they are the only two and both of a keyboard.
func together(a, b track, only bool) bool {
	return a.name == b.name && a.channel == b.channel || only && a.program < 8 && b.program < 8
}

// handsOf parts a keyboard's single track at middle C where each side has a fair
// share of the notes.
func handsOf(t track) [][]press {
	if t.program >= 8 {
		return nil
	}
	var high, low []press
	for _, p := range t.notes {
		if p.key >= 60 {
			high = append(high, p)
		} else {
			low = append(low, p)
		}
	}
	if 5*len(high) < len(t.notes) || 5*len(low) < len(t.notes) {
		return nil
	}
	return [][]press{high, low}
}

func clefFor(notes []press, staff int) score.Clef {
	sum := 0
	for _, n := range notes {
		sum += n.key
	}
	if sum < 58*len(notes) {
		return score.Clef{Staff: staff, Sign: "F", Line: 4}
	}
	return score.Clef{Staff: staff, Sign: "G", Line: 2}
}

// A frame is one bar of the page.
type frame struct {
	start, length score.Time
	meter         *score.Meter
	key           *pitch.Key
	now           pitch.Key
	marks         []score.Mark
}

// bars lays out bars up to the end of the music.
func (f *file) bars() ([]frame, error) {
	end := score.Time{}
	for _, t := range f.tracks {
		for _, n := range t.notes {
			if e, _ := f.snap(n.off); end.Less(e) {
				end = e
			}
		}
	}
	meter, key := score.Meter{Beats: 4, BeatType: 4}, pitch.Key{Mode: "major"}
	slices.SortStableFunc(f.meters, func(a, b at[score.Meter]) int { return cmp.Compare(a.tick, b.tick) })
	slices.SortStableFunc(f.keys, func(a, b at[pitch.Key]) int { return cmp.Compare(a.tick, b.tick) })
	var out []frame
	start, mi, ki := score.Time{}, 0, 0
	for start.Less(end) || len(out) == 0 {
		if len(out) == maxBars {
			return nil, fmt.Errorf("more than %d bars", maxBars)
		}
		b := frame{start: start}
		changed, keyed := len(out) == 0, len(out) == 0
		for ; mi < len(f.meters) && !start.Less(f.when(f.meters[mi].tick)); mi++ {
			changed = changed || f.meters[mi].is != meter
			meter = f.meters[mi].is
		}
		for ; ki < len(f.keys) && !start.Less(f.when(f.keys[ki].tick)); ki++ {
			key, keyed = f.keys[ki].is, true
		}
		b.length = meter.Length()
		if mi < len(f.meters) {
			if next := f.when(f.meters[mi].tick); start.Less(next) && next.Less(start.Add(b.length)) {
				b.length = next.Sub(start) // a pickup, or a bar cut by a new meter
			}
		}
		if changed {
			m := meter
			b.meter = &m
		}
		if keyed {
			k := key
			b.key = &k
		}
		b.now = key
		out = append(out, b)
		start = start.Add(b.length)
	}
	slices.SortStableFunc(f.tempos, func(a, b at[float64]) int { return cmp.Compare(a.tick, b.tick) })
	i := 0
	for _, t := range f.tempos {
		when := f.when(t.tick)
		for i+1 < len(out) && !when.Less(out[i+1].start) {
			i++
		}
		if when.Less(out[i].start.Add(out[i].length)) {
			out[i].marks = append(out[i].marks, score.Mark{Onset: when.Sub(out[i].start), Kind: "tempo", QPM: t.is, Beat: score.Quarters(1)})
		}
	}
	return out, nil
}

func (f *file) when(tick int64) score.Time {
	t, _ := f.snap(tick)
	return t
}

// A sound is a press on the page.
type sound struct {
	on, off score.Time
	key     int
}

// lay writes one staff: voices that do not overlap, chords, rests, ties over
// bar lines.
func (f *file) lay(s *score.Score, p *score.Part, bars []frame, notes []press, staff int) {
	sounds := make([]sound, 0, len(notes))
	for _, n := range notes {
		on, moved := f.snap(n.on)
		off, movedOff := f.snap(n.off)
		if moved || movedOff {
			s.Note("times between note values, put on the nearest sixteenth or triplet", 0)
		}
		if !on.Less(off) {
			off = on.Add(score.Frac(1, 8))
		}
		sounds = append(sounds, sound{on, off, n.key})
	}
	if held(sounds) {
		s.Note("notes let go a little early, written to their full length", 0)
	}
	slices.SortStableFunc(sounds, func(a, b sound) int {
		if c := a.on.Cmp(b.on); c != 0 {
			return c
		}
		return cmp.Compare(b.key, a.key)
	})
	voice := inVoices(sounds, func() { s.Note("notes that ring on over four voices, shortened", 0) })
	bi := 0
	for i, n := range sounds {
		for bi+1 < len(bars) && !n.on.Less(bars[bi+1].start) {
			bi++
		}
		f.write(p, bars, bi, n, staff, voices*(staff-1)+voice[i]+1)
	}
}

// voices is how many a staff has at most.
const voices = 4

// inVoices gives each of the sounds, in order, its voice of a staff, from 0: those that begin and
// end together are a chord. Where all voices are taken, the one held longest is let go; where
// all began at this very moment, the sound joins the one that ends nearest. No sound is dropped,
// and short tells of each that is shortened so.
func inVoices(sounds []sound, short func()) []int {
	out := make([]int, len(sounds))
	var held [voices][]int // the sounds of the newest chord of each voice
	chord := func(v int) sound { return sounds[held[v][0]] }
	for i := range sounds {
		n := &sounds[i]
		v := slices.IndexFunc(held[:], func(h []int) bool { return len(h) > 0 && sounds[h[0]].on == n.on && sounds[h[0]].off == n.off })
		if v >= 0 {
			held[v] = append(held[v], i)
			out[i] = v
			continue
		}
		v = slices.IndexFunc(held[:], func(h []int) bool { return len(h) == 0 || !n.on.Less(sounds[h[0]].off) })
		if v < 0 {
			short()
			v = 0
			for w := range held {
				if chord(w).on.Less(chord(v).on) {
					v = w
				}
			}
			if !chord(v).on.Less(n.on) { // all four began with it
				for w := range held {
					if between(chord(w).off, n.off) < between(chord(v).off, n.off) {
						v = w
					}
				}
				n.off = chord(v).off
				held[v] = append(held[v], i)
				out[i] = v
				continue
			}
			for _, k := range held[v] {
				sounds[k].off = n.on
			}
		}
		held[v] = append(held[v][:0:0], i)
		out[i] = v
	}
	return out
}

func between(a, b score.Time) float64 { return math.Abs(a.Sub(b).Float()) }

// held writes to its full length what was let go a little early, as players and
// programs do: up to the next note where at most a quarter of the time to it is
// silence, else up to a beat, a half or a quarter of one where a fifth is. A note
// that ends where another begins, or on a sixteenth or a triplet eighth, stays; so
// does one of a group of five or seven. It reports whether any was changed.
func held(sounds []sound) (changed bool) {
	var onsets []score.Time
	for _, n := range sounds {
		onsets = append(onsets, n.on)
	}
	slices.SortFunc(onsets, score.Time.Cmp)
	early := func(n sound, full score.Time, of float64) bool {
		return full.Sub(n.off).Float()*of <= full.Sub(n.on).Float()
	}
	for i, n := range sounds {
		next, found := slices.BinarySearchFunc(onsets, n.off, score.Time.Cmp)
		if found || plain(n.off) || !plain(n.on) || !score.Frac(1, 4).Less(n.off.Sub(n.on)) {
			continue
		}
		if next < len(onsets) && early(n, onsets[next], 4) {
			sounds[i].off, changed = onsets[next], true
			continue
		}
		for _, den := range []int64{1, 2, 4} {
			full := score.Frac(int64(math.Ceil(n.off.Float()*float64(den))), den)
			if early(n, full, 5) {
				sounds[i].off, changed = full, true
				break
			}
		}
	}
	return changed
}

// plain reports whether a moment is on a sixteenth or a triplet eighth.
func plain(t score.Time) bool {
	_, den := t.Fraction()
	return den <= 4 || den == 6
}

// write sets one sound as one note, or as several that are tied: cut at bar
// lines and where no single sign shows the length.
func (f *file) write(p *score.Part, bars []frame, bi int, n sound, staff, voice int) {
	for from := n.on; from.Less(n.off) && bi < len(bars); bi++ {
		to := bars[bi].start.Add(bars[bi].length)
		if n.off.Less(to) {
			to = n.off
		}
		for from.Less(to) {
			length, tuplet := sign(to.Sub(from))
			note := score.Note{Onset: from.Sub(bars[bi].start), Duration: length, Pitch: bars[bi].now.Spell(n.key), Voice: voice, Staff: staff,
				TieFrom: n.on.Less(from), TieTo: from.Add(length).Less(n.off), Tuplet: tuplet}
			p.Bars[bi].Notes = append(p.Bars[bi].Notes, note)
			from = from.Add(length)
		}
	}
}

// sign returns the longest length up to d that one sign shows, with the tuplet
// it needs; d itself where none does.
func sign(d score.Time) (score.Time, *score.Tuplet) {
	num, den := d.Fraction()
	var tuplet *score.Tuplet
	for _, t := range []score.Tuplet{{Actual: 3, Normal: 2}, {Actual: 5, Normal: 4}, {Actual: 7, Normal: 4}} {
		if a := int64(t.Actual); den%a == 0 {
			tuplet = &t
			shown, err := d.Scaled(a, int64(t.Normal))
			if err != nil {
				return d, nil
			}
			num, den = shown.Fraction()
			break
		}
	}
	if den&(den-1) != 0 {
		return d, nil
	}
	// the longest of 1, 3/2 and 7/4 times a power of two that fits
	best := score.Time{}
	shown, err := score.NewTime(num, den)
	if err != nil {
		return d, nil
	}
	for base := score.Quarters(8); base.Sign() > 0; {
		for _, dots := range [][2]int64{{1, 1}, {3, 2}, {7, 4}} {
			if l, err := base.Scaled(dots[0], dots[1]); err == nil && !shown.Less(l) && best.Less(l) {
				best = l
			}
		}
		half, err := base.Scaled(1, 2)
		if err != nil || half.Less(score.Frac(1, 64)) {
			break
		}
		base = half
	}
	if best.Sign() == 0 {
		return d, nil
	}
	if tuplet != nil {
		back, err := best.Scaled(int64(tuplet.Normal), int64(tuplet.Actual))
		if err != nil {
			return d, nil
		}
		return back, tuplet
	}
	return best, nil
}

// sing lays words under the notes of the first staff that begin with them.
func (f *file) sing(s *score.Score, p *score.Part, bars []frame, words []at[string]) {
	type place struct {
		bar   int
		onset score.Time
	}
	notes := map[place]int{}
	for bi, b := range p.Bars {
		for i, n := range b.Notes {
			if _, taken := notes[place{bi, n.Onset}]; !taken && n.Staff == 1 {
				notes[place{bi, n.Onset}] = i
			}
		}
	}
	bi := 0
	for _, w := range words {
		when := f.when(w.tick)
		for bi+1 < len(bars) && !when.Less(bars[bi+1].start) {
			bi++
		}
		i, found := notes[place{bi, when.Sub(bars[bi].start)}]
		if !found {
			s.Note("words between notes", bi+1)
			continue
		}
		p.Bars[bi].Notes[i].Lyric = w.is
	}
}
