package notes

import (
	"context"
	"math"

	"patientladder/core/exercise"
	"patientladder/core/fact"
	"patientladder/core/instrument"
	"patientladder/core/ladder"
	"patientladder/core/notation"
	"patientladder/core/notation/midifile"
	"patientladder/core/notation/musicxml"
	"patientladder/core/reading"
	"patientladder/core/reason"
	"patientladder/core/score"
	"patientladder/core/touch"
	"patientladder/studio"
)

// A PlayedAsk is what was asked and what was played in: strokes, a Standard MIDI File, or how the
// simulated keyboard is set.
type PlayedAsk struct {
	Exercise   string         `json:"exercise,omitempty" maxLength:"80" doc:"its specification; or"`
	Tap        string         `json:"tap,omitempty" maxLength:"40" doc:"the key of a step that is tapped; or"`
	Item       string         `json:"item,omitempty" maxLength:"60" doc:"an item with notes"`
	FromNote   string         `json:"fromNote,omitempty" maxLength:"40" doc:"of the item: id of the first note; empty for the whole"`
	ToNote     string         `json:"toNote,omitempty" maxLength:"40" doc:"and of the last"`
	Hand       string         `json:"hand,omitempty" enum:"right,left" doc:"of two hands the one that plays; empty for all"`
	Instrument instrument.ID  `json:"instrument" maxLength:"40"`
	Rung       string         `json:"rung,omitempty" maxLength:"26" doc:"that the take is kept with"`
	Beat       float64        `json:"beat,omitempty" minimum:"0" maximum:"60000" doc:"milliseconds of a quarter note that was counted or clicked; 0 for none"`
	From       string         `json:"from" enum:"keys,taps,file,simulated"`
	Strokes    []touch.Stroke `json:"strokes,omitempty" maxItems:"20000"`
	MIDI       []byte         `json:"midi,omitempty" maxLength:"1400000" doc:"a Standard MIDI File, in base 64"`
	Simulated  *touch.Setting `json:"simulated,omitempty" doc:"how the simulated keyboard plays"`
}

// A PlayedView is a take beside what was asked: what it says first, and what to think of.
type PlayedView struct {
	touch.Measured
	Title   string          `json:"title" doc:"of what was asked"`
	Strokes []touch.Stroke  `json:"strokes" doc:"as they were played"`
	Why     []reason.Reason `json:"why" doc:"what can be heard, the first to be thought of first; that it was even where there is nothing"`
	Think   reason.Reason   `json:"think" doc:"the one thing to think of"`
	Holds   bool            `json:"holds" doc:"of a step that is tapped"`
	Keep    fact.Bodies     `json:"keep" doc:"to tell, when the take is to be kept"`
}

// Played measures a take beside what was asked. It keeps nothing.
func Played(ctx context.Context, a *studio.App, who studio.Who, in PlayedAsk) (PlayedView, error) {
	dues, v, err := dues(ctx, a, who, in)
	if err != nil {
		return v, err
	}
	switch {
	case in.Simulated != nil:
		v.Strokes = touch.Simulate(dues, *in.Simulated)
	case len(in.MIDI) > 0:
		played, err := midifile.Performance(in.MIDI)
		if err != nil {
			return v, studio.Refuse("The file cannot be read: %v.", err)
		}
		for _, p := range played {
			v.Strokes = append(v.Strokes, touch.Stroke{At: p.At, Length: p.Length, Key: p.Key, Strength: p.Velocity})
		}
	default:
		v.Strokes = in.Strokes
	}
	if len(v.Strokes) == 0 {
		return v, studio.Refuse("Nothing was played. Play what is asked, then let it be measured.")
	}
	done, err := turn(ctx)
	if err != nil {
		return v, err
	}
	defer done()
	if v.Measured, err = touch.Read(dues, v.Strokes, in.Beat); err != nil {
		return v, studio.Refuse("The take cannot be measured: %v.", err)
	}
	first := touch.Saying{Figure: ladder.Even}
	if len(v.Said) > 0 {
		first = v.Said[0]
	}
	for _, s := range v.Said {
		v.Why = append(v.Why, s.Why())
	}
	if len(v.Said) == 0 {
		v.Why = []reason.Reason{first.Why()}
	}
	v.Think = first.Think()
	step, tapped := touch.StepOf(in.Tap)
	v.Holds = tapped && step.Held(v.Measured)
	v.Keep = fact.Bodies{v.kept(in, first)}
	return v, nil
}

// kept is a take as a fact.
func (v PlayedView) kept(in PlayedAsk, first touch.Saying) fact.PlayedIn {
	asked := v.Title
	if in.Exercise != "" || in.Tap != "" {
		asked = in.Exercise + in.Tap
	}
	rounded := func(x float64) float64 { return math.Round(x*1e4) / 1e4 }
	f := fact.PlayedIn{Rung: in.Rung, Asked: cut(asked, 100), From: in.From, Notes: max(v.Right+v.Wrong, 1), Slips: v.Wrong + v.Missing + v.Extra, Beat: rounded(min(v.Beat, 60000)),
		Spread: rounded(min(v.Spread, 10)), Lope: rounded(min(v.Lope, 100)), Drift: rounded(min(max(v.Drift, -1), 100)), Figure: first.Figure, Hand: first.Hand, Finger: first.Finger,
		Size: rounded(math.Abs(first.Size)), Off: rounded(min(v.Worst(), 60000)), Holds: v.Holds}
	for _, t := range v.Fingers {
		if len(f.Fingers) < 20 {
			f.Fingers = append(f.Fingers, fact.Touch{Hand: t.Hand, Finger: t.Finger, Late: rounded(t.Late), Heft: rounded(t.Heft)})
		}
	}
	return f
}

// cut keeps at most so many bytes of a text, whole characters.
func cut(s string, most int) string {
	for i := range s {
		if i > most {
			return s[:min(i, most)]
		}
	}
	return s[:min(len(s), most)]
}

// dues are the notes that were asked for.
func dues(ctx context.Context, a *studio.App, who studio.Who, in PlayedAsk) ([]touch.Due, PlayedView, error) {
	v := PlayedView{Strokes: []touch.Stroke{}, Why: []reason.Reason{}, Keep: fact.Bodies{}}
	switch {
	case in.Tap != "":
		r, err := a.Enter(ctx, who)
		if err != nil {
			return nil, v, err
		}
		step, ok := touch.StepOf(in.Tap)
		if !ok {
			return nil, v, studio.Refuse("%q is no step to a cross-rhythm.", in.Tap)
		}
		v.Title = r.In.Label(step.Name)
		return step.Dues(), v, nil
	case in.Exercise != "":
		r, err := a.Enter(ctx, who)
		if err != nil {
			return nil, v, err
		}
		spec, err := exercise.Parse(in.Exercise)
		if err != nil {
			return nil, v, studio.Refuse("The exercise cannot be made: %v.", err)
		}
		s, err := exercise.Make(spec, r.Instruments.Of(in.Instrument))
		if err != nil {
			return nil, v, studio.Refuse("The exercise cannot be made: %v.", err)
		}
		if s, err = notation.Read("exercise.musicxml", musicxml.Write(s)); err != nil { // the ids are those that are drawn
			return nil, v, err
		}
		v.Title = r.In.Label(spec.Name())
		m, plucked := ModelOf(reading.Read(s, r.Instruments.Of(in.Instrument))), map[string]string{}
		if spec.Kind == exercise.Roll {
			plucked = Letters(s)
		}
		return passage(m, in, r.Instruments.Of(in.Instrument).HandsApart(), plucked), v, nil
	}
	read, done, err := Read(ctx, a, who, in.Item, "")
	if err != nil {
		return nil, v, err
	}
	defer done()
	v.Title = read.item.Title
	list := passage(ModelOf(read.Page), in, read.Page.On.HandsApart(), nil)
	if len(list) == 0 {
		return nil, v, studio.Refuse("There are no notes in that passage of %q.", v.Title)
	}
	return list, v, nil
}

// passage are the notes of a model that a passage asks for; where hands do not play apart none has one.
func passage(m Model, in PlayedAsk, apart bool, plucked map[string]string) []touch.Due {
	at := func(id string, none float64) float64 {
		for _, s := range m.Sounds {
			if s.ID == id {
				return s.Onset
			}
		}
		return none
	}
	from, to := at(in.FromNote, 0), at(in.ToNote, math.Inf(1))
	var out []touch.Due
	for _, s := range m.Sounds {
		hand := m.Hands[s.Staff]
		if s.Onset < from || s.Onset > to || in.Hand != "" && hand != in.Hand {
			continue
		}
		finger := s.Finger
		if p := plucked[s.ID]; p != "" {
			finger = p
		}
		if !apart {
			hand = ""
		}
		out = append(out, touch.Due{ID: s.ID, Onset: s.Onset - from, Length: s.Length, Key: s.Key, Hand: hand, Finger: finger})
	}
	return out
}

// A TapView is the chain of steps to a cross-rhythm, as far as a student is.
type TapView struct {
	Steps []touch.TapStep `json:"steps"`
	Next  string          `json:"next" doc:"key of the step that comes next; empty when all hold"`
}

// Taps shows the steps to a cross-rhythm: which of them held when the student tapped them last. The
// empty student is anybody.
func Taps(ctx context.Context, a *studio.App, who studio.Who, right, left int, student string) (TapView, error) {
	v := TapView{Steps: touch.Steps(right, left)}
	held := map[string]bool{}
	if student != "" {
		p, err := a.Pupil(ctx, who, student)
		if err != nil {
			return v, err
		}
		for _, t := range p.Standing.Takes {
			held[t.Asked] = t.Holds
		}
	} else if _, err := a.Enter(ctx, who); err != nil {
		return v, err
	}
	for i := range v.Steps {
		v.Steps[i].Holds = held[v.Steps[i].Key]
		if !v.Steps[i].Holds && v.Next == "" {
			v.Next = v.Steps[i].Key
		}
	}
	return v, nil
}

// Letters are the plucking fingers that a score has written, by note.
func Letters(s score.Score) map[string]string {
	out := map[string]string{}
	for _, p := range s.Parts {
		for _, b := range p.Bars {
			for _, n := range b.Notes {
				if len(n.Fingers) > 0 {
					out[n.ID] = n.Fingers[0]
				}
			}
		}
	}
	return out
}
