// Package places shows one student: the ladder, the lesson, the week sheet, the record, and what stands beside
// them.
package places

import (
	"context"
	"maps"
	"slices"
	"time"

	"patientladder/core/advice"
	"patientladder/core/ahead"
	"patientladder/core/calendar"
	"patientladder/core/card"
	"patientladder/core/climb"
	"patientladder/core/fact"
	"patientladder/core/judgement"
	"patientladder/core/ladder"
	"patientladder/core/lesson"
	"patientladder/core/mixture"
	"patientladder/core/notation/musicxml"
	"patientladder/core/reason"
	"patientladder/core/shelf"
	"patientladder/core/upkeep"
	"patientladder/core/week"
	"patientladder/studio"
)

// A RungView is a rung as the screens show it.
type RungView struct {
	ID       string          `json:"id"`
	Item     string          `json:"item"`
	Title    string          `json:"title"`
	Strand   shelf.Strand    `json:"strand" enum:"book,technique,reading,repertoire"`
	State    ladder.State    `json:"state" enum:"ahead,current,secure,parked,proposed" doc:"proposed: not on the ladder yet; its id is its item's"`
	Bars     int             `json:"bars"`
	HasScore bool            `json:"hasScore"`
	Brings   []string        `json:"brings" doc:"names of skills met here first"`
	Taught   *time.Time      `json:"taught,omitempty"`
	Foothold *time.Time      `json:"foothold,omitempty"`
	Polished bool            `json:"polished"`
	Weeks    float64         `json:"weeks" doc:"taught weeks from first taught to the foothold, or until now"`
	Silent   int             `json:"silent" doc:"days since a secure piece was last played, in a lesson or at home"`
	Recall   float64         `json:"recall" doc:"how likely a secure piece is still played well, 0 to 1"`
	Ready    bool            `json:"ready" doc:"every point is met"`
	Held     string          `json:"held" doc:"key of the point held in mind"`
	Plays    []PlayView      `json:"plays" doc:"of a rung in hand whose notes are made by rule: the exercises that are practised now"`
	Deck     *DeckView       `json:"deck,omitempty" doc:"of a rung in hand with cards"`
	Steps    []string        `json:"steps" doc:"how it goes, of what has no notes"`
	SpotGoal int             `json:"spotGoal" doc:"times in a row that a new spot is wanted"`
	Points   []PointView     `json:"points"`
	Spots    []SpotView      `json:"spots"`
	Parts    []PartView      `json:"parts"`
	Missing  []string        `json:"missing" doc:"what is left to work for"`
	Refused  *reason.Reason  `json:"refused,omitempty" doc:"why a try for the foothold would be turned back"`
	LastTry  *TryView        `json:"lastTry,omitempty"`
	Expected *climb.Expected `json:"expected,omitempty" doc:"of a current or future rung"`
	Place    *climb.Range    `json:"place,omitempty" doc:"calendar weeks from now to the expected foothold"`
	Load     *climb.Load     `json:"load,omitempty" doc:"of a rung in hand or ahead"`
	Target   calendar.Date   `json:"target" doc:"the day it should be polished by; empty for none"`
	Why      []reason.Reason `json:"why" doc:"of a proposed rung"`
	Acts     []fact.Act      `json:"acts" doc:"what may be done to it on the ladder"`
	Piece    []fact.Act      `json:"piece,omitempty" doc:"what may be done to it in its lesson; of a rung in hand"`
	Lacks    *reason.Reason  `json:"lacks,omitempty" doc:"why the home instrument cannot do it"`
}

// A PointView is a focus point.
type PointView struct {
	Key   string            `json:"key"`
	Name  string            `json:"name"`
	Own   bool              `json:"own" doc:"the student's own, written on every piece"`
	State ladder.PointState `json:"state" enum:"unmarked,met,open"`
	Since *time.Time        `json:"since,omitempty"`
}

// A SpotView is a short hard place.
type SpotView struct {
	ID    string `json:"id"`
	Where string `json:"where"`
	Goal  int    `json:"goal"`
	Done  int    `json:"done"`
}

// A PartView is a part with a foothold of its own.
type PartView struct {
	ID   string `json:"id"`
	Name string `json:"name"`
	Done bool   `json:"done"`
	Due  bool   `json:"due" doc:"it is learnt now"`
}

// A PlayView is an exercise that is practised now.
type PlayView struct {
	Exercise string `json:"exercise" doc:"its specification"`
	Title    string `json:"title"`
}

// A DeckView is what a deck of cards asks next.
type DeckView struct {
	Known int        `json:"known"`
	Of    int        `json:"of"`
	Cards []CardView `json:"cards" doc:"to ask now, in order"`
}

// A CardView is a card as it is shown and asked.
type CardView struct {
	week.CardLine
	XML     string      `json:"xml" doc:"MusicXML of what is shown; empty of tablature"`
	Stops   []card.Stop `json:"stops" doc:"tablature that is shown"`
	Strings int         `json:"strings" doc:"lines of tablature: strings of the instrument"`
}

// A TryView is the last try for a foothold.
type TryView struct {
	At      time.Time      `json:"at"`
	Outcome string         `json:"outcome" enum:"granted,not-yet,refused"`
	Why     *reason.Reason `json:"why,omitempty"`
}

// A LadderView is a student's ladder.
type LadderView struct {
	Student     studio.StudentCard  `json:"student"`
	Today       calendar.Date       `json:"today"`
	Free        []calendar.Span     `json:"free" doc:"spans without lessons, terms' gaps included"`
	Rungs       []RungView          `json:"rungs" doc:"lane by lane, from the foot up; proposals last"`
	Usual       float64             `json:"usual" doc:"load of the student's usual rung"`
	HeadStarts  []ahead.HeadStart   `json:"headStarts"`
	WeekAt      []float64           `json:"weekAt" doc:"where each taught week from now begins, in calendar weeks from now"`
	Suggestions []advice.Suggestion `json:"suggestions"`
	Aside       []AsideView         `json:"aside" doc:"suggestions that were put off or turned down, and would stand here else"`
	Changes     []reason.Reason     `json:"changes" doc:"what moved since a week ago"`
	Books       []string            `json:"books" doc:"books and pools chosen"`
	Targets     []Target            `json:"targets"`
	Granted     []Question          `json:"granted" doc:"skills taken for granted from where the student began, which nothing speaks for yet"`
	Aims        []lesson.OpenAim    `json:"aims" doc:"what first meetings left open, in the order in which it comes again"`
	Mixture     *MixtureView        `json:"mixture,omitempty" doc:"of a student before the first book"`
}

// An AsideView is a suggestion that was put off or turned down.
type AsideView struct {
	Fact       string            `json:"fact" doc:"that turned it down; retracted, it stands again"`
	Until      calendar.Date     `json:"until" doc:"when it comes again; empty of one that was turned down for good"`
	Suggestion advice.Suggestion `json:"suggestion"`
}

// aside lists what would be suggested if nothing had been put off or turned down.
func aside(p *studio.Pupil) []AsideView {
	out := []AsideView{}
	s := p.Standing
	s.Overruled = nil
	refused := func(key string) bool { return key != "" && p.Standing.Refused(key, p.Room.Now) }
	if !slices.ContainsFunc(slices.Collect(maps.Keys(p.Standing.Overruled)), refused) {
		return out
	}
	for _, g := range p.Way(s, p.Approach, p.Room.Now).Suggestions() {
		if refused(g.Key) {
			o := p.Standing.Overruled[g.Key]
			out = append(out, AsideView{o.Fact, o.Until(), g})
		}
	}
	return out
}

// A Target is a day by which rungs should be polished.
type Target struct {
	Day  calendar.Date `json:"day"`
	In   float64       `json:"in" doc:"calendar weeks from now"`
	Rung string        `json:"rung"`
}

// A MixtureView stands in for the ladder before the first book.
type MixtureView struct {
	Next []mixture.Bit `json:"next" doc:"the coming lesson's"`
	Test mixture.Test  `json:"test"`
}

// Ladder shows where a student stands and what comes.
func Ladder(ctx context.Context, a *studio.App, who studio.Who, student string) (LadderView, error) {
	p, err := a.Pupil(ctx, who, student)
	if err != nil {
		return LadderView{}, err
	}
	w := p.WayNow()
	v := LadderView{Student: p.Card(p.Student, p.Standing, p.LessonDay()), Today: p.Today(), Free: p.Calendar().Gaps(), Rungs: rungs(&p, w), Usual: w.Usual,
		HeadStarts: w.Ahead, Suggestions: w.Suggestions(), Aside: aside(&p), Changes: since(&p, w), Books: p.Standing.Books, Targets: targets(&p)}
	if v.HeadStarts == nil {
		v.HeadStarts = []ahead.HeadStart{}
	}
	v.WeekAt = w.Marks[:30]
	v.Granted = Questions(&p, upkeep.Granted(p.Standing, w.Presumed))
	v.Aims = lesson.Aims(p.Ask(w, p.LessonDay()))
	if v.Books == nil {
		v.Books = []string{}
	}
	if p.Standing.BeforeBook {
		v.Mixture = &MixtureView{mixture.Of(p.Standing, p.Graph, w.Known), mixture.FirstBook(p.Standing, p.Graph, p.Plays)}
	}
	return v, nil
}

// rungs shows all rungs of the standing, then those proposed.
func rungs(p *studio.Pupil, w studio.Way) []RungView {
	list := []RungView{}
	acts := advice.OnLadder(p.Standing)
	for _, r := range p.Standing.Rungs {
		v := rung(p, w, r)
		v.Acts = acts[r.ID]
		list = append(list, v)
	}
	for i, r := range w.Rungs[len(w.Rungs)-len(w.Proposals):] {
		v := rung(p, w, r)
		v.State, v.Why, v.Acts = "proposed", w.Proposals[i].Why, advice.Proposed(&r)
		list = append(list, v)
	}
	return list
}

func targets(p *studio.Pupil) []Target {
	out := []Target{}
	for _, r := range p.Standing.Rungs {
		if r.Target != "" && r.Target >= p.Today() {
			out = append(out, Target{r.Target, float64(r.Target.Sub(p.Today())) / 7, r.ID})
		}
	}
	return out
}

func rung(p *studio.Pupil, w studio.Way, r ladder.Rung) RungView {
	v := RungView{ID: r.ID, Item: r.Item.ID, Title: r.Item.Title, Strand: r.Strand, State: p.Standing.State(r), Bars: r.Item.Bars,
		HasScore: r.Item.HasScore, Taught: r.Taught, Foothold: r.Foothold, Polished: r.Polished, Ready: r.Ready() && p.Standing.Ache == nil, Held: r.Holding(), SpotGoal: int(judgement.SpotGoal), Target: r.Target,
		Brings: p.Graph.Names(r.Item.Brings), Points: []PointView{}, Spots: []SpotView{}, Parts: []PartView{}, Missing: r.Missing(), Refused: r.Refusal(), Why: []reason.Reason{}, Acts: []fact.Act{}, Plays: []PlayView{}, Steps: studio.List(r.Item.Steps)}
	if v.Missing == nil {
		v.Missing = []string{}
	}
	end := p.Today()
	if r.Foothold != nil {
		end = calendar.On(*r.Foothold)
		v.Silent = w.Known.Silent(r.ID, w.Now)
		v.Recall = w.Known.Recall[r.ID]
	} else {
		v.Lacks = p.Home.Lacks(p.Plays, r.Item)
	}
	if r.Taught != nil {
		v.Weeks = w.Lessons.Weeks(calendar.On(*r.Taught), end)
	}
	if load, ok := w.Loads[r.ID]; ok {
		v.Load = &load
	}
	if e, ok := w.Expect(r.ID); ok {
		v.Expected = &e
		v.Place = &climb.Range{Low: w.Marks.At(e.In.Low), Mid: w.Marks.At(e.In.Mid), High: w.Marks.At(e.In.High)}
	}
	for _, pt := range r.Points {
		v.Points = append(v.Points, PointView{pt.Key, pt.Name, pt.Own, pt.State, pt.Since})
	}
	for _, s := range r.Spots {
		v.Spots = append(v.Spots, SpotView{s.ID, s.Where, s.Goal, s.Done})
	}
	due := r.DuePart(p.Approach)
	for _, i := range r.InTurn(p.Approach) {
		part := r.Parts[i]
		v.Parts = append(v.Parts, PartView{part.ID, part.Name, part.Foothold != nil, i == due})
	}
	if v.State == ladder.Current {
		v.Piece, v.Deck = advice.OnPiece(&r, p.Approach), deck(p, r)
		for _, spec := range r.Exercises(p.Approach) {
			play := PlayView{spec.String(), p.In.Label(spec.Name())}
			if hands := spec.Usual().Hands; p.Plays.HandsApart() {
				play.Title += ", " + p.In.Label(reason.Said("hands."+string(hands)))
			}
			v.Plays = append(v.Plays, play)
		}
	}
	if n := len(r.Tries); n > 0 {
		last := r.Tries[n-1]
		v.LastTry = &TryView{last.At, last.Outcome, last.Why}
	}
	return v
}

// since says what moved before a way since the end of the day a week ago, which is that of the last lesson where
// lessons are weekly.
func since(p *studio.Pupil, w studio.Way) []reason.Reason {
	day := p.Today().Add(-6).Time()
	then := time.Date(day.Year(), day.Month(), day.Day(), 0, 0, 0, 0, p.Zone)
	return w.Since(p.AsStudent(p.Until(then), p.Approach, then))
}

// atOnce is how many cards a lesson is given at once.
const atOnce = 8

// deck is what the cards of a rung ask next; nil of a rung without.
func deck(p *studio.Pupil, r ladder.Rung) *DeckView {
	kinds, err := card.Parse(r.Item.Cards)
	if err != nil {
		return nil
	}
	h := card.Next(card.Deck(kinds, p.Plays), card.States(r.Answered, p.Room.Now), atOnce)
	v := &DeckView{Known: h.Known, Of: h.Of, Cards: []CardView{}}
	for _, c := range h.Cards {
		v.Cards = append(v.Cards, cardView(p, c, week.CardIn(p.Voice(), "student", c)))
	}
	return v
}

// cardView draws a card beside its words.
func cardView(p *studio.Pupil, c card.Card, line week.CardLine) CardView {
	v := CardView{CardLine: line, Stops: studio.List(c.Stops), Strings: len(p.Plays.Strings)}
	if len(c.Stops) == 0 {
		v.XML = string(musicxml.Write(c.Score))
	}
	return v
}
