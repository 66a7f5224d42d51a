package studio

import (
	"context"
	"encoding/json"
	"errors"
	"math"
	"slices"
	"time"

	"patientladder/core/document"
	"patientladder/core/door"
	"patientladder/core/fact"
	"patientladder/core/phrase"
	"patientladder/core/shelf"
	"patientladder/core/week"
	"patientladder/store"
)

// MaxFacts is the most facts taken in one delivery.
const MaxFacts = 500

// DailyLimits is how many facts are taken in a day: far more than anybody taps, far fewer than would slow a studio
// down.
var DailyLimits = store.Limits{Family: 1000, Student: 20_000, Studio: 200_000}

// Lives has an app take any number of facts a day: one that lives through years of a studio in minutes.
func (a *App) Lives() *App {
	a.aDay = store.Limits{Family: math.MaxInt, Student: math.MaxInt, Studio: math.MaxInt}
	return a
}

// Tell saves facts: what the teacher said happened. Facts already told change
// nothing. Either all are saved or none, and with them the documents that follow.
func (a *App) Tell(ctx context.Context, who Who, facts []fact.Fact) error {
	return a.TellAs(ctx, who, fact.Teacher, facts)
}

// TellAs saves facts that an author tells.
func (a *App) TellAs(ctx context.Context, who Who, by fact.Author, facts []fact.Fact) error {
	if len(facts) > MaxFacts {
		return Refuse("%d facts at once; send at most %d.", len(facts), MaxFacts)
	}
	for i := range facts {
		facts[i].At = facts[i].At.Truncate(time.Microsecond) // as it is kept
	}
	// Nearly always all is new and good, so that it is judged by what is at hand; what
	// is there already shows when it is saved, and what seems bad is looked at again.
	err := a.take(ctx, who, by, facts, atHand)
	var refused *Error
	again := errors.As(err, &refused) && refused.Kind == Invalid
	for n := 0; n < races && (again || errors.Is(err, store.ErrTaken)); n++ {
		again = false
		err = a.take(ctx, who, by, facts, asked)
	}
	return err
}

// races is how often a delivery is looked at anew because another device has told a
// part of it meanwhile.
const races = 5

// How a delivery is judged: by the shelf as it was last read and without asking
// whether its ids are there, or by all that the database says.
const (
	atHand = false
	asked  = true
)

// take saves what is new of a delivery.
func (a *App) take(ctx context.Context, who Who, by fact.Author, facts []fact.Fact, ask bool) error {
	known, err := a.known(ctx, who, facts, ask)
	if err != nil {
		return err
	}
	fresh, err := known.Take(by, facts)
	var refused *door.Refusal
	if errors.As(err, &refused) {
		kind := Invalid
		if refused.Conflict {
			kind = Conflict
		}
		return &Error{Kind: kind, Says: phrase.Begin(refused.Error()) + ".", Cause: err}
	}
	if err != nil || len(fresh) == 0 {
		return err
	}
	docs, err := a.follow(ctx, who, fresh)
	if err != nil {
		return err
	}
	err = a.Store.In(who.Studio).AddTold(ctx, fresh, docs, a.aDay)
	if errors.Is(err, store.ErrTooMany) {
		return &Error{TooMany, "More was told today than is taken in a day. What you marked waits here and is sent tomorrow; if you did not tell that much, ask who runs this copy.", err}
	}
	return Failed(err, "student")
}

// known gathers what the door asks about. Most marks name facts only.
func (a *App) known(ctx context.Context, who Who, facts []fact.Fact, ask bool) (door.Known, error) {
	r := a.Store.In(who.Studio)
	k := door.Known{Now: a.Now(), Graph: Catalogue}
	ids, items := door.Referred(facts), r.ItemsAtHand
	if ask {
		ids, items = door.Named(facts), r.ItemsNow
	}
	var err error
	if k.Stored, err = r.FactsNamed(ctx, ids); err != nil {
		return k, Failed(err, "fact")
	}
	var shelved, games, late bool
	for _, f := range facts {
		late = late || f.Check(k.Now) != nil // the studio's clock may be another than the machine's
		if f.Body == nil {
			continue
		}
		for _, ref := range fact.Refs(f.Body) {
			shelved = shelved || slices.Contains([]string{"item", "book", "point", "card"}, ref.To)
			games = games || ref.To == "activity"
			_, program := Catalogue[ref.ID]
			late = late || ref.To == "skill" && !program
		}
		t, try := f.Body.(fact.FootholdTried)
		shelved = shelved || try && t.Part != ""
	}
	if late { // or a skill of its own
		room, err := a.Enter(ctx, who)
		if err != nil {
			return k, err
		}
		k.Now, k.Graph = room.Now, room.Graph
	}
	if shelved {
		if k.Items, err = items(ctx); err != nil {
			return k, Failed(err, "shelf")
		}
	}
	if games {
		if k.Own, err = r.Activities(ctx); err != nil {
			return k, Failed(err, "studio")
		}
	}
	docs, err := r.DocumentsNamed(ctx, door.Documents(facts))
	if err != nil {
		return k, Failed(err, "sheet")
	}
	k.Lines = map[string][]string{}
	for _, d := range docs {
		var sheet week.Sheet
		if err := json.Unmarshal(d.Body, &sheet); err != nil {
			return k, err
		}
		k.Lines[door.DocumentKey(d.Student, d.ID)] = sheet.Keys()
	}
	return k, nil
}

// ByID is items by their ids.
func ByID(list []shelf.Item) map[string]shelf.Item {
	out := make(map[string]shelf.Item, len(list))
	for _, it := range list {
		out[it.ID] = it
	}
	return out
}

// follow makes the documents that new facts bring about.
func (a *App) follow(ctx context.Context, who Who, fresh []fact.Fact) ([]store.KeptDocument, error) {
	if !document.Bears(fresh) {
		return nil, nil
	}
	var out []store.KeptDocument
	var done []string
	for _, f := range fresh {
		if slices.Contains(done, f.Student) {
			continue
		}
		done = append(done, f.Student)
		p, err := a.Taught(ctx, who, f.Student)
		if err != nil {
			return nil, err
		}
		var more []fact.Fact
		for _, g := range fresh {
			if g.Student == p.ID {
				g.At = g.At.In(p.Zone)
				more = append(more, g)
			}
		}
		p.take(p.with(more, p.Items))
		docs, err := p.owed(ctx)
		if err != nil {
			return nil, err
		}
		out = append(out, docs...)
	}
	return out, nil
}
