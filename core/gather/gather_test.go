package gather

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"patientladder/core/instrument"
	"patientladder/core/judgement"
	"patientladder/words"
)

func player(id string, age int, pieces ...Piece) Player {
	return Player{ID: id, Name: id, Age: age, Plays: instrument.Profile{Family: instrument.Keyboard}, Pieces: pieces}
}

func piece(tune, key string, recall float64) Piece {
	return Piece{Tune: tune, Rung: "r-" + tune, Title: tune, Key: key, Meter: "3/4", Bars: 16, Recall: recall}
}

func TestWhatAllCanPlay(t *testing.T) {
	const fresh = 0.8
	assert.InDelta(t, fresh, judgement.GatherFresh, 0)
	players := []Player{
		player("ada", 8, piece("rope", "C major", 0.95), piece("fog", "G major", 0.99), piece("gull", "C major", 0.9)),
		player("bo", 9, piece("rope", "C major", fresh), piece("fog", "G major", fresh-0.01), piece("gull", "D major", 0.97)),
		player("cy", 10, piece("rope", "C major", 0.9), piece("gull", "C major", 0.9), Piece{Tune: "fog", Rung: "x", Title: "fog", Recall: 1, Current: true}),
	}
	got := Common(players)
	require.Len(t, got, 3)
	assert.Equal(t, "rope", got[0].Tune, "all, in one key")
	assert.InDelta(t, fresh, got[0].Recall, 1e-9, "as fresh as in the memory of who has it least")
	assert.Empty(t, got[0].Missing)
	assert.Equal(t, "gull", got[1].Tune, "all, in two keys")
	assert.Len(t, got[1].Keys, 2)
	assert.Equal(t, []string{"bo", "cy"}, got[2].Missing, "half forgotten by one, in hand with the other")
}

func TestTheSameTuneOnAnotherInstrument(t *testing.T) {
	assert.Equal(t, TuneOf("Frère Jacques", "French round"), TuneOf("Frère  Jacques (for cello)", "French Round"))
	assert.NotEqual(t, TuneOf("Waltz", "A"), TuneOf("Waltz", "B"))
}

func TestWhoCouldPlayAlong(t *testing.T) {
	mine := player("ada", 8)
	for _, c := range []struct {
		what        string
		piece, that Piece
		how         string
	}{
		{"the same, in hand here: the other leads", Piece{Tune: "rope", Key: "C major", Meter: "3/4", Current: true}, piece("rope", "C major", 0.9), "lead"},
		{"the same, secure: half and half", piece("rope", "C major", 0.9), piece("rope", "C major", 0.9), "halves"},
		{"the same in another key", piece("rope", "C major", 0.9), piece("rope", "D major", 0.9), ""},
		{"the same, whose key is not known", piece("rope", "", 0.9), piece("rope", "D major", 0.9), "halves"},
		{"another of the same key and meter", piece("rope", "C major", 0.9), piece("fog", "C major", 0.9), "beside"},
		{"another of twice the bars", Piece{Tune: "rope", Key: "C major", Meter: "3/4", Bars: 8, Recall: 1}, piece("fog", "C major", 0.9), "beside"},
		{"another that does not go into its bars", Piece{Tune: "rope", Key: "C major", Meter: "3/4", Bars: 12, Recall: 1}, piece("fog", "C major", 0.9), ""},
		{"another whose bars are not known", Piece{Tune: "rope", Key: "C major", Meter: "3/4", Recall: 1}, piece("fog", "C major", 0.9), ""},
		{"another of another key", piece("rope", "C major", 0.9), piece("fog", "D major", 0.9), ""},
		{"another of two in a bar", Piece{Tune: "rope", Key: "C major", Meter: "2/4", Bars: 16, Recall: 1}, piece("fog", "C major", 0.9), ""},
		{"another of another meter", Piece{Tune: "rope", Key: "C major", Meter: "4/4", Recall: 1}, piece("fog", "C major", 0.9), ""},
		{"another of no known key", piece("rope", "", 0.9), piece("fog", "", 0.9), ""},
		{"half forgotten", piece("rope", "C major", 0.9), piece("rope", "C major", judgement.GatherFresh-0.01), ""},
	} {
		got := Partners(mine, c.piece, []Player{mine, player("bo", 9, c.that)})
		if c.how == "" {
			assert.Empty(t, got, c.what)
			continue
		}
		require.Len(t, got, 1, c.what)
		assert.Equal(t, c.how, got[0].How, c.what)
	}
}

func TestBeatsOfABar(t *testing.T) {
	for meter, beats := range map[string]int{"": 4, "4/4": 4, "2/4": 2, "3/4": 3, "6/8": 2, "9/8": 3, "3/8": 3, "2/2": 2, "free": 4, "0/4": 4} {
		assert.Equal(t, beats, Beats(meter), meter)
	}
}

func TestWhatAnHourBeginsFrom(t *testing.T) {
	can := func(n int) Tune { return Tune{Who: make([]Can, n)} }
	assert.Len(t, Proposed([]Tune{can(5), can(5), can(4), can(4)}, 5), 3, "some of them")
	assert.Len(t, Proposed([]Tune{can(3), can(2)}, 6), 1, "half of them can")
	assert.Empty(t, Proposed([]Tune{can(1)}, 2), "one alone is nobody together")
}

func TestAnHourIsPlannedToTheMinute(t *testing.T) {
	tunes := []Tune{{Title: "Rope Walk"}, {Title: "Fog Signal", Missing: []string{"cy"}}}
	players := []Player{player("ada", 10), player("bo", 11), player("cy", 12)}
	kinds := func(h Hour, players []Player, tunes []Tune) []string {
		var out []string
		at := 0
		for _, b := range h.Plan(players, tunes) {
			assert.Equal(t, at, b.From)
			assert.Positive(t, b.Minutes)
			assert.NotEmpty(t, b.How, b.Kind)
			at += b.Minutes
			out = append(out, b.Kind)
		}
		if len(tunes) > 0 {
			assert.Equal(t, h.Minutes, at, "all minutes are used")
		}
		return out
	}
	for minutes := 30; minutes <= 90; minutes += 5 {
		got := kinds(Hour{Minutes: minutes}, players, tunes)
		assert.Equal(t, "through", got[0], "as music first")
		assert.Equal(t, "good", got[len(got)-1])
		assert.NotContains(t, got, "know")
	}
	assert.Equal(t, "know", kinds(Hour{Minutes: 60, Fresh: true}, players, tunes)[0], "a new group")
	assert.Contains(t, kinds(Hour{Minutes: 90}, players, tunes), "voices")
	assert.NotContains(t, kinds(Hour{Minutes: 90}, append(players, player("dee", 8)), tunes), "voices", "for older ones")
	assert.NotContains(t, kinds(Hour{Minutes: 60, Left: []string{"walk"}}, players, tunes), "walk")
	assert.Equal(t, []string{"know", "good"}, kinds(Hour{Minutes: 30, Fresh: true}, players, nil), "nothing in common")
	var says string
	for _, b := range (Hour{Minutes: 60}).Plan(players, tunes) {
		for _, line := range b.How {
			says += words.In(words.Reader{}).Label(line) + "\n"
		}
	}
	assert.Contains(t, says, "nobody sits out")
	assert.Contains(t, says, "cy: one note a bar")
	says = ""
	for _, b := range (Hour{Minutes: 60, SitOut: true}).Plan(players, tunes) {
		for _, line := range b.How {
			says += words.In(words.Reader{}).Label(line) + "\n"
		}
	}
	assert.Contains(t, says, "second chance")
}

func TestWhatIsNoHour(t *testing.T) {
	good := Hour{Name: "Ensemble", Day: "2026-11-28", Minutes: 60, Students: []string{"a", "b"}}
	assert.NoError(t, good.Check())
	for _, c := range []struct {
		what   string
		change func(*Hour)
	}{
		{"no name", func(h *Hour) { h.Name = " " }},
		{"no day", func(h *Hour) { h.Day = "soon" }},
		{"one student", func(h *Hour) { h.Students = h.Students[:1] }},
		{"one twice", func(h *Hour) { h.Students = []string{"a", "a"} }},
		{"at noon", func(h *Hour) { h.Start = "noon" }},
		{"another form", func(h *Hour) { h.Forms = map[string]string{"a": "loud"} }},
		{"a form of somebody else", func(h *Hour) { h.Forms = map[string]string{"c": Easier} }},
	} {
		h := good
		c.change(&h)
		assert.Error(t, h.Check(), c.what)
	}
}
