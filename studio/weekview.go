package studio

import (
	"context"
	"maps"
	"slices"

	"patientladder/core/activity"
	"patientladder/core/advice"
	"patientladder/core/calendar"
	"patientladder/core/card"
	"patientladder/core/document"
	"patientladder/core/home"
	"patientladder/core/ladder"
	"patientladder/core/notation"
	"patientladder/core/reading"
	"patientladder/core/shelf"
	"patientladder/core/week"
)

// A WeekView is a student's week sheet, as it was given.
type WeekView struct {
	Student   StudentCard         `json:"student"`
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
	Cards     []CardView          `json:"cards" doc:"that the sheet asks, as they are shown"`
	Home      home.Answer         `json:"home" doc:"what comes back from home, and what to try"`
}

// Week shows the sheet of a closed lesson, of the last for the empty day, in a
// revision, the newest for 0.
func (a *App) Week(ctx context.Context, who Who, student string, day calendar.Date, revision int) (WeekView, error) {
	p, err := a.taught(ctx, who, student)
	if err != nil {
		return WeekView{}, err
	}
	if err := checkDay(day); err != nil {
		return WeekView{}, err
	}
	v := WeekView{Student: p.card(p.Student, p.standing, p.lessonDay()), Studio: p.row.Name, Revisions: []document.Document{}, Given: p.given(), Ticks: []Tick{}, Chunks: []week.Bracketed{}, Lines: []advice.SheetLine{}, Cards: []CardView{}}
	if v.Document, v.Sheet, err = p.sheetOf(ctx, day, revision); err != nil {
		return WeekView{}, err
	}
	v.Home, v.OwnLink = p.home(), advice.OwnLink(age(p.Student, p.today()))
	if v.Sheet != nil {
		if v.Revisions, err = p.Revisions(ctx, p.ID, document.Sheet, v.Sheet.From); err != nil {
			return WeekView{}, told(err, "sheet")
		}
		if revision == 0 && v.Sheet.From == latest(p.standing.Closed) {
			v.Lines = advice.OnLines(v.Document.ID, *v.Sheet, p.standing.Pinned)
		}
		v.Cards = p.cardsOf(*v.Sheet)
		v.Ticks, v.Chunks = p.ticks(v.Sheet.From, v.Revisions), v.Sheet.Bracketed(func(t week.Task) string { return p.itemOf(t).ID })
		sent, err := p.Mailings(ctx, document.Sheet, v.Sheet.From)
		if err != nil {
			return WeekView{}, told(err, "student")
		}
		v.Sending = lastOf(sent, student, v.Sheet.From, p.room.now)
	}
	links, err := p.FamilyLinks(ctx, student)
	for _, l := range links {
		switch {
		case l.LastDay < p.today():
		case l.Own:
			v.OwnLinks++
		default:
			v.Links++
		}
	}
	return v, told(err, "student")
}

// An AddableView is what may be added to a sheet.
type AddableView struct {
	Found []advice.Addable `json:"found"`
}

// Addable finds what may be added to a student's newest sheet.
func (a *App) Addable(ctx context.Context, who Who, student, sought string) (AddableView, error) {
	p, err := a.taught(ctx, who, student)
	if err != nil {
		return AddableView{}, err
	}
	day := latest(p.standing.Closed)
	if day == "" { // before the first lesson there is no sheet to add to
		return AddableView{[]advice.Addable{}}, nil
	}
	return AddableView{advice.AddableTo(day, sought, p.standing, shelf.Offered(shown(p.shelf), p.instruments, p.plays), slices.Concat(activity.Bank(), p.own), p.plays, age(p.Student, p.today()))}, nil
}

// cardsOf draws the cards that a sheet asks, each once, in order.
func (p *pupil) cardsOf(sh week.Sheet) []CardView {
	out := []CardView{}
	seen := map[string]bool{}
	for _, d := range sh.Days {
		for _, t := range d.Tasks {
			for _, c := range p.cardsAsked(t) {
				if seen[c.ID] {
					continue
				}
				seen[c.ID] = true
				i := slices.IndexFunc(t.Cards, func(l week.CardLine) bool { return l.ID == c.ID })
				out = append(out, p.cardView(c, t.Cards[i]))
			}
		}
	}
	return out
}

// cardsAsked are the cards of a task as they are now, in its order.
func (p *pupil) cardsAsked(t week.Task) []card.Card {
	if len(t.Cards) == 0 {
		return nil
	}
	kinds, err := card.Parse(p.itemOf(t).Cards)
	if err != nil {
		return nil
	}
	deck := card.Deck(kinds, p.plays)
	var out []card.Card
	for _, line := range t.Cards {
		if i := slices.IndexFunc(deck, func(c card.Card) bool { return c.ID == line.ID }); i >= 0 {
			out = append(out, deck[i])
		}
	}
	return out
}

// checkDay checks a day that was asked for; the empty one is fine.
func checkDay(day calendar.Date) error {
	if day == "" {
		return nil
	}
	if _, err := calendar.ParseDate(string(day)); err != nil {
		return invalid("That day cannot be shown: %v.", err)
	}
	return nil
}

// given are the days of closed lessons, the last first.
func (p *pupil) given() []calendar.Date {
	days := slices.Sorted(maps.Keys(p.standing.Closed))
	slices.Reverse(days)
	return list(days)
}

// itemOf returns the item of a task: its rung's, or what was added from the shelf.
func (p *pupil) itemOf(t week.Task) shelf.Item {
	if t.Item != "" {
		return p.items[t.Item]
	}
	r, _ := p.standing.Rung(t.Rung)
	return r.Item
}

// cut reads the chunk trees of the rungs in hand in a standing off their scores.
func (p *pupil) cut(ctx context.Context, s ladder.Standing) error {
	var ids []string
	rungs := map[string]string{} // by item
	for _, r := range s.In(ladder.Current) {
		if r.Item.HasScore && r.Taught != nil {
			ids = append(ids, r.Item.ID)
			rungs[r.Item.ID] = r.ID
		}
	}
	files, err := p.Scores(ctx, ids)
	if err != nil {
		return told(err, "scores")
	}
	p.trees, p.inTurn, p.tempos = make(map[string][]reading.Chunk, len(files)), map[string]bool{}, map[string]reading.Tempo{}
	size := reading.Size(age(p.Student, p.today()), p.standing.ReadsSolidly())
	for id, f := range files {
		if err := ctx.Err(); err != nil {
			return err
		}
		sc, err := notation.Read(f.Name, f.Data)
		if err != nil {
			return err // it was read when it came onto the shelf
		}
		page := reading.Read(sc, p.plays)
		p.trees[rungs[id]], p.inTurn[rungs[id]], p.tempos[rungs[id]] = page.Chunks(size), page.InTurn(), page.Tempo()
	}
	return p.remember(ctx)
}

// remember gathers the sheets that were given before, with what was ticked of them.
func (p *pupil) remember(ctx context.Context) error {
	weeks, err := p.weeks(ctx)
	if err != nil {
		return err
	}
	p.past = p.past[:0]
	for _, w := range slices.Backward(weeks) {
		past := week.Past{Day: w.Day, Ticked: map[string]int{}}
		for _, l := range w.Lines {
			past.Ticked[l.Key] = l.Ticked
		}
		p.past = append(p.past, past)
	}
	return nil
}
