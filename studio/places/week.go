package places

import (
	"context"
	"maps"
	"slices"

	"patientladder/core/advice"
	"patientladder/core/calendar"
	"patientladder/core/card"
	"patientladder/core/document"
	"patientladder/core/home"
	"patientladder/core/shelf"
	"patientladder/core/week"
	"patientladder/studio"
	"patientladder/studio/library"
)

// A WeekView is a student's week sheet, as it was given.
type WeekView struct {
	Student   studio.StudentCard  `json:"student"`
	Studio    string              `json:"studio"`
	Document  *document.Document  `json:"document,omitempty" doc:"the revision shown; none before a lesson was closed"`
	Sheet     *week.Sheet         `json:"sheet,omitempty" doc:"none before a lesson was closed"`
	Revisions []document.Document `json:"revisions" doc:"of this sheet, the first first"`
	Given     []calendar.Date     `json:"given" doc:"days of lessons that gave a sheet, the last first"`
	Ticks     []Tick              `json:"ticks" doc:"made at home"`
	Lines     []advice.SheetLine  `json:"lines" doc:"of the newest revision of the last sheet, with what may be done to each"`
	Links     int                 `json:"links" doc:"that open this week to the family now"`
	OwnLinks  int                 `json:"ownLinks" doc:"that the student holds"`
	OwnLink   bool                `json:"ownLink" doc:"the student is old enough for one"`
	Sending   *Sending            `json:"sending,omitempty" doc:"the last of this sheet"`
	Chunks    []week.Bracketed    `json:"chunks" doc:"of each piece in hand with a score, what this week builds"`
	Later     []week.Later        `json:"later" doc:"what the days hold that are not shown one by one"`
	Cards     []CardView          `json:"cards" doc:"that the sheet asks, as they are shown"`
	Home      home.Answer         `json:"home" doc:"what comes back from home, and what to try"`
}

// Week shows the sheet of a closed lesson, of the last for the empty day, in a
// revision, the newest for 0.
func Week(ctx context.Context, a *studio.App, who studio.Who, student string, day calendar.Date, revision int) (WeekView, error) {
	p, err := a.Taught(ctx, who, student)
	if err != nil {
		return WeekView{}, err
	}
	if err := studio.CheckDay(day); err != nil {
		return WeekView{}, err
	}
	v := WeekView{Student: p.Card(p.Student, p.Standing, p.LessonDay()), Studio: p.Row.Name, Revisions: []document.Document{}, Given: given(&p), Ticks: []Tick{}, Chunks: []week.Bracketed{}, Lines: []advice.SheetLine{}, Cards: []CardView{}, Later: []week.Later{}}
	if v.Document, v.Sheet, err = p.SheetOf(ctx, day, revision); err != nil {
		return WeekView{}, err
	}
	v.Home, v.OwnLink = p.FromHome(), advice.OwnLink(studio.Age(p.Student, p.Today()))
	if v.Sheet != nil {
		if v.Revisions, err = p.Revisions(ctx, p.ID, document.Sheet, v.Sheet.From); err != nil {
			return WeekView{}, studio.Failed(err, "sheet")
		}
		if revision == 0 && v.Sheet.From == studio.Latest(p.Standing.Closed) {
			v.Lines = advice.OnLines(v.Document.ID, *v.Sheet, p.Standing.Pinned)
		}
		folded := v.Sheet.Fold(p.Today())
		v.Sheet, v.Later = &folded, studio.List(folded.Later(p.Voice()))
		v.Cards = cardsOf(&p, *v.Sheet)
		v.Ticks, v.Chunks = Ticks(&p, v.Sheet.From, v.Revisions), v.Sheet.Bracketed(func(t week.Task) string { return ItemOf(&p, t).ID })
		sent, err := p.Mailings(ctx, document.Sheet, v.Sheet.From)
		if err != nil {
			return WeekView{}, studio.Failed(err, "student")
		}
		v.Sending = LastOf(sent, student, v.Sheet.From)
	}
	links, err := p.FamilyLinks(ctx, student)
	for _, l := range links {
		switch {
		case l.LastDay < p.Today():
		case l.Own:
			v.OwnLinks++
		default:
			v.Links++
		}
	}
	return v, studio.Failed(err, "student")
}

// An AddableView is what may be added to a sheet.
type AddableView struct {
	Found []advice.Addable `json:"found"`
}

// Addable finds what may be added to a student's newest sheet.
func Addable(ctx context.Context, a *studio.App, who studio.Who, student, sought string) (AddableView, error) {
	p, err := a.Taught(ctx, who, student)
	if err != nil {
		return AddableView{}, err
	}
	day := studio.Latest(p.Standing.Closed)
	if day == "" { // before the first lesson there is no sheet to add to
		return AddableView{[]advice.Addable{}}, nil
	}
	return AddableView{advice.AddableTo(day, sought, p.Standing, shelf.Offered(library.Shown(p.Shelved), p.Instruments, p.Plays), slices.Concat(p.In.Games(), p.Own), p.Plays, studio.Age(p.Student, p.Today()), p.In.Label)}, nil
}

// cardsOf draws the cards that a sheet asks, each once, in order.
func cardsOf(p *studio.Pupil, sh week.Sheet) []CardView {
	out := []CardView{}
	seen := map[string]bool{}
	for _, d := range sh.Days {
		for _, t := range d.Tasks {
			for _, c := range CardsAsked(p, t) {
				if seen[c.ID] {
					continue
				}
				seen[c.ID] = true
				i := slices.IndexFunc(t.Cards, func(l week.CardLine) bool { return l.ID == c.ID })
				out = append(out, cardView(p, c, t.Cards[i]))
			}
		}
	}
	return out
}

// CardsAsked are the cards of a task as they are now, in its order.
func CardsAsked(p *studio.Pupil, t week.Task) []card.Card {
	if len(t.Cards) == 0 {
		return nil
	}
	kinds, err := card.Parse(ItemOf(p, t).Cards)
	if err != nil {
		return nil
	}
	deck := card.Deck(kinds, p.Plays)
	var out []card.Card
	for _, line := range t.Cards {
		if i := slices.IndexFunc(deck, func(c card.Card) bool { return c.ID == line.ID }); i >= 0 {
			out = append(out, deck[i])
		}
	}
	return out
}

// given are the days of closed lessons, the last first.
func given(p *studio.Pupil) []calendar.Date {
	days := slices.Sorted(maps.Keys(p.Standing.Closed))
	slices.Reverse(days)
	return studio.List(days)
}

// ItemOf returns the item of a task: its rung's, or what was added from the shelf.
func ItemOf(p *studio.Pupil, t week.Task) shelf.Item {
	if t.Item != "" {
		return p.Items[t.Item]
	}
	r, _ := p.Standing.Rung(t.Rung)
	return r.Item
}

// A Tick is a task of the sheet that was done.
type Tick struct {
	ID  string        `json:"id" doc:"of the fact that ticked it"`
	Day calendar.Date `json:"day"`
	Key string        `json:"key" doc:"of the line of the sheet"`
}

// Ticks are those of a sheet in any of its revisions, and those of its days from
// before sheets were kept.
func Ticks(p *studio.Pupil, from calendar.Date, revisions []document.Document) []Tick {
	out := []Tick{}
	for _, t := range p.Standing.Ticks {
		of := slices.ContainsFunc(revisions, func(d document.Document) bool { return d.ID == t.Document })
		if of || t.Document == "" && t.Day >= from && t.Day.Sub(from) <= 7 {
			out = append(out, Tick{t.ID, t.Day, t.Line})
		}
	}
	return out
}
