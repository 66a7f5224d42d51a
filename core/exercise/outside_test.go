package exercise

import (
	"bytes"
	"encoding/json"
	"os/exec"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"patientladder/core/pitch"
)

// The notes of all 48 scales as the npm library teoria spells them.
func TestSpellingAgainstAnotherLibrary(t *testing.T) {
	var asked [][2]string
	var ours [][]string
	for form, tonics := range map[Form][]string{Major: majors, Natural: minors, Harmonic: minors, Melodic: minors} {
		for _, tonic := range tonics {
			s := Spec{Tonic: tonic, Form: form, Octaves: 1}
			var names []string
			for _, p := range s.degrees(s.tonicFrom(pitch.MustParse("C4")), 6, false) {
				names = append(names, strings.TrimRight(p.String(), "0123456789"))
			}
			asked, ours = append(asked, [2]string{tonic, string(form)}), append(ours, names)
		}
	}
	in, err := json.Marshal(asked)
	require.NoError(t, err)
	cmd := exec.Command("node", "../../web/checks/scales.mjs")
	cmd.Stdin = bytes.NewReader(in)
	out, err := cmd.Output()
	require.NoError(t, err, "the check needs the packages of web/: run npm ci there")
	var theirs [][]string
	require.NoError(t, json.Unmarshal(out, &theirs))
	require.Len(t, theirs, 48)
	for i := range asked {
		for j := range theirs[i] {
			theirs[i][j] = strings.ReplaceAll(theirs[i][j], "x", "##")
		}
		assert.Equal(t, theirs[i], ours[i], "%s %s", asked[i][0], asked[i][1])
	}
}
