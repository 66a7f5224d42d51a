package studio

import (
	"context"
	"sort"
	"strconv"
	"strings"
	"time"

	"patientladder/core/calendar"
	"patientladder/core/climb"
	"patientladder/core/ladder"
	"patientladder/core/reason"
	"patientladder/core/shelf"
	"patientladder/core/upkeep"
)

// A RungView is a rung as the screens show it.
type RungView struct {
	ID       string          `json:"id"`
	Item     string          `json:"item"`
	Title    string          `json:"title"`
	Strand   shelf.Strand    `json:"strand" enum:"book,technique,reading,repertoire"`
	State    ladder.State    `json:"state" enum:"ahead,current,secure,parked"`
	Bars     int             `json:"bars"`
	HasScore bool            `json:"hasScore"`
	Brings   []string        `json:"brings" nullable:"false" doc:"names of skills met here first"`
	Taught   *time.Time      `json:"taught,omitempty"`
	Foothold *time.Time      `json:"foothold,omitempty"`
	Polished bool            `json:"polished"`
	Weeks    float64         `json:"weeks" doc:"taught weeks from first taught to the foothold, or until now"`
	Silent   int             `json:"silent" doc:"days since a secure piece was last heard"`
	Recall   float64         `json:"recall" doc:"how likely a secure piece is still played well, 0 to 1"`
	Ready    bool            `json:"ready" doc:"every point is met"`
	Held     string          `json:"held" doc:"key of the point held in mind"`
	Points   []PointView     `json:"points" nullable:"false"`
	Spots    []SpotView      `json:"spots" nullable:"false"`
	Parts    []PartView      `json:"parts" nullable:"false"`
	Missing  []string        `json:"missing" nullable:"false" doc:"what is left to work for"`
	Refused  *reason.Reason  `json:"refused,omitempty" doc:"why a try for the foothold would be turned back"`
	LastTry  *TryView        `json:"lastTry,omitempty"`
	Expected *climb.Expected `json:"expected,omitempty" doc:"of a current or future rung"`
	Place    *climb.Range    `json:"place,omitempty" doc:"calendar weeks from now to the expected foothold"`
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
	Name string `json:"name"`
	Done bool   `json:"done"`
}

// A TryView is the last try for a foothold.
type TryView struct {
	At      time.Time      `json:"at"`
	Outcome string         `json:"outcome" enum:"granted,not-yet,refused"`
	Why     *reason.Reason `json:"why,omitempty"`
}

// A Suggestion is what might follow, and why.
type Suggestion struct {
	Band  string        `json:"band" enum:"ahead,now,upkeep,warn"`
	Rung  string        `json:"rung"`
	Title string        `json:"title"`
	Why   reason.Reason `json:"why"`
}

// A LadderView is a student's ladder.
type LadderView struct {
	Student     StudentCard     `json:"student"`
	Today       calendar.Date   `json:"today"`
	Free        []calendar.Span `json:"free" nullable:"false" doc:"spans without lessons, terms' gaps included"`
	Rungs       []RungView      `json:"rungs" nullable:"false" doc:"lane by lane, from the foot up"`
	Suggestions []Suggestion    `json:"suggestions" nullable:"false"`
}

// Ladder shows where a student stands and what comes.
func (a *App) Ladder(ctx context.Context, who Who, student string) (LadderView, error) {
	p, err := a.pupil(ctx, who, student)
	if err != nil {
		return LadderView{}, err
	}
	v := LadderView{Student: p.card(p.Student, p.lessonDay()), Today: p.today(), Free: p.gaps(), Rungs: p.rungs()}
	v.Suggestions = p.suggestions(v.Rungs)
	return v, nil
}

// rungs shows all rungs of the standing.
func (p *pupil) rungs() []RungView {
	expected := map[string]climb.Expected{}
	for _, e := range climb.Forecast(p.standing, p.row.Calendar, p.Slot, p.today()) {
		expected[e.Rung] = e
	}
	list := []RungView{}
	for _, r := range p.standing.Rungs {
		v := p.rung(r)
		if e, ok := expected[r.ID]; ok {
			v.Expected = &e
			at := func(w float64) float64 { return p.row.Calendar.Position(p.Slot, p.today(), w) }
			v.Place = &climb.Range{Low: at(e.In.Low), Mid: at(e.In.Mid), High: at(e.In.High)}
		}
		list = append(list, v)
	}
	return list
}

func (p *pupil) rung(r ladder.Rung) RungView {
	v := RungView{ID: r.ID, Item: r.Item.ID, Title: r.Item.Title, Strand: r.Strand, State: p.standing.State(r), Bars: r.Item.Bars,
		HasScore: r.Item.HasScore, Taught: r.Taught, Foothold: r.Foothold, Polished: r.Polished, Ready: r.Ready(), Held: r.Holding(),
		Brings: skillNames(r.Item.Brings), Points: []PointView{}, Spots: []SpotView{}, Parts: []PartView{}, Missing: r.Missing(), Refused: r.Refusal()}
	if v.Missing == nil {
		v.Missing = []string{}
	}
	end := p.today()
	if r.Foothold != nil {
		end = calendar.On(*r.Foothold)
		v.Silent = p.today().Sub(calendar.On(r.LastHeard()))
		v.Recall = upkeep.Recall(r, p.now)
	}
	if r.Taught != nil {
		v.Weeks = climb.Weeks(p.row.Calendar, p.Slot, calendar.On(*r.Taught), end)
	}
	for _, pt := range r.Points {
		v.Points = append(v.Points, PointView{pt.Key, pt.Name, pt.Own, pt.State, pt.Since})
	}
	for _, s := range r.Spots {
		v.Spots = append(v.Spots, SpotView{s.ID, s.Where, s.Goal, s.Done})
	}
	for _, part := range r.Parts {
		v.Parts = append(v.Parts, PartView{part.Name, part.Foothold != nil})
	}
	if n := len(r.Tries); n > 0 {
		last := r.Tries[n-1]
		v.LastTry = &TryView{last.At, last.Outcome, last.Why}
	}
	return v
}

// gaps lists the free spans and what lies between terms.
func (p *pupil) gaps() []calendar.Span {
	out := append([]calendar.Span{}, p.row.Calendar.Free...)
	terms := append([]calendar.Span{}, p.row.Calendar.Terms...)
	sort.Slice(terms, func(i, j int) bool { return terms[i].From < terms[j].From })
	for i := 1; i < len(terms); i++ {
		if from, to := terms[i-1].To.Add(1), terms[i].From.Add(-1); from <= to {
			out = append(out, calendar.Span{Name: "between terms", From: from, To: to})
		}
	}
	return out
}

// suggestions says what might follow: pieces ready to try, those past their
// range, a first lesson that waits, the secure piece most nearly forgotten; then what
// each piece in hand is worked at for.
func (p *pupil) suggestions(rungs []RungView) []Suggestion {
	out, hand := []Suggestion{}, []Suggestion{}
	placed := false
	var fading *RungView
	for i, r := range rungs {
		switch r.State {
		case ladder.Current:
			placed = true
			switch {
			case r.Ready:
				out = append(out, Suggestion{"now", r.ID, r.Title, reason.Of("ready-to-try", "title", r.Title, "weeks", weeks(r.Weeks))})
			case r.Expected != nil && r.Expected.Past:
				out = append(out, Suggestion{"warn", r.ID, r.Title, reason.Of("past-its-range", "title", r.Title, "weeks", weeks(r.Weeks))})
			case r.Taught == nil:
				out = append(out, Suggestion{"now", r.ID, r.Title, reason.Of("first-lesson", "title", r.Title)})
			default:
				hand = append(hand, Suggestion{"now", r.ID, r.Title, reason.Of("in-hand", "title", r.Title, "missing", strings.Join(r.Missing, ", "))})
			}
		case ladder.Ahead:
			placed = true
		case ladder.Secure:
			if r.Recall < upkeep.Faded && (fading == nil || r.Recall < fading.Recall) {
				fading = &rungs[i]
			}
		}
	}
	if fading != nil {
		out = append(out, Suggestion{"upkeep", fading.ID, fading.Title,
			reason.Of("fading", "title", fading.Title, "recall", strconv.Itoa(int(100*fading.Recall)), "days", strconv.Itoa(fading.Silent))})
	}
	if !placed {
		out = append(out, Suggestion{"ahead", "", "", reason.Of("nothing-placed")})
	}
	return append(out, hand...)
}

func weeks(w float64) string { return strconv.Itoa(int(w + 0.5)) }
