package exercise

import (
	"os"
	"testing"

	"github.com/stretchr/testify/require"

	"patientladder/core/instrument"
	"patientladder/core/notation"
	"patientladder/core/reading"
	"patientladder/internal/yardstick"
)

// BenchmarkScales makes all 48 scales over one to four octaves for each hand and reads
// them as pieces are read, against merely parsing one of the demo's files as often.
func BenchmarkScales(b *testing.B) {
	piano := instrument.Shipped.Of("piano")
	file, err := os.ReadFile("../../demo/scores/harbour-fathoms.musicxml")
	require.NoError(b, err)
	yardstick.Print("scales-made-and-read", 5, func() {
		made := 0
		for form, tonics := range map[Form][]string{Major: majors, Natural: minors, Harmonic: minors, Melodic: minors} {
			for _, tonic := range tonics {
				for octaves := 1; octaves <= MostOctaves; octaves++ {
					for _, hand := range []Hands{Right, Left} {
						s, err := Make(Spec{Kind: Scale, Tonic: tonic, Form: form, Octaves: octaves, Hands: hand}, piano)
						require.NoError(b, err)
						require.NotEmpty(b, reading.Read(s, piano).Staves)
						made++
					}
				}
			}
		}
		require.Equal(b, 48*4*2, made)
	}, func() {
		for range 48 * 4 * 2 {
			_, err := notation.Read("x.musicxml", file)
			require.NoError(b, err)
		}
	}, "parsing a MusicXML file of the demo as often")
}
