// Package notes reads scores for screens: what a piece asks, its layers, how it sounds, and what was played in
// beside it.
package notes

import (
	"context"
	"errors"
	"fmt"
	"maps"
	"path"
	"runtime"
	"slices"
	"strings"
	"time"

	"patientladder/core/climb"
	"patientladder/core/exercise"
	"patientladder/core/instrument"
	"patientladder/core/ladder"
	"patientladder/core/notation"
	"patientladder/core/notation/musicxml"
	"patientladder/core/phrase"
	"patientladder/core/pitch"
	"patientladder/core/reading"
	"patientladder/core/reason"
	"patientladder/core/score"
	"patientladder/core/shelf"
	"patientladder/studio"
)

// A Sound is a note as it is heard and where the hand has it.
type Sound struct {
	ID     string  `json:"id" doc:"of the note in the score"`
	Staff  int     `json:"staff" doc:"index of the staff with notes, from 0"`
	Onset  float64 `json:"onset" doc:"quarter notes from the start of the piece as written"`
	Length float64 `json:"length" doc:"quarter notes"`
	Key    int     `json:"key" doc:"MIDI number as it sounds"`
	Name   string  `json:"name"`
	Finger string  `json:"finger"`
	String int     `json:"string" doc:"on strings; 0 for none"`
	Fret   int     `json:"fret" doc:"semitones above the open string"`
}

// An Asked is a skill that the score asks for, with its name.
type Asked struct {
	reading.Demand
	Name   string `json:"name"`
	Tagged string `json:"tagged" enum:",brings,needs,revisits" doc:"how the item's tags have it; empty when they do not name it"`
}

// A Model is a score as it is heard.
type Model struct {
	Hands   []string  `json:"hands" doc:"of the staves with notes"`
	Sounds  []Sound   `json:"sounds"`
	Fretted bool      `json:"fretted" doc:"the strings have frets"`
	Open    []int     `json:"open" doc:"open strings from the highest-sounding, as MIDI numbers; none on keys"`
	Bars    []float64 `json:"bars" doc:"where each bar begins, in quarter notes"`
	Beat    float64   `json:"beat" doc:"quarter notes of a beat"`
	QPM     float64   `json:"qpm" doc:"quarter notes a minute; a usual walking pace where none is written"`
}

// A ReadingView is an item's score as a teacher reads it, for a student or for
// anybody.
type ReadingView struct {
	Model
	Layers   []string             `json:"layers" doc:"that there are; each is fetched by itself"`
	Light    DrawnNotes           `json:"light" doc:"the notes alone; without a text where they cannot be written so"`
	Chunks   []reading.Chunk      `json:"chunks" doc:"a tree a hand; of two hands a third for both"`
	Minute   []reason.Reason      `json:"minute" doc:"what a teacher reads off the score in a minute"`
	New      []reason.Reason      `json:"new" doc:"what is new for the student"`
	Fresh    []string             `json:"fresh" doc:"ids of notes that the student meets here first"`
	Asks     []Asked              `json:"asks"`
	Rhythms  []reading.Spoken     `json:"rhythms"`
	Weeks    *climb.Range         `json:"weeks,omitempty" doc:"to a foothold, for the student"`
	Load     *climb.Load          `json:"load,omitempty" doc:"for the student"`
	Copies   []Copy               `json:"copies" doc:"the formats that it can be taken out in"`
	Disagree []shelf.Disagreement `json:"disagree"`
}

// A Copy is a format that a score can be written in.
type Copy struct {
	Format notation.Format `json:"format"`
	Name   string          `json:"name"`
	Losses []score.Unread  `json:"losses" doc:"what it cannot hold of the score"`
}

// Walking is the tempo of a score without one, in quarter notes a minute.
const Walking = 88

// Reading reads an item's score; the empty student is anybody of six.
func Reading(ctx context.Context, a *studio.App, who studio.Who, id, student string) (ReadingView, error) {
	read, done, err := Read(ctx, a, who, id, student)
	if err != nil {
		return ReadingView{}, err
	}
	defer done()
	page := read.Page
	demands := page.Demands()
	v := ReadingView{Layers: page.LayerNames(), Chunks: page.Chunks(read.ask.Size), Model: ModelOf(page),
		Minute: page.Minute(demands), New: []reason.Reason{}, Fresh: []string{}, Asks: []Asked{}, Rhythms: page.Rhythms(read.ask.Words), Copies: []Copy{}, Disagree: []shelf.Disagreement{}}
	if v.Light, err = Drawn(page.Score); err != nil {
		v.Light.ABC = "" // the full engraver draws it all the same
	}
	for _, d := range demands {
		v.Asks = append(v.Asks, Asked{d, read.Graph.Name(d.Skill), tagged(read.item, d.Skill)})
	}
	for _, f := range notation.Formats() {
		v.Copies = append(v.Copies, Copy{f, f.Name(), studio.List(notation.Losses(f, page.Score))})
	}
	for _, d := range shelf.Disagreements(read.Graph, read.Instruments, read.shelf) {
		if d.Item == id {
			v.Disagree = append(v.Disagree, d)
		}
	}
	if read.pupil != nil {
		if err := forStudent(ctx, a, &v, read, demands); err != nil {
			return v, err
		}
	}
	return v, nil
}

// Layer draws one kind of annotation over an item's score, for a student or for anybody.
func Layer(ctx context.Context, a *studio.App, who studio.Who, id, layer, student string) (reading.Layer, error) {
	read, done, err := Read(ctx, a, who, id, student)
	if err != nil {
		return reading.Layer{}, err
	}
	defer done()
	out, ok := read.Page.Layer(layer, read.ask)
	if !ok {
		return out, &studio.Error{Kind: studio.Missing, Says: fmt.Sprintf("There is no layer %q over %q.", layer, read.item.Title)}
	}
	return out, nil
}

// tagged says how an item's tags name a skill.
func tagged(it shelf.Item, id string) string {
	switch {
	case slices.Contains(it.Brings, id):
		return "brings"
	case slices.Contains(it.Needs, id):
		return "needs"
	case slices.Contains(it.Revisits, id):
		return "revisits"
	}
	return ""
}

// A readItem is an item with its score read for somebody.
type readItem struct {
	item shelf.Item
	file string
	Page reading.Page
	studio.Room
	ask   reading.Ask
	shelf []shelf.Item
	pupil *studio.Pupil
	way   studio.Way
}

// reads takes as many turns as scores may be read at once.
var reads = make(chan struct{}, max(2, runtime.GOMAXPROCS(0)))

// turn waits until few enough scores are being read that the machine can hold one more. Who has
// had the turn calls done.
func turn(ctx context.Context) (done func(), err error) {
	wait := time.NewTimer(turnWait)
	defer wait.Stop()
	select {
	case reads <- struct{}{}:
		return func() { <-reads }, nil
	case <-ctx.Done():
		return nil, ctx.Err()
	case <-wait.C:
		return nil, &studio.Error{Kind: studio.Unavailable, Says: "Many scores are being read just now. Nothing was lost; try again in a moment."}
	}
}

// turnWait is how long a score waits for its turn to be read.
const turnWait = 10 * time.Second

// Read loads an item's score and reads it when its turn comes; a student's age and landmarks are
// those of the student. Who has used what was read calls done.
func Read(ctx context.Context, a *studio.App, who studio.Who, id, student string) (_ readItem, done func(), err error) {
	done, err = turn(ctx)
	if err != nil {
		return readItem{}, nil, err
	}
	out, err := readNow(ctx, a, who, id, student)
	if err != nil {
		done()
		return out, nil, err
	}
	return out, done, nil
}

func readNow(ctx context.Context, a *studio.App, who studio.Who, id, student string) (readItem, error) {
	r, err := a.Enter(ctx, who)
	if err != nil {
		return readItem{}, err
	}
	out := readItem{Room: r, ask: reading.Ask{Size: reading.Size(6, false), Known: reading.Landmarks, Words: r.Words()}}
	if out.item, err = r.Item(ctx, id); err != nil {
		return out, studio.Failed(err, "item")
	}
	if out.shelf, err = r.Items(ctx); err != nil {
		return out, studio.Failed(err, "shelf")
	}
	file, err := r.Score(ctx, id)
	if err != nil {
		return out, studio.Failed(err, "score")
	}
	s, err := notation.Read(file.Name, file.Data)
	if err != nil {
		return out, err
	}
	if err := ctx.Err(); err != nil {
		return out, err // nobody waits for the rest
	}
	out.file = file.Name
	if student == "" {
		out.Page = reading.Read(s, r.Instruments.Of(out.item.Instrument))
		return out, nil
	}
	p, err := a.Pupil(ctx, who, student)
	if err != nil {
		return out, err
	}
	if !p.Instruments.Together(p.Instrument, out.item.Instrument) {
		return out, studio.Refuse("%s plays the %s; %q is for the %s.", p.FirstName, p.Plays, out.item.Title, r.Instruments.Of(out.item.Instrument))
	}
	out.Page = reading.Read(s, p.Plays)
	out.pupil, out.way = &p, p.WayNow()
	knows := out.way.Knows()
	out.ask.Size = reading.Size(studio.Age(p.Student, p.Today()), p.Standing.ReadsSolidly())
	out.ask.Known = reading.Known(knows.Has)
	return out, nil
}

// ModelOf is what is heard of a page, and where the hand has it.
func ModelOf(page reading.Page) Model {
	v := Model{Hands: []string{}, Sounds: []Sound{}, Open: []int{}, Bars: []float64{}, Beat: 1, QPM: Walking}
	for si, st := range page.Staves {
		part := page.Score.Parts[st.Part]
		lower := reading.Lowered(part, page.On)
		v.Open, v.Fretted = keys(page.On.Strings), page.On.Fretted()
		v.Hands = append(v.Hands, string(st.Hand))
		fingers := st.Fingers()
		for i, c := range st.Line {
			for j, n := range c.Notes {
				s := Sound{ID: c.IDs[j], Staff: si, Onset: c.Onset.Float(), Length: c.Duration.Float(), Key: n.MIDI() - lower, Name: n.String()}
				if len(st.Stops) > 0 {
					s.Finger, s.String, s.Fret = st.Stops[i][j].Finger, st.Stops[i][j].String, st.Stops[i][j].Fret
				} else if j == len(c.Notes)-1 {
					s.Finger = fingers[i]
				}
				v.Sounds = append(v.Sounds, s)
			}
		}
	}
	if len(page.Score.Parts) == 0 {
		return v
	}
	for _, b := range page.Score.Parts[0].Bars {
		v.Bars = append(v.Bars, b.Start.Float())
		if b.Meter != nil && b.Start.Sign() == 0 {
			v.Beat = reading.Beat(*b.Meter).Float()
		}
		for _, m := range b.Marks {
			if m.QPM > 0 && v.QPM == Walking {
				v.QPM = m.QPM
			}
		}
	}
	return v
}

func keys(open []pitch.Pitch) []int {
	out := make([]int, len(open))
	for i, p := range open {
		out[i] = p.MIDI()
	}
	return out
}

// forStudent fills in what is new, how heavy it is and how long it takes.
func forStudent(ctx context.Context, a *studio.App, v *ReadingView, read readItem, demands []reading.Demand) error {
	p, knows := read.pupil, read.way.Knows()
	met, err := met(ctx, p, read.item.ID)
	if err != nil {
		return err
	}
	v.New = read.Page.New(demands, knows.Has, met, p.Graph.Name)
	load, weeks := knows.Weigh(read.item), read.way.Foresee(read.item)
	v.Load, v.Weeks = &load, &weeks
	for _, r := range v.New {
		for id := range strings.SplitSeq(r.Args["ids"], ",") {
			if id != "" {
				v.Fresh = append(v.Fresh, id)
			}
		}
	}
	return nil
}

// met gathers the notes of the pieces that the student has been taught, one item
// left out.
func met(ctx context.Context, p *studio.Pupil, but string) (map[pitch.Pitch]bool, error) {
	var taught []string
	for _, state := range []ladder.State{ladder.Secure, ladder.Current} {
		for _, r := range p.Standing.In(state) {
			if r.Item.HasScore && r.Item.ID != but {
				taught = append(taught, r.Item.ID)
			}
		}
	}
	files, err := p.Scores(ctx, taught)
	if err != nil {
		return nil, studio.Failed(err, "scores")
	}
	out := map[pitch.Pitch]bool{}
	for _, f := range files {
		s, err := notation.Read(f.Name, f.Data)
		if err != nil {
			return nil, err // it was read when it came onto the shelf
		}
		maps.Copy(out, s.Pitches())
	}
	return out, nil
}

// Engraved returns the MusicXML that draws an item's score, with tablature
// "under" the staff or "instead" of it where the instrument has frets, or in its
// minor form.
func Engraved(ctx context.Context, a *studio.App, who studio.Who, id, tablature string, minor bool) ([]byte, error) {
	if tablature == "" && !minor {
		file, err := a.Store.In(who.Studio).Score(ctx, id)
		if err != nil {
			return nil, studio.Failed(err, "score")
		}
		return notation.Engraved(file.Name, file.Data)
	}
	read, done, err := Read(ctx, a, who, id, "")
	if err != nil {
		return nil, err
	}
	defer done()
	if minor {
		key, _ := read.Page.Key()
		s, ok := exercise.Minor(read.Page.Score, key)
		if !ok {
			return nil, studio.Refuse("%q has no minor form here: that is for a piece in a major key.", read.item.Title)
		}
		return musicxml.Write(s), nil
	}
	s, ok := read.Page.Tablature(tablature == "instead")
	if !ok {
		return nil, studio.Refuse("%q has no tablature: that is for one staff of a fretted instrument.", read.item.Title)
	}
	return musicxml.Write(s), nil
}

// A File is a score in some format.
type File struct {
	Name string
	Data []byte
}

// Convert writes an item's score in a format, with some layers written into it.
func Convert(ctx context.Context, a *studio.App, who studio.Who, id string, f notation.Format, layers []string, student string) (File, error) {
	read, done, err := Read(ctx, a, who, id, student)
	if err != nil {
		return File{}, err
	}
	defer done()
	s, name := read.Page.Score, strings.TrimSuffix(path.Base(read.file), path.Ext(read.file))
	if len(layers) > 0 {
		s, name = read.Page.Annotated(layers, read.ask), name+"-annotated"
	}
	data, err := notation.Write(f, s)
	if err != nil {
		return File{}, studio.Refuse("%q cannot be written as %s: %v.", read.item.Title, f, err)
	}
	return File{name + f.Ending(), data}, nil
}

// A Draft is a tune that is being typed.
type Draft struct {
	ABC        string        `json:"abc" maxLength:"65536"`
	Instrument instrument.ID `json:"instrument"`
}

// A DraftView is what a typed tune is so far: drawn, or what is wrong and where.
type DraftView struct {
	XML    string          `json:"xml" doc:"MusicXML that draws it; empty when it cannot be read"`
	Title  string          `json:"title"`
	Minute []reason.Reason `json:"minute"`
	Asks   []Asked         `json:"asks"`
	Unread []score.Unread  `json:"unread" doc:"what is not kept of it"`
	Wrong  *Wrong          `json:"wrong,omitempty"`
}

// A Wrong is what cannot be read in a text, and where.
type Wrong struct {
	Line   int    `json:"line" doc:"from 1; 0 when not known"`
	Column int    `json:"column" doc:"from 1; 0 for the whole line"`
	Bar    int    `json:"bar" doc:"from 1; 0 for before the first"`
	Says   string `json:"says"`
}

// ReadDraft reads a tune as it is typed. It keeps nothing.
func ReadDraft(ctx context.Context, a *studio.App, who studio.Who, in Draft) (DraftView, error) {
	v := DraftView{Minute: []reason.Reason{}, Asks: []Asked{}, Unread: []score.Unread{}}
	s, err := notation.Read("typed.abc", []byte(in.ABC))
	var at *score.SyntaxError
	if errors.As(err, &at) {
		v.Wrong = &Wrong{at.Line, at.Column, at.Bar, phrase.Begin(at.Msg) + "."}
		return v, nil
	}
	if err != nil {
		return v, err
	}
	r, err := a.Enter(ctx, who)
	if err != nil {
		return v, err
	}
	page := reading.Read(s, r.Instruments.Of(in.Instrument))
	demands := page.Demands()
	v.XML, v.Title, v.Minute = string(musicxml.Write(s)), s.Title, page.Minute(demands)
	v.Unread = append(v.Unread, s.Unread...)
	for _, d := range demands {
		v.Asks = append(v.Asks, Asked{Demand: d, Name: r.Graph.Name(d.Skill)})
	}
	return v, nil
}

// A WordsView is the list of spoken phrases.
type WordsView struct {
	Words reading.Words `json:"words"`
	Own   bool          `json:"own" doc:"the studio has changed the list"`
}

// Words shows the spoken phrases for rhythms.
func Words(ctx context.Context, a *studio.App, who studio.Who) (WordsView, error) {
	r, err := a.Enter(ctx, who)
	if err != nil {
		return WordsView{}, err
	}
	return WordsView{r.Words(), len(r.Row.Words) > 0}, nil
}

// SetWords keeps a list of spoken phrases; an empty one takes back the list that
// the program brings.
func SetWords(ctx context.Context, a *studio.App, who studio.Who, c studio.Change[reading.Words]) error {
	return a.Edit(ctx, who, func(r studio.Room) error {
		is := r.Words()
		words, err := c.Onto(&is)
		if err != nil {
			return err
		}
		if len(words) > 200 {
			return studio.Refuse("The list has %d rhythms; 200 are enough.", len(words))
		}
		if err := words.Check(); err != nil {
			return studio.Refuse("The list cannot be kept: %v.", err)
		}
		if words == nil {
			words = reading.Words{}
		}
		return studio.Failed(r.SetWords(ctx, words), "studio")
	})
}
