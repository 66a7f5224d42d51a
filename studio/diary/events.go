package diary

import (
	"context"
	"errors"
	"slices"

	"patientladder/core/advice"
	"patientladder/core/calendar"
	"patientladder/core/fact"
	"patientladder/core/ladder"
	"patientladder/core/programme"
	"patientladder/core/reading"
	"patientladder/core/reason"
	"patientladder/core/shelf"
	"patientladder/studio"
)

// An EventsView is all days on which students play before others.
type EventsView struct {
	Today  calendar.Date     `json:"today"`
	Events []programme.Event `json:"events" doc:"the last first"`
}

// Events shows the days on which students play before others.
func Events(ctx context.Context, a *studio.App, who studio.Who) (EventsView, error) {
	r, err := a.Enter(ctx, who)
	if err != nil {
		return EventsView{}, err
	}
	events, err := EventsOf(ctx, r)
	return EventsView{r.Today(), studio.List(events)}, err
}

// A ListingView is a piece of a programme and how it stands for the day.
type ListingView struct {
	programme.Listing
	Name     string        `json:"name" doc:"first name of who plays"`
	Title    string        `json:"title"`
	Composer string        `json:"composer"`
	Plays    string        `json:"plays" doc:"the instrument"`
	Age      int           `json:"age"`
	Key      string        `json:"key" doc:"as G major; empty for not known"`
	Mood     string        `json:"mood" doc:"calm, walking or lively; empty for not known"`
	Lasts    int           `json:"lasts" doc:"seconds, reckoned or as the teacher has it"`
	Ready    advice.Ready  `json:"ready"`
	Lessons  int           `json:"lessons" doc:"until the day"`
	Rehearse calendar.Date `json:"rehearse" doc:"from when on it is rehearsed: the last weeks before the day"`
}

// An EventView is such a day with its programme.
type EventView struct {
	Today   calendar.Date   `json:"today"`
	Event   programme.Event `json:"event"`
	Day     calendar.Date   `json:"day" doc:"on which it would be"`
	Entries []ListingView   `json:"entries" doc:"in the order of the programme"`
	Seconds int             `json:"seconds" doc:"of the whole programme"`
	Order   []string        `json:"order" doc:"rungs in the order that is best"`
	Why     []reason.Reason `json:"why" doc:"what speaks for the order of the programme"`
	Choices []ListingView   `json:"choices" doc:"pieces that could be played: in hand and secure, the last first"`
}

// rehearsed is how many weeks before the day a piece is rehearsed as it will be played. Common
// practice, no source.
const rehearsed = 3

// Event shows a day on which students play before others, as it is, or as if it were some weeks earlier.
func Event(ctx context.Context, a *studio.App, who studio.Who, id string, earlier int) (EventView, error) {
	r, err := a.Enter(ctx, who)
	if err != nil {
		return EventView{}, err
	}
	e, err := event(ctx, r, id)
	if err != nil {
		return EventView{}, err
	}
	v := EventView{Today: r.Today(), Event: e, Day: e.Day.Add(-7 * earlier), Entries: []ListingView{}, Order: []string{}, Choices: []ListingView{}}
	students, err := r.Students(ctx)
	if err != nil {
		return v, studio.Failed(err, "studio")
	}
	for _, st := range students {
		p, err := a.Pupil(ctx, who, st.ID)
		if err != nil {
			return v, err
		}
		if p.Card(p.Student, p.Standing, p.LessonDay()).State == "left" {
			continue
		}
		w := p.WayNow()
		for _, rung := range slices.Concat(p.Standing.In(ladder.Current), p.Standing.In(ladder.Secure)) {
			if rung.Strand.Piece() {
				v.Choices = append(v.Choices, entry(&p, w, rung, e, v.Day))
			}
		}
	}
	for _, one := range e.Entries {
		if i := slices.IndexFunc(v.Choices, func(c ListingView) bool { return c.Rung == one.Rung && c.Student == one.Student }); i >= 0 {
			v.Entries = append(v.Entries, v.Choices[i])
		}
	}
	v.Choices = slices.DeleteFunc(v.Choices, func(c ListingView) bool {
		return slices.ContainsFunc(e.Entries, func(one programme.Listing) bool { return one.Rung == c.Rung })
	})
	var pieces []programme.Piece
	for _, one := range v.Entries {
		pieces = append(pieces, programme.Piece{Student: one.Student, Title: one.Title, Instrument: one.Plays, Age: one.Age, Key: one.Key, Mood: one.Mood, Seconds: one.Lasts})
	}
	best := programme.Order(pieces)
	for _, i := range best {
		v.Order = append(v.Order, v.Entries[i].Rung)
	}
	if !e.Placed {
		var sorted []ListingView
		var in []programme.Piece
		for _, i := range best {
			sorted, in = append(sorted, v.Entries[i]), append(in, pieces[i])
		}
		v.Entries, pieces = studio.List(sorted), in
	}
	v.Seconds, v.Why = programme.Length(pieces), programme.Why(pieces)
	return v, nil
}

// entry tells a piece that a student might play on a day.
func entry(p *studio.Pupil, w studio.Way, r ladder.Rung, e programme.Event, day calendar.Date) ListingView {
	v := ListingView{Listing: programme.Listing{Student: p.ID, Rung: r.ID}, Name: p.FirstName, Title: r.Item.Title, Composer: r.Item.Composer, Plays: p.Plays.Name, Age: studio.Age(p.Student, day), Key: r.Item.Key,
		Mood: mood(r.Item), Ready: w.ReadyFor(r, day), Lessons: len(p.Calendar().Lessons(p.Slot, p.Today(), day.Add(-1))), Rehearse: day.Add(-7 * rehearsed)}
	if i := slices.IndexFunc(e.Entries, func(one programme.Listing) bool { return one.Rung == r.ID }); i >= 0 {
		v.Seconds = e.Entries[i].Seconds
	}
	if v.Lasts = v.Seconds; v.Lasts == 0 {
		v.Lasts = programme.Lasts(r.Item.Bars, r.Item.Meter, r.Item.Tempo)
	}
	return v
}

// mood is how a piece goes, by its taste, its tempo or its title.
func mood(it shelf.Item) string {
	switch it.Taste {
	case shelf.Lively:
		return "lively"
	case shelf.Lyrical:
		return "calm"
	}
	return reading.Goes(it.Title, it.Tempo)
}

// here are the students who are in the studio, by id.
func here(ctx context.Context, r studio.Room) (map[string]bool, error) {
	students, err := r.Students(ctx)
	out := map[string]bool{}
	for _, st := range students {
		out[st.ID] = true
	}
	return out, err
}

// EventsOf are those days with what students play who are still in the studio: of one that was deleted
// nothing is told.
func EventsOf(ctx context.Context, r studio.Room) ([]programme.Event, error) {
	events, err1 := r.Events(ctx)
	here, err2 := here(ctx, r)
	if err := errors.Join(err1, err2); err != nil {
		return nil, studio.Failed(err, "studio")
	}
	for i := range events {
		events[i].Entries = slices.DeleteFunc(events[i].Entries, func(one programme.Listing) bool { return !here[one.Student] })
	}
	return events, nil
}

func event(ctx context.Context, r studio.Room, id string) (programme.Event, error) {
	events, err := EventsOf(ctx, r)
	if err != nil {
		return programme.Event{}, err
	}
	i := slices.IndexFunc(events, func(e programme.Event) bool { return e.ID == id })
	if i < 0 {
		return programme.Event{}, &studio.Error{Kind: studio.Missing, Says: "There is no such day in this studio."}
	}
	return events[i], nil
}

// KeepEvent keeps a day on which students play before others. Its pieces have it as their date, so that
// forecasts and advice answer; what was withdrawn has none any more.
func KeepEvent(ctx context.Context, a *studio.App, who studio.Who, id string, c studio.Change[programme.Event]) error {
	c.Now.ID = id
	return a.Edit(ctx, who, func(r studio.Room) error {
		events, err := EventsOf(ctx, r)
		if err != nil {
			return err
		}
		before := studio.Find(events, func(e programme.Event) bool { return e.ID == id })
		e, err := c.Onto(before)
		if err != nil {
			return err
		}
		if err := studio.CheckNames(e.Name, e.Place); err != nil {
			return err
		}
		if err := e.Check(); err != nil {
			return studio.Refuse("The day cannot be kept: %v.", err)
		}
		for _, one := range e.Entries {
			p, err := a.Pupil(ctx, who, one.Student)
			if err != nil {
				return err
			}
			if _, there := p.Standing.Rung(one.Rung); !there {
				return studio.Refuse("A piece of the programme is not on the ladder of %s any more. Take it out, and keep the day then.", p.FirstName)
			}
		}
		if before == nil {
			before = &programme.Event{}
		}
		return studio.Failed(r.SetEvent(ctx, e, dates(r, *before, e)), "studio")
	})
}

// DropEvent takes such a day away, as it was seen, nil for however it is.
func DropEvent(ctx context.Context, a *studio.App, who studio.Who, id string, seen *programme.Event) error {
	return a.Edit(ctx, who, func(r studio.Room) error {
		e, err := event(ctx, r, id)
		if err != nil {
			return err
		}
		if err := studio.Unseen(seen, &e); err != nil {
			return err
		}
		return studio.Failed(r.DropEvent(ctx, id, dates(r, e, programme.Event{})), "studio")
	})
}

// dates are the facts that follow where a day is kept otherwise than before: what is played on it has
// it as its date. A day that is over sets none.
func dates(r studio.Room, before, now programme.Event) []fact.Fact {
	var out []fact.Fact
	say := func(student string, body fact.Body) {
		out = append(out, fact.Fact{ID: studio.NewID(), Student: student, At: r.Now.UTC(), By: fact.Teacher, Body: body})
	}
	had := map[string]bool{}
	for _, one := range before.Entries {
		had[one.Rung] = true
		if !slices.ContainsFunc(now.Entries, func(o programme.Listing) bool { return o.Rung == one.Rung }) {
			say(one.Student, fact.TargetDropped{Rung: one.Rung})
		}
	}
	for _, one := range now.Entries {
		if now.Day >= r.Today() && (!had[one.Rung] || now.Day != before.Day) {
			say(one.Student, fact.TargetSet{Rung: one.Rung, Day: now.Day})
		}
	}
	return out
}
