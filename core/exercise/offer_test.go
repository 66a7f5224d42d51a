package exercise

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"patientladder/core/instrument"
	"patientladder/core/skill"
)

// What is offered can be made, in every usual key, and the skills that it names are
// there.
func TestWhatIsOfferedCanBeMade(t *testing.T) {
	graph := skill.Catalogue()
	for _, on := range append(instrument.Shipped[:len(instrument.Shipped):len(instrument.Shipped)], instrument.Profile{Name: "whistle", Family: instrument.Other}) {
		offered := For(on)
		require.NotEmpty(t, offered, on.ID)
		for _, o := range offered {
			for _, form := range Forms {
				for _, tonic := range Tonics(form) {
					spec := Spec{Kind: o.Kind, Tonic: tonic, Form: form}
					if len(o.Picks) > 0 {
						spec.Pick = o.Picks[0]
					}
					_, err := Make(spec, on)
					if o.Kind != Change && o.Kind != Shape { // which lie in some keys only
						assert.NoError(t, err, "%s on the %s", spec, on)
					}
					for _, id := range spec.Skills(on) {
						assert.Contains(t, graph, id)
						assert.Contains(t, []instrument.Family{instrument.Shared, on.Family}, graph[id].Family)
					}
				}
			}
		}
	}
	mandolin := instrument.Shipped.Of("mandolin")
	for _, o := range For(mandolin) {
		assert.NotEqual(t, Roll, o.Kind, "a plectrum rolls nothing")
	}
	assert.Len(t, Tonics(Major), 12)
	assert.Len(t, Tonics(Harmonic), 12)
}

// Every task of a head start that plays an exercise can be made for an instrument of its
// skill's family.
func TestHeadStartsHaveTheirNotes(t *testing.T) {
	on := map[instrument.Family]string{instrument.Keyboard: "piano", instrument.Bowed: "cello", instrument.Plucked: "guitar", instrument.Shared: "piano"}
	played := 0
	for _, s := range skill.Catalogue() {
		for _, task := range s.Chain {
			if task.Notes == "" {
				continue
			}
			played++
			spec, err := Parse(task.Notes)
			require.NoError(t, err, task.Do)
			_, err = Make(spec, instrument.Shipped.Of(instrument.ID(on[s.Family])))
			assert.NoError(t, err, task.Do)
		}
	}
	assert.Greater(t, played, 35)
}

func TestSkillsOfAnExercise(t *testing.T) {
	for _, c := range []struct{ text, on, want string }{
		{"scale C", "piano", "scale-white"}, {"scale Eb", "piano", "scale-black"}, {"scale A harmonic", "piano", "scale-minor"}, {"scale C 2", "piano", "scale-two"},
		{"five C", "piano", "five-fingers"}, {"five C both", "piano", "parallel-hands"}, {"five C mirrored", "piano", "mirrored-hands"},
		{"half C", "piano", "scale-halves"}, {"cross 2:3", "piano", "two-against-three"}, {"cross 5:3", "piano", ""}, {"arpeggio C", "piano", "arpeggio"}, {"chord C", "piano", "chord-broken"}, {"levels C", "piano", "six-levels"}, {"chromatic C", "piano", ""},
		{"scale D", "cello", "scale-bowed"}, {"scale C 2", "cello", "scale-bowed-two"}, {"bows", "violin", "long-bows"}, {"pattern D", "viola", "stepping-fingers"}, {"double-open", "cello", "double-open"},
		{"roll pima", "guitar", "pima"}, {"roll pami", "guitar", "pami"}, {"roll pimi", "guitar", ""}, {"scale C", "ukulele", "scale-plucked"},
	} {
		spec, err := Parse(c.text)
		require.NoError(t, err)
		got := ""
		for _, id := range spec.Skills(instrument.Shipped.Of(instrument.ID(c.on))) {
			got = id
		}
		assert.Equal(t, c.want, got, "%s on the %s", c.text, c.on)
	}
}
