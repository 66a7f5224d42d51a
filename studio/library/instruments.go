package library

import (
	"context"
	"slices"
	"strings"

	"patientladder/core/exercise"
	"patientladder/core/instrument"
	"patientladder/core/pitch"
	"patientladder/core/skill"
	"patientladder/studio"
)

// An InstrumentView is the profile of an instrument as a form shows it.
type InstrumentView struct {
	ID      instrument.ID     `json:"id" maxLength:"40" doc:"of a new one: made by the client, a ULID"`
	Name    string            `json:"name" maxLength:"60"`
	Family  instrument.Family `json:"family" enum:"keyboard,bowed,plucked,other"`
	Shelf   instrument.ID     `json:"shelf" maxLength:"40" doc:"the instrument on whose shelf its pieces stand; itself for a shelf of its own"`
	Keys    int               `json:"keys" doc:"of a keyboard; 0 for a full one or for none"`
	Strings []string          `json:"strings" maxItems:"10" doc:"open strings as they sound, string 1 first, as A4"`
	Drone   int               `json:"drone" doc:"the string that only sounds open; 0 for none"`
	Hand    string            `json:"hand" enum:",semitones,frets,patterns,short-frets,one-two-four" doc:"how the hand lies on the strings"`
	Fretted bool              `json:"fretted"`
	Clef    string            `json:"clef" enum:",G2,G2-8,G2+8,C3,C4,F4,F4-8"`
	Written int               `json:"written" doc:"semitones from its sound to how it is written"`
	Low     string            `json:"low" doc:"usual compass as written; empty where none is told"`
	High    string            `json:"high"`
	Seat    instrument.Seat   `json:"seat" enum:",keys,spike,footstool,standing"`
	Own     bool              `json:"own"`
	Used    bool              `json:"used" doc:"a student plays it or an item is for it: it cannot go"`
}

// An InstrumentsView is all instruments of a studio, in the order they are offered.
type InstrumentsView struct {
	Instruments []InstrumentView                   `json:"instruments"`
	Offers      map[instrument.ID][]exercise.Offer `json:"offers" doc:"exercises that are made for each by rule"`
	Tonics      map[exercise.Form][]string         `json:"tonics" doc:"by the form of a scale, as they are usually written"`
}

func instrumentView(p instrument.Profile) InstrumentView {
	v := InstrumentView{ID: p.ID, Name: p.Name, Family: p.Family, Shelf: p.Shelf(), Keys: p.Keys, Strings: []string{}, Drone: p.Drone, Hand: p.Frame.Name,
		Fretted: p.Fretted(), Clef: p.Clef, Written: p.Written, Low: p.Low.String(), High: p.High.String(), Seat: p.Seat, Own: p.Own}
	for _, s := range p.Strings {
		v.Strings = append(v.Strings, s.String())
	}
	return v
}

// Instruments shows the instruments that students may play.
func Instruments(ctx context.Context, a *studio.App, who studio.Who) (InstrumentsView, error) {
	r, items, err := Shelved(ctx, a, who)
	if err != nil {
		return InstrumentsView{}, err
	}
	students, err := r.Students(ctx)
	if err != nil {
		return InstrumentsView{}, studio.Failed(err, "studio")
	}
	used := map[instrument.ID]bool{}
	for _, it := range items {
		used[it.Instrument] = true
	}
	for _, st := range students {
		used[st.Instrument] = true
	}
	v := InstrumentsView{Instruments: []InstrumentView{}, Offers: map[instrument.ID][]exercise.Offer{}, Tonics: map[exercise.Form][]string{}}
	for _, form := range exercise.Forms {
		v.Tonics[form] = exercise.Tonics(form)
	}
	for _, p := range r.Instruments {
		one := instrumentView(p)
		one.Used = used[p.ID]
		v.Offers[p.ID] = studio.List(exercise.For(p))
		v.Instruments = append(v.Instruments, one)
	}
	return v, nil
}

// mostOwn is how many instruments a studio may add.
const mostOwn = 40

// OwnInstrument shows an instrument of a studio's own; nil where there is none.
func OwnInstrument(r studio.Room, id instrument.ID) *InstrumentView {
	p, there := r.Instruments.Find(id)
	if !there || !p.Own {
		return nil
	}
	v := instrumentView(p)
	return &v
}

// SaveInstrument keeps an instrument of the studio's own, or a tuning of another. What
// the form does not ask for comes from one of the program's of the same kind.
func SaveInstrument(ctx context.Context, a *studio.App, who studio.Who, id instrument.ID, c studio.Change[InstrumentView]) error {
	if _, program := instrument.Shipped.Find(id); program || id == "" {
		return studio.Refuse("That instrument comes with the program; save yours under another name.")
	}
	c.Now.ID = id
	return a.Edit(ctx, who, func(r studio.Room) error {
		in, err := c.Onto(OwnInstrument(r, id))
		if err != nil {
			return err
		}
		p, err := ownProfile(r, in)
		if err != nil {
			return err
		}
		return studio.Failed(r.ChangeOwn(ctx, func(own *[]instrument.Profile, _ *[]skill.Skill) error {
			return put(own, p, func(o instrument.Profile) bool { return o.ID == p.ID }, mostOwn, "instruments")
		}), "studio")
	})
}

// ownProfile reads an instrument as a form gives it.
func ownProfile(r studio.Room, in InstrumentView) (instrument.Profile, error) {
	p := instrument.Profile{ID: in.ID, Name: strings.TrimSpace(in.Name), Family: in.Family, Keys: in.Keys, Drone: in.Drone, Clef: in.Clef, Written: in.Written, Seat: in.Seat, Own: true}
	for i, name := range in.Strings {
		s, err := pitch.Parse(strings.TrimSpace(name))
		if err != nil {
			return p, studio.Refuse("String %d, %q, is not a note with its octave, such as A3.", i+1, name)
		}
		p.Strings = append(p.Strings, s)
	}
	for _, end := range []struct {
		name string
		at   *pitch.Pitch
	}{{in.Low, &p.Low}, {in.High, &p.High}} {
		if end.name == "" {
			continue
		}
		var err error
		if *end.at, err = pitch.Parse(end.name); err != nil {
			return p, studio.Refuse("%q is not a note with its octave, such as A3.", end.name)
		}
	}
	if in.Hand != "" {
		var err error
		if p.Frame, err = instrument.FrameNamed(in.Hand); err != nil {
			return p, studio.Refuse("%v.", err)
		}
	}
	if other, there := r.Instruments.Find(in.Shelf); in.Shelf != in.ID && in.Shelf != "" {
		if !there || other.Family != p.Family {
			return p, studio.Refuse("It cannot play from the shelf of %q: that is another family, or none.", in.Shelf)
		}
		p.Kin = other.Shelf()
	}
	p = instrument.Shipped.Complete(p)
	if err := p.Check(); err != nil {
		return p, studio.Refuse("The instrument cannot be kept: %v.", err)
	}
	if same, there := r.Instruments.Named(p.Name); there && same.ID != p.ID {
		return p, studio.Refuse("There is a %s already.", same.Name)
	}
	return p, nil
}

// put replaces the one of a list that is the same, or adds to it while there is room.
func put[T any](list *[]T, one T, same func(T) bool, most int, what string) error {
	if i := slices.IndexFunc(*list, same); i >= 0 {
		(*list)[i] = one
		return nil
	}
	if len(*list) >= most {
		return studio.Refuse("A studio has room for %d %s of its own.", most, what)
	}
	*list = append(*list, one)
	return nil
}

// DropInstrument takes an instrument of the studio's own away, if nothing is for it.
func DropInstrument(ctx context.Context, a *studio.App, who studio.Who, id instrument.ID, seen *InstrumentView) error {
	return a.Edit(ctx, who, func(r studio.Room) error {
		v, err := Instruments(ctx, a, who)
		if err != nil {
			return err
		}
		for _, p := range v.Instruments {
			switch {
			case p.ID == id && !p.Own:
				return studio.Refuse("The %s comes with the program.", p.Name)
			case p.ID == id && p.Used:
				return studio.Refuse("A student plays the %s, or something on the shelf is for it.", p.Name)
			case p.ID != id && p.Shelf == id:
				return studio.Refuse("The %s plays from its shelf.", p.Name)
			}
		}
		if err := studio.Unseen(seen, studio.Find(v.Instruments, func(p InstrumentView) bool { return p.ID == id })); err != nil {
			return err
		}
		return studio.Failed(r.ChangeOwn(ctx, func(own *[]instrument.Profile, _ *[]skill.Skill) error {
			*own = slices.DeleteFunc(*own, func(p instrument.Profile) bool { return p.ID == id })
			return nil
		}), "studio")
	})
}
