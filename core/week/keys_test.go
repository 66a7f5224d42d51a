package week

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"patientladder/core/approach"
	"patientladder/core/ladder"
	"patientladder/core/reading"
	"patientladder/core/reason"
)

// Which key of its name: by its neighbours and the middle. Common practice, no source.
func TestWhichKey(t *testing.T) {
	for key, want := range map[string]string{
		"C4": "left of the two black keys, in the middle: the middle C", "D4": "between the two black keys, just above the middle C", "B3": "right of the three black keys, just below the middle C",
		"C5": "left of the two black keys, the second above the middle C", "C3": "left of the two black keys, the second below the middle C", "C#3": "the first of the two black keys, just below the middle C",
		"G4": "between the first two of the three black keys, just above the middle C", "Bb4": "the last of the three black keys, just above the middle C", "Eb4": "the second of the two black keys, just above the middle C",
		"E#4": "left of the three black keys, just above the middle C", "": "", "H9": "",
	} {
		assert.Equal(t, want, teller{english, "parent"}.at(key), key)
	}
}

// What a parent of a young child is told of a smallest chunk: hand, finger, key, and what to
// say while pointing, by the school of reading.
func TestWhatAParentIsTold(t *testing.T) {
	leaf := reading.Chunk{From: reading.Place{Bar: 1}, To: reading.Place{Bar: 1}, FromID: "a", ToID: "b", Hand: reading.Left, Start: reading.StartOf{Finger: "1", Key: "C4"},
		Ways: []reading.Direction{reading.Down, reading.Same, reading.Up}, Names: []string{"C4", "B3", "B3", "C4"}}
	other := leaf
	other.FromID, other.ToID, other.From.Bar, other.To.Bar = "c", "d", 2, 2
	root := reading.Chunk{From: leaf.From, To: other.To, FromID: "a", ToID: "d", Hand: reading.Left, Parts: []reading.Chunk{leaf, other}}
	for _, c := range []struct {
		name   string
		age    int
		school approach.School
		want   string
	}{
		{"a five-year-old who reads by direction", 5, approach.ByDirection, "bar 1, left hand, finger 1 on C (left of the two black keys, in the middle: the middle C), 5 times. Say while pointing: C, down, same, up"},
		{"six, by landmarks: arrows all the same", 6, "landmarks", "bar 1, left hand, finger 1 on C (left of the two black keys, in the middle: the middle C), 6 times. Say while pointing: C, down, same, up"},
		{"seven, by landmarks: no arrows", 7, "landmarks", "bar 1, left hand, finger 1 on C (left of the two black keys, in the middle: the middle C), 7 times"},
		{"by names", 8, approach.ByNames, "bar 1, left hand, finger 1 on C (left of the two black keys, in the middle: the middle C), 8 times. Say while pointing: C, B, B, C"},
		{"by ear", 5, approach.ByEar, "bar 1, left hand, finger 1 on C (left of the two black keys, in the middle: the middle C), 5 times"},
		{"a student of twelve reads alone", 12, approach.ByDirection, "bar 1, left hand, finger 1 on C, 3 times"},
	} {
		a := ask(only(rung("new", 16, 1, at(from), nil)), approach.Default(c.age).With(approach.Approach{approach.Reading: c.school}), c.age, from, next)
		a.Trees = map[string][]reading.Chunk{"new": {root}}
		day := Make(a).Days[1]
		require.NotEmpty(t, day.Tasks, c.name)
		assert.Equal(t, c.want, day.Tasks[0].Says.What, c.name)
	}
}

// Where the hand begins is drawn for the school of the drawn start; keys that carry their
// names are not described by their neighbours, and the parent is told to take labels away.
// A thick book serves where the school allows it.
func TestHowTheHandFindsItsStart(t *testing.T) {
	leaf := reading.Chunk{From: reading.Place{Bar: 1}, To: reading.Place{Bar: 1}, FromID: "a", ToID: "b", Hand: reading.Left, Start: reading.StartOf{Finger: "1", Key: "C4"}}
	root := reading.Chunk{From: leaf.From, To: reading.Place{Bar: 2}, FromID: "a", ToID: "d", Hand: reading.Left, Parts: []reading.Chunk{leaf, {From: reading.Place{Bar: 2}, To: reading.Place{Bar: 2}, FromID: "c", ToID: "d", Hand: reading.Left}}}
	sheet := func(a approach.Approach) Sheet {
		asked := ask(only(rung("new", 16, 1, at(from), nil)), approach.Default(5).With(approach.Approach{approach.Reading: approach.ByEar}).With(a), 5, from, next)
		asked.Trees = map[string][]reading.Chunk{"new": {root}}
		asked.Seat = []reason.Reason{reason.Of("seat-tiles", "n", "2")}
		return Make(asked)
	}
	first := func(a approach.Approach) Task { return sheet(a).Days[1].Tasks[0] }
	codes := func(a approach.Approach) (out []string) {
		for _, l := range sheet(a).Lines {
			out = append(out, l.Code)
		}
		return out
	}
	assert.True(t, first(nil).Start.Draw, "under seven")
	assert.False(t, first(approach.Approach{approach.Start: "page"}).Start.Draw)
	assert.Contains(t, first(nil).Says.What, "the middle C")
	labelled := approach.Approach{approach.Labels: approach.Labelled}
	assert.NotContains(t, first(labelled).Says.What, "the middle C")
	assert.Contains(t, codes(labelled), "keys-labelled")
	assert.NotContains(t, codes(nil), "keys-labelled")
	assert.NotContains(t, codes(nil), "seat-book")
	assert.Contains(t, codes(approach.Approach{approach.LowSeat: approach.ThickBook}), "seat-book")
	assert.Contains(t, codes(nil), "start-drawn")
	assert.NotContains(t, codes(approach.Approach{approach.Start: "page"}), "start-drawn")
}

// A whole motif is said in its rhythm before a child plays it: of rhythms that differ and
// all have words, not too many, and not for who learns by ear.
func TestTheRhythmIsSaidFirst(t *testing.T) {
	words := reading.Words{"1": "tide", "2": "swe—ll", "1/2 1/2": "har-bour"}
	for _, c := range []struct {
		name   string
		age    int
		school approach.School
		rhythm []string
		want   string
	}{
		{"two that differ", 7, "landmarks", []string{"1/2 1/2", "1"}, "har-bour, tide"},
		{"one alone", 7, "landmarks", []string{"1"}, ""},
		{"all the same", 7, "landmarks", []string{"1", "1", "1"}, ""},
		{"one has no words", 7, "landmarks", []string{"1", "5/4"}, ""},
		{"six", 7, "landmarks", []string{"1", "1", "1", "1", "1", "2"}, "tide, tide, tide, tide, tide, swe—ll"},
		{"seven", 7, "landmarks", []string{"1", "1", "1", "1", "1", "1", "2"}, ""},
		{"by ear", 7, approach.ByEar, []string{"1/2 1/2", "1"}, ""},
		{"a student of twelve reads alone", 12, "landmarks", []string{"1/2 1/2", "1"}, ""},
	} {
		w := writer{Ask: Ask{Voice: english, Words: words, Approach: approach.Default(c.age).With(approach.Approach{approach.Reading: c.school}), Age: c.age}, sheet: &Sheet{Reader: reader(c.age)}}
		assert.Equal(t, c.want, w.rhythm(reading.Chunk{Rhythm: c.rhythm}), c.name)
	}
	task := Task{Band: "now", From: 1, To: 2, Count: 3, Start: &Start{Rhythm: "har-bour, tide"}}
	assert.Equal(t, "bars 1–2, 3 times. First in rhythm: “har-bour, tide”", task.words(teller{english, "parent"}).What)
}

// What was corrected lately is taken home, one thing; after two weeks it is not.
func TestWhatIsCorrectedGoesHome(t *testing.T) {
	for _, c := range []struct {
		ago  int
		want bool
	}{{0, true}, {14, true}, {15, false}} {
		s := only(rung("new", 8, 1, at(from), nil))
		s.Seen = []ladder.Sight{{Fault: "wrist-sideways", At: from.Add(-c.ago).Time()}, {Fault: "joints-cave", At: from.Add(-c.ago).Time()}}
		said := ""
		for _, l := range sheet(s, approach.Default(8), 8, from, next).Lines {
			if l.Code == "corrected" {
				said = l.Says
			}
		}
		assert.Equal(t, c.want, said != "", "%d days ago", c.ago)
		if c.want {
			assert.Contains(t, said, "end joints cave in")
		}
	}
}
