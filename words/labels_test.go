package words

import (
	"maps"
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"patientladder/core/approach"
	"patientladder/core/card"
	"patientladder/core/echo"
	"patientladder/core/exercise"
	"patientladder/core/gather"
	"patientladder/core/instrument"
	"patientladder/core/judgement"
	"patientladder/core/reading"
	"patientladder/core/reason"
	"patientladder/core/seat"
	"patientladder/core/skill"
	"patientladder/core/touch"
)

// labels are all that core names by a label and that can be listed.
func labels(t *testing.T) []reason.Label {
	t.Helper()
	var out []reason.Label
	add := func(more ...reason.Label) { out = append(out, more...) }
	for _, r := range approach.Rows {
		add(r.Asks)
		for _, s := range r.Schools {
			add(s.Name)
			for _, p := range instrument.Shipped {
				if r.Block == "" {
					break // it only moves plans
				}
				add(approach.Approach{r.Key: s.Key}.Cues(r.Block, p)...)
			}
		}
	}
	for _, trial := range echo.All(skill.Catalogue()) {
		add(trial.Says)
		add(trial.Levels...)
		for level := range len(trial.Levels) {
			q := trial.Ask(level+1, uint64(level))
			add(q.Says)
			for _, w := range q.Words {
				add(w.Says)
			}
		}
	}
	for _, p := range instrument.Shipped {
		add(reason.Said("instrument." + string(p.ID)))
		for _, o := range exercise.For(p) {
			add(o.Name, o.Group)
		}
		for _, s := range exercise.All(p) {
			add(s.Name(), s.How())
		}
	}
	add(exercise.Spec{Kind: exercise.Cycle, Pick: "C,G"}.Name())
	for _, n := range judgement.All() {
		add(n.About, n.Name, n.Moves)
	}
	for _, cross := range [][2]int{{3, 2}, {4, 3}, {2, 5}, {5, 4}} {
		for _, s := range touch.Steps(cross[0], cross[1]) {
			add(s.Name, s.Why)
		}
	}
	for _, plays := range []instrument.Family{instrument.Keyboard, instrument.Bowed, instrument.Plucked} {
		for id := range skill.Catalogue() {
			if reading.Readable(id, plays) {
				add(reason.Said("on-page." + id))
			}
		}
	}
	for _, f := range instrument.Families {
		for _, age := range []int{6, 12} {
			easier, harder := gather.Forms(gather.Player{Age: age, Plays: instrument.Profile{Family: f}})
			add(easier, harder)
		}
	}
	players := []gather.Player{{ID: "a", Age: 12}, {ID: "b", Age: 12}}
	tunes := []gather.Tune{{Title: "Rope Walk", Keys: []string{"G major", "D major"}, Missing: []string{"b"}}, {Title: "Fog Signal"}}
	kinds := map[string]bool{}
	for _, hour := range []gather.Hour{{Minutes: 200, Fresh: true}, {Minutes: 200, SitOut: true}} {
		for _, b := range hour.Plan(players, tunes) {
			kinds[b.Kind] = true
			add(b.Name, b.Why)
			add(b.How...)
		}
	}
	assert.Len(t, kinds, 10, "every stretch of a group lesson")
	for _, l := range seat.Looks() {
		add(l.Seen, l.Try)
	}
	return out
}

// Every label stands in the catalogue, and what its message needs is given.
func TestEveryLabelIsSaid(t *testing.T) {
	all := catalogue(t, Base)
	for _, l := range labels(t) {
		if l.Key == "" || !assert.True(t, all[l.Key] != "" || all[l.Key+"#other"] != "", "%q is not said", l.Key) {
			continue
		}
		for _, u := range uses(t, all, l.Key) {
			_, given := l.Args[u.argument]
			assert.True(t, given, "%s needs %s", l.Key, u.argument)
		}
	}
}

// What a card shows and asks is said without a gap, on every instrument.
func TestEveryCardIsSaid(t *testing.T) {
	w := In(Reader{})
	said := map[string]bool{}
	for _, p := range instrument.Shipped {
		kinds, err := card.Parse("landmarks, names, steps, ledger, accidentals, staves, signatures, chords, rhythm, rests, strings, tablature, other-clef, direction, half-whole, major-five, minor-five")
		require.NoError(t, err)
		for _, c := range card.Deck(kinds, p) {
			for _, r := range []reason.Reason{c.Shown, c.Asks, c.Right} {
				text := w.Reason(r)
				said[text] = true
				assert.NotRegexp(t, `<no value>|card-|^$|[a-z]-[a-z0-9]|  `, text, "%v", r)
			}
		}
	}
	for _, want := range []string{"B flat", "C, the middle C, left of the two black keys in the middle", "Key signature: two flats", "B flat major or G minor", "a step up: D", "A, on the G string", "up, same", "1 2 and 3", "Rhythm: one beat, half a beat of silence, half a beat, two beats"} {
		found := slices.ContainsFunc(slices.Collect(maps.Keys(said)), func(s string) bool { return s == want || len(s) > len(want) && s[:len(want)] == want })
		assert.True(t, found, "no card says %q", want)
	}
}

// Numbers in a verdict choose their form.
func TestVerdictsCountTaps(t *testing.T) {
	w := In(Reader{})
	for n, want := range map[string]string{"1": "1 tap missing. Say it first, then tap.", "2": "2 taps missing. Say it first, then tap."} {
		assert.Equal(t, want, w.Label(reason.SaidOf("verdict.missing", "n", n)))
	}
}
