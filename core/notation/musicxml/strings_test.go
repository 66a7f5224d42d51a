package musicxml

import (
	"fmt"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"patientladder/core/score"
	"patientladder/core/score/scoretest"
)

// MusicXML 4.0, <staff-details>: a tuning of its own with a capo, from the lowest line up, is
// read and written.
func TestTunings(t *testing.T) {
	details := `<attributes><clef><sign>TAB</sign><line>5</line></clef><staff-details><staff-lines>6</staff-lines>`
	for i, s := range []string{"D2", "A2", "D3", "G3", "B3", "D4"} {
		details += fmt.Sprintf(`<staff-tuning line="%d"><tuning-step>%c</tuning-step><tuning-octave>%c</tuning-octave></staff-tuning>`, i+1, s[0], s[1])
	}
	s := bars(t, details+`<capo>4</capo></staff-details></attributes>`+quarter("C", ""))
	for _, s := range []score.Score{s, again(t, s)} {
		p := s.Parts[0]
		assert.Equal(t, 4, p.Capo)
		assert.Equal(t, "[F#4 Eb4 B3 F#3 C#3 F#2]", fmt.Sprint(p.Tuning))
		assert.Empty(t, s.Unread)
	}
	for _, wrong := range []string{`<capo>99</capo>`, `<staff-tuning line="1"><tuning-step>H</tuning-step><tuning-octave>2</tuning-octave></staff-tuning>`, `<staff-tuning line="1"><tuning-step>A</tuning-step><tuning-octave>low</tuning-octave></staff-tuning>`} {
		_, err := Read([]byte(`<score-partwise><part-list><score-part id="P"/></part-list><part id="P"><measure number="1"><attributes><divisions>1</divisions><staff-details>` + wrong + `</staff-details></attributes></measure></part></score-partwise>`))
		require.Error(t, err, wrong)
	}
}

// A clef that changes inside a bar stays where it is.
func TestAClefInsideABar(t *testing.T) {
	s := bars(t, quarter("C", "")+`<attributes><clef><sign>F</sign><line>4</line></clef></attributes>`+quarter("D", ""))
	for _, s := range []score.Score{s, again(t, s)} {
		clefs := s.Parts[0].Bars[0].Clefs
		require.Len(t, clefs, 1)
		assert.Equal(t, score.Clef{Onset: score.Quarters(1), Staff: 1, Sign: "F", Line: 4}, clefs[0])
		assert.Equal(t, "C4@0+1 D4@1+1", scoretest.Heard(s, 0, 1, s.Written()))
	}
}

// In a chain of ties the notes in the middle may say only that they go on.
func TestTiesThatOnlyGoOn(t *testing.T) {
	tie := `<tie type="start"/>`
	s := bars(t, quarter("C", tie)+quarter("C", tie)+quarter("C", `<tie type="stop"/>`)+quarter("C", ""), quarter("D", tie)+quarter("E", ""))
	assert.Equal(t, "C4@0+3 C4@3+1 D4@4+1 E4@5+1", scoretest.Heard(s, 0, 1, s.Written()))
}

func again(t *testing.T, s score.Score) score.Score {
	s, err := Read(Write(s))
	require.NoError(t, err)
	return s
}
