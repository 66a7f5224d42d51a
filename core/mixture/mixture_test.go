package mixture

import (
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"patientladder/core/fact"
	"patientladder/core/instrument"
	"patientladder/core/ladder"
	"patientladder/core/shelf"
	"patientladder/core/skill"
	"patientladder/core/upkeep"
)

var (
	now   = time.Date(2026, 11, 18, 15, 20, 0, 0, time.UTC)
	graph = skill.Catalogue()
)

func small(id string, taught, secure bool) ladder.Rung {
	r := ladder.Rung{ID: id, Item: shelf.Item{ID: id, Title: id, Instrument: "piano", Brings: []string{id}}}
	at := now.AddDate(0, 0, -7)
	if taught {
		r.Taught = &at
	}
	if secure {
		r.Foothold = &at
	}
	return r
}

func TestAMixtureOfDifferentThings(t *testing.T) {
	s := ladder.Standing{BeforeBook: true, Rungs: []ladder.Rung{
		small("left-right", true, true), small("steady-beat", true, false), small("echo-rhythm", false, false), small("rests", false, false),
		small("high-low", false, false), small("one-finger", false, false), small("sing-back", false, false), small("hand-swap", false, false),
	}}
	s.Rungs[7].Parked = true
	bits := Of(s, graph, upkeep.Know(s, nil, now))
	var ids, codes []string
	for _, b := range bits {
		ids, codes = append(ids, b.Rung), append(codes, b.Why.Code)
	}
	assert.Equal(t, []string{"left-right", "steady-beat", "high-low", "one-finger", "sing-back"}, ids, "a success, then what is going, then one of each area")
	assert.Equal(t, []string{"goes-already", "small-thing-going", "new-small-thing", "new-small-thing", "new-small-thing"}, codes)
	assert.Empty(t, Of(ladder.Standing{}, graph, upkeep.Known{}))
}

func TestTheTestForBookOne(t *testing.T) {
	secure := func(ids ...string) Test {
		s := ladder.Standing{BeforeBook: true}
		for _, id := range ids {
			s.Rungs = append(s.Rungs, small(id, true, true))
		}
		return FirstBook(s, graph, instrument.Shipped.Of("piano"))
	}
	none := secure()
	require.Len(t, none.Signs, 7)
	assert.False(t, none.Near)
	assert.False(t, secure("left-right", "high-low", "echo-rhythm", "sing-back", "key-groups", "one-finger").Near, "all but a steady beat")
	assert.True(t, secure("left-right", "steady-beat", "echo-rhythm", "sing-back", "key-groups", "one-finger").Near)

	used := small("echo", true, true)
	used.Item.Brings, used.Item.Revisits = nil, []string{"steady-beat"}
	s := ladder.Standing{Rungs: []ladder.Rung{used}, Probes: map[string]ladder.Probe{fact.FirstBook: {Outcome: "nearly", At: now}}}
	got := FirstBook(s, graph, instrument.Shipped.Of("piano"))
	for _, sign := range got.Signs {
		assert.False(t, sign.Met, "a thing that only uses the beat is no sign of it")
	}
	assert.Equal(t, "nearly", got.Tried)
	assert.Len(t, FirstBook(s, graph, instrument.Shipped.Of("cello")).Signs, 7)
}

// Which open things come first: a few lessons old, then new, then those worked at often;
// three marks of any kind are often.
func TestWhoseTurnInTheMixture(t *testing.T) {
	marked := func(tries, met int) ladder.Rung {
		r := small("steady-beat", true, false)
		for range tries {
			r.Tries = append(r.Tries, ladder.Try{})
		}
		for range met {
			r.Points = append(r.Points, ladder.Point{State: ladder.Met})
		}
		return r
	}
	for _, c := range []struct {
		r    ladder.Rung
		want int
	}{{marked(0, 0), 0}, {marked(1, 1), 0}, {marked(2, 1), 2}, {marked(1, 2), 2}, {marked(3, 0), 2}, {small("x", false, false), 1}} {
		assert.Equal(t, c.want, turn(c.r))
	}
}
