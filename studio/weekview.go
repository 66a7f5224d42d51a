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
	Revisions []document.Document `json:"revisions" nullable:"false" doc:"of this sheet, the first first"`
	Given     []calendar.Date     `json:"given" nullable:"false" doc:"days of lessons that gave a sheet, the last first"`
	Ticks     []Tick              `json:"ticks" nullable:"false" doc:"made at home"`
	Lines     []advice.SheetLine  `json:"lines" nullable:"false" doc:"of the newest revision of the last sheet, with what may be done to each"`
	Links     int                 `json:"links" doc:"that open this week to the family now"`
	OwnLinks  int                 `json:"ownLinks" doc:"that the student holds"`
	OwnLink   bool                `json:"ownLink" doc:"the student is old enough for one"`
	Sending   *Sending            `json:"sending,omitempty" doc:"the last of this sheet"`
	Chunks    []Bracketed         `json:"chunks" nullable:"false" doc:"of each piece in hand with a score, what this week builds"`
	Cards     []CardView          `json:"cards" nullable:"false" doc:"that the sheet asks, as they are shown"`
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
	v := WeekView{Student: p.card(p.Student, p.lessonDay()), Studio: p.row.Name, Revisions: []document.Document{}, Given: p.given(), Ticks: []Tick{}, Chunks: []Bracketed{}, Lines: []advice.SheetLine{}, Cards: []CardView{}}
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
		v.Ticks, v.Chunks = p.ticks(v.Sheet.From, v.Revisions), bracketed(*v.Sheet, p.itemOf)
		sent, err := p.Mailings(ctx, v.Sheet.From)
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
	Found []advice.Addable `json:"found" nullable:"false"`
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

// A Bracketed is a piece of the sheet whose chunks are drawn over its notes.
type Bracketed struct {
	Rung   string  `json:"rung"`
	Item   string  `json:"item"`
	Title  string  `json:"title"`
	From   int     `json:"from" doc:"first bar that is drawn"`
	To     int     `json:"to" doc:"last"`
	Chunks []Drawn `json:"chunks" nullable:"false"`
}

// A Drawn is a chunk as a bracket.
type Drawn struct {
	From   string `json:"from" doc:"id of its first note in the score"`
	To     string `json:"to" doc:"id of its last"`
	Hand   string `json:"hand" enum:",right,left,both"`
	Level  int    `json:"level" doc:"0 for a smallest chunk, more for one that is joined from others"`
	Says   string `json:"says" doc:"its hand and finger, where it starts"`
	Number int    `json:"number" doc:"in the order of learning, from 1"`
}

// bracketed gathers what a week builds of each piece, in the order in which it is
// learnt.
func bracketed(sheet week.Sheet, itemOf func(week.Task) shelf.Item) []Bracketed {
	out := []Bracketed{}
	for _, d := range sheet.Days {
		for _, t := range d.Tasks {
			if t.Band != "now" || t.Start == nil || t.Spot != "" || t.From == 0 {
				continue
			}
			i := slices.IndexFunc(out, func(b Bracketed) bool { return b.Rung == t.Rung })
			if i < 0 {
				out, i = append(out, Bracketed{Rung: t.Rung, Item: itemOf(t).ID, Title: t.Title, From: t.From, To: t.To, Chunks: []Drawn{}}), len(out)
			}
			b := &out[i]
			b.From, b.To = min(b.From, t.From), max(b.To, t.To)
			if slices.ContainsFunc(b.Chunks, func(c Drawn) bool { return c.From == t.Start.From && c.To == t.Start.To && c.Hand == t.Start.Hand }) {
				continue
			}
			b.Chunks = append(b.Chunks, Drawn{From: t.Start.From, To: t.Start.To, Hand: t.Start.Hand, Level: t.Start.Level, Says: t.Says.Mark, Number: len(b.Chunks) + 1})
		}
	}
	return out
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
	size := reading.Size(age(p.Student, p.today()), p.readsSolidly())
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

// readsSolidly reports whether four bars at first sight are secure.
func (p *pupil) readsSolidly() bool {
	for _, r := range p.standing.In(ladder.Secure) {
		if slices.Contains(r.Item.Brings, "sight-four-bars") {
			return true
		}
	}
	return false
}
