package exercise

import (
	"strconv"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"patientladder/core/pitch"
)

var (
	majors = strings.Fields("C G D A E B F# Db Ab Eb Bb F")
	minors = strings.Fields("A E B F# C# G# Eb Bb F C G D")
)

// fingersOf writes the fingers of a rising octave of a hand, as a book prints them.
func fingersOf(s Spec, hand Hands) string {
	from := s.tonicFrom(pitch.MustParse("C4"))
	var out strings.Builder
	for _, f := range fingering(s.degrees(from, 7*s.Octaves, false), hand) {
		out.WriteString(strconv.Itoa(f))
	}
	return out.String()
}

// Hanon, The Virtuoso Pianist (1873), No. 39, rising, from memory: an octave of every
// key for each hand. On a black tonic books begin with another finger of the same group;
// ours is the one that the note has further up, so that one figure has one fingering.
func TestFingersOfEveryScale(t *testing.T) {
	usual := map[Hands]string{Right: "12312345", Left: "54321321"}
	for _, c := range []struct {
		form        Form
		tonic       string
		right, left string
	}{
		{Major, "C", "", ""}, {Major, "G", "", ""}, {Major, "D", "", ""}, {Major, "A", "", ""}, {Major, "E", "", ""},
		{Major, "B", "", "43214321"}, {Major, "F#", "23412312", "43213214"}, {Major, "Db", "23123412", "32143213"},
		{Major, "Ab", "34123123", "32143213"}, {Major, "Eb", "31234123", "32143213"}, {Major, "Bb", "41231234", "32143213"}, {Major, "F", "12341234", ""},
		{Harmonic, "A", "", ""}, {Harmonic, "E", "", ""}, {Harmonic, "B", "", "43214321"}, {Harmonic, "F#", "34123123", "43213214"},
		{Harmonic, "C#", "34123123", "32143213"}, {Harmonic, "G#", "34123123", "32143213"}, {Harmonic, "Eb", "31234123", "21432132"},
		{Harmonic, "Bb", "41231234", "21321432"}, {Harmonic, "F", "12341234", ""}, {Harmonic, "C", "", ""}, {Harmonic, "G", "", ""}, {Harmonic, "D", "", ""},
		{Natural, "A", "", ""}, {Natural, "D", "", ""}, {Melodic, "A", "", ""}, {Melodic, "F#", "23123412", "43213214"}, {Melodic, "C#", "23123412", "32143213"},
	} {
		s := Spec{Kind: Scale, Tonic: c.tonic, Form: c.form, Octaves: 1}
		for hand, want := range map[Hands]string{Right: c.right, Left: c.left} {
			if want == "" {
				want = usual[hand]
			}
			assert.Equal(t, want, fingersOf(s, hand), "%s %s, %s hand", c.tonic, c.form, hand)
		}
	}
	assert.Equal(t, "123123412312345", fingersOf(Spec{Tonic: "C", Form: Major, Octaves: 2}, Right), "the last octave ends on the little finger")
	assert.Equal(t, "543213214321321", fingersOf(Spec{Tonic: "C", Form: Major, Octaves: 2}, Left))
}

// Every scale of every key, form, hand and length can be played as it is fingered:
// thumbs on white keys, no finger on two neighbours, no more than five fingers, thumbs
// pass after three or four notes, and a note has the same finger in every octave but at
// the ends.
func TestEveryScaleCanBePlayed(t *testing.T) {
	made := 0
	for form, tonics := range map[Form][]string{Major: majors, Natural: minors, Harmonic: minors, Melodic: minors} {
		for _, tonic := range tonics {
			for octaves := 1; octaves <= MostOctaves; octaves++ {
				for _, falling := range []bool{false, true} {
					for _, hand := range []Hands{Right, Left} {
						made++
						s := Spec{Kind: Scale, Tonic: tonic, Form: form, Octaves: octaves}
						notes := s.degrees(s.tonicFrom(pitch.MustParse("C2")), 7*octaves, falling)
						fingers := fingering(notes, hand)
						require.Len(t, notes, 7*octaves+1)
						thumbs := 0
						for i, f := range fingers {
							assert.True(t, f >= 1 && f <= 5, "%s %s", tonic, form)
							if f == 1 {
								thumbs++
								assert.False(t, black(notes[i]), "the thumb of the %s hand on %s in %s %s", hand, notes[i], tonic, form)
							}
							if i == 0 {
								continue
							}
							assert.NotEqual(t, f, fingers[i-1], "%s %s: one finger on two keys", tonic, form)
							assert.True(t, notes[i].MIDI() > notes[i-1].MIDI() && notes[i].MIDI()-notes[i-1].MIDI() <= 3)
							if i >= 8 && i < len(fingers)-1 {
								assert.Equal(t, fingers[i-7], f, "one figure, one fingering: %s of %s %s", notes[i], tonic, form)
							}
						}
						assert.GreaterOrEqual(t, thumbs, 2*octaves-1, "%s %s", tonic, form)
					}
				}
			}
		}
	}
	assert.Equal(t, 48*4*2*2, made)
}

// Spelled as in the key: seven letters, one each. Facts of the trade: common practice,
// no source.
func TestScalesAreSpelled(t *testing.T) {
	for _, c := range []struct {
		tonic string
		form  Form
		want  string
	}{
		{"C", Major, "C4 D4 E4 F4 G4 A4 B4 C5"}, {"Eb", Major, "Eb4 F4 G4 Ab4 Bb4 C5 D5 Eb5"}, {"F#", Major, "F#4 G#4 A#4 B4 C#5 D#5 E#5 F#5"},
		{"A", Natural, "A4 B4 C5 D5 E5 F5 G5 A5"}, {"A", Harmonic, "A4 B4 C5 D5 E5 F5 G#5 A5"}, {"A", Melodic, "A4 B4 C5 D5 E5 F#5 G#5 A5"},
		{"G#", Harmonic, "G#4 A#4 B4 C#5 D#5 E5 F##5 G#5"}, {"C", Melodic, "C4 D4 Eb4 F4 G4 A4 B4 C5"},
	} {
		s := Spec{Tonic: c.tonic, Form: c.form, Octaves: 1}
		var got []string
		for _, p := range s.degrees(s.tonicFrom(pitch.MustParse("C4")), 7, false) {
			got = append(got, p.String())
		}
		assert.Equal(t, c.want, strings.Join(got, " "))
	}
	s := Spec{Tonic: "A", Form: Melodic, Octaves: 1}
	var fall []string
	for _, p := range s.degrees(pitch.MustParse("A4"), 7, true) {
		fall = append(fall, p.String())
	}
	assert.Equal(t, "A4 B4 C5 D5 E5 F5 G5 A5", strings.Join(fall, " "), "it falls as a natural one")
}

// In C both third fingers meet on the third and sixth degrees, both thumbs on the tonic,
// and the first lies crosswise with the second over the fourth and fifth: common
// practice, no source.
func TestMeetingPoints(t *testing.T) {
	for tonic, want := range map[string][]Meeting{
		"C": {{[]int{1}, []int{1}}, {[]int{3}, []int{3}}, {[]int{6}, []int{3}}, {[]int{4, 5}, []int{1, 2}}},
	} {
		assert.Equal(t, want, Meetings(Spec{Kind: Scale, Tonic: tonic, Hands: Both}), tonic)
	}
	for _, tonic := range majors {
		assert.NotEmpty(t, Meetings(Spec{Kind: Scale, Tonic: tonic, Hands: Both}), "%s has places where the hands meet", tonic)
	}
}

// Hanon, The Virtuoso Pianist (1873), No. 41, rising, from memory: the broken chord of
// every key over an octave for each hand. On a black tonic the book begins with the second
// finger; ours has the one of the octaves further up.
func TestFingersOfEveryBrokenChord(t *testing.T) {
	for _, c := range []struct {
		form        Form
		tonics      string
		right, left string
	}{
		{Major, "C G F", "1235", "5421"}, {Major, "D A E B", "1235", "5321"}, {Natural, "A E B D G C F", "1235", "5421"},
		{Major, "F#", "1235", "5321"}, {Natural, "Eb", "1235", "5421"},
		{Major, "Db Ab Eb", "4124", "2142"}, {Major, "Bb", "4124", "3213"},
		{Natural, "F# C# G#", "4124", "2142"}, {Natural, "Bb", "2312", "3213"},
	} {
		for _, tonic := range strings.Fields(c.tonics) {
			s := Spec{Kind: Arpeggio, Tonic: tonic, Form: c.form, Octaves: 1}
			tones := s.chordOf(s.tonicFrom(pitch.MustParse("C4")))
			for hand, want := range map[Hands]string{Right: c.right, Left: c.left} {
				got := ""
				for _, f := range chordFingers(tones, hand) {
					got += strconv.Itoa(f)
				}
				assert.Equal(t, want, got, "%s %s, %s hand", tonic, c.form, hand)
			}
		}
	}
}

// Thumbs fall on the white keys beside black ones: common practice, no source.
func TestThumbs(t *testing.T) {
	for text, want := range map[string][]int{"scale C": {1, 4}, "scale Eb": {2, 6}, "scale B left": {1, 4}, "meetings C": {1, 4}, "five C": nil} {
		s, err := Parse(text)
		require.NoError(t, err)
		assert.Equal(t, want, Thumbs(s), text)
	}
	assert.Nil(t, Meetings(Spec{Kind: Scale}), "one hand meets nobody")
}
