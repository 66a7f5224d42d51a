package musicxml

import (
	"encoding/xml"
	"fmt"
	"strconv"
	"strings"

	"patientladder/core/pitch"
	"patientladder/core/score"
)

// The element types below follow the MusicXML 4.0 reference; "Other" catches
// what is not kept so that it can be listed.

// any1 is an element of any name.
type any1 struct {
	XMLName xml.Name
	Text    string `xml:",chardata"`
}

type anyList struct {
	All []any1 `xml:",any"`
}

type xmlAttributes struct {
	Divisions string `xml:"divisions"`
	Keys      []struct {
		Fifths string `xml:"fifths"`
		Mode   string `xml:"mode"`
	} `xml:"key"`
	Times []struct {
		Beats    []string  `xml:"beats"`
		BeatType []string  `xml:"beat-type"`
		Senza    *struct{} `xml:"senza-misura"`
	} `xml:"time"`
	Staves string `xml:"staves"`
	Clefs  []struct {
		Number int    `xml:"number,attr"`
		Sign   string `xml:"sign"`
		Line   int    `xml:"line"`
		Octave int    `xml:"clef-octave-change"`
	} `xml:"clef"`
	Transpose *struct{} `xml:"transpose"`
	Other     []any1    `xml:",any"`
}

type xmlPitch struct {
	Step   string `xml:"step"`
	Alter  string `xml:"alter"`
	Octave string `xml:"octave"`
}

func (x xmlPitch) read() (pitch.Pitch, error) {
	step, alter := strings.TrimSpace(x.Step), 0.0
	octave, err := strconv.Atoi(strings.TrimSpace(x.Octave))
	if err == nil && x.Alter != "" {
		alter, err = strconv.ParseFloat(strings.TrimSpace(x.Alter), 64)
	}
	if err != nil || len(step) != 1 {
		return pitch.Pitch{}, fmt.Errorf("a pitch of step %q, alter %q, octave %q", x.Step, x.Alter, x.Octave)
	}
	if alter != float64(int(alter)) {
		return pitch.Pitch{}, fmt.Errorf("a quarter-tone alteration of %s", x.Alter)
	}
	return pitch.New(step[0], int(alter), octave)
}

type xmlNote struct {
	Grace        *struct{} `xml:"grace"`
	Cue          *struct{} `xml:"cue"`
	Chord        *struct{} `xml:"chord"`
	Rest         *struct{} `xml:"rest"`
	Unpitched    *struct{} `xml:"unpitched"`
	Pitch        *xmlPitch `xml:"pitch"`
	Duration     string    `xml:"duration"`
	Voice        string    `xml:"voice"`
	Type         string    `xml:"type"`
	Staff        int       `xml:"staff"`
	Dots         []any1    `xml:"dot"`
	Modification *struct {
		Actual int `xml:"actual-notes"`
		Normal int `xml:"normal-notes"`
	} `xml:"time-modification"`
	Ties []struct {
		Type string `xml:"type,attr"`
	} `xml:"tie"`
	Notations []xmlNotations `xml:"notations"`
	Lyrics    []struct {
		Text []string `xml:"text"`
	} `xml:"lyric"`
	Other []any1 `xml:",any"`
}

type xmlNotations struct {
	Slurs []struct {
		Type string `xml:"type,attr"`
	} `xml:"slur"`
	Articulations []anyList  `xml:"articulations"`
	Ornaments     []anyList  `xml:"ornaments"`
	Technical     []anyList  `xml:"technical"`
	Fermatas      []struct{} `xml:"fermata"`
	Other         []any1     `xml:",any"`
}

type xmlDirection struct {
	Types []struct {
		Dynamics   []anyList      `xml:"dynamics"`
		Words      []string       `xml:"words"`
		Metronomes []xmlMetronome `xml:"metronome"`
		Wedges     []struct {
			Type string `xml:"type,attr"`
		} `xml:"wedge"`
		Pedals []struct {
			Type string `xml:"type,attr"`
		} `xml:"pedal"`
		Other []any1 `xml:",any"`
	} `xml:"direction-type"`
	Sound struct {
		DaCapo   string `xml:"dacapo,attr"`
		DalSegno string `xml:"dalsegno,attr"`
		ToCoda   string `xml:"tocoda,attr"`
		Fine     string `xml:"fine,attr"`
	} `xml:"sound"`
	Staff string `xml:"staff"`
	Voice string `xml:"voice"`
	Other []any1 `xml:",any"`
}

type xmlMetronome struct {
	Unit      string     `xml:"beat-unit"`
	Dots      []struct{} `xml:"beat-unit-dot"`
	PerMinute string     `xml:"per-minute"`
}

// noteTypes gives each note value's length in quarter notes, as a fraction.
var noteTypes = []struct {
	name     string
	num, den int64
}{
	{"breve", 8, 1}, {"whole", 4, 1}, {"half", 2, 1}, {"quarter", 1, 1}, {"eighth", 1, 2},
	{"16th", 1, 4}, {"32nd", 1, 8}, {"64th", 1, 16}, {"128th", 1, 32}, {"256th", 1, 64},
}

// tempo returns quarter notes a minute and the note value counted.
func (x xmlMetronome) tempo() (qpm float64, beat score.Time, ok bool) {
	per, err := strconv.ParseFloat(strings.TrimSpace(x.PerMinute), 64)
	if err != nil || per <= 0 || per > 2000 {
		return 0, beat, false
	}
	for _, t := range noteTypes {
		if t.name == x.Unit {
			beat = score.Frac(t.num, t.den)
			if len(x.Dots) > 0 {
				beat = score.Frac(3*t.num, 2*t.den)
			}
			return per * beat.Float(), beat, true
		}
	}
	return 0, beat, false
}

type xmlBarline struct {
	Repeat *struct {
		Direction string `xml:"direction,attr"`
		Times     int    `xml:"times,attr"`
	} `xml:"repeat"`
	Ending *struct {
		Number string `xml:"number,attr"`
		Type   string `xml:"type,attr"`
	} `xml:"ending"`
	BarStyle string `xml:"bar-style"`
	Other    []any1 `xml:",any"`
}
