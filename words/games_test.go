package words

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"

	"patientladder/core/activity"
	"patientladder/core/fault"
	"patientladder/core/instrument"
)

// Every game has its title, what to do at each level, when it is passed and what to look for.
func TestGamesHaveTheirWords(t *testing.T) {
	for _, tag := range Languages {
		titles := map[string]bool{}
		for _, a := range In(Reader{Language: tag}).Games() {
			assert.NotEmpty(t, a.Title, a.ID)
			assert.False(t, titles[a.Title], "%s stands twice", a.Title)
			titles[a.Title] = true
			assert.NotContains(t, a.Levels, "", a.ID)
			assert.NotEmpty(t, a.Exit, a.ID)
			assert.NotEmpty(t, a.Look, a.ID)
			assert.NotEmpty(t, a.Easier, a.ID)
			if a.Harder == "" {
				assert.Equal(t, "leading-hand", a.Aim, "%s has a harder form", a.ID)
			}
			// coins, beads and small markers are a choking risk under three and for
			// siblings: 16 CFR 1501
			for _, small := range []string{"coin", "bead", "button", "marble", "counter"} {
				assert.NotContains(t, strings.ToLower(a.Things), small, a.ID)
			}
			if a.To == 0 || a.To >= 10 {
				for level := range a.Levels {
					assert.NotRegexp(t, `(?i)\bthe child\b`, a.Says(level+1, 10), a.ID)
				}
			}
		}
	}
}

// Every question of a first meeting has its words, and reasons for who wants them.
func TestProbesHaveTheirWords(t *testing.T) {
	w := In(Reader{Language: Base})
	for _, f := range []instrument.Family{instrument.Keyboard, instrument.Bowed, instrument.Plucked} {
		for age := 3; age < 70; age++ {
			for _, p := range activity.Probes(age, f) {
				assert.NotEmpty(t, w.whereSaid("probe."+p.Key+".asks"), p.Key)
				assert.NotEmpty(t, w.whereSaid("probe."+p.Key+".exit"), p.Key)
				assert.Equal(t, activity.Reasoned(p.Key, 10), w.whereSaid("probe."+p.Key+".why") != "", p.Key)
			}
		}
	}
	for _, aim := range activity.Aims {
		assert.NotEmpty(t, w.whereSaid("aim."+aim), aim)
	}
}

// Every fault says what is seen, what to try and why. Cushions and stretching are never advised: falls and strain.
func TestFaultsHaveTheirWords(t *testing.T) {
	w := In(Reader{Language: Base})
	for _, f := range fault.All {
		f = w.Fault(f)
		assert.NotEmpty(t, f.Seen, f.Key)
		assert.NotEmpty(t, f.Try, f.Key)
		assert.NotEmpty(t, f.Why, f.Key)
		for _, word := range []string{"cushion", "pillow", "stretch", "reach"} {
			assert.NotContains(t, f.Try, word, f.Key)
		}
	}
}
