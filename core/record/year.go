package record

import (
	"cmp"
	"maps"
	"slices"

	"patientladder/core/calendar"
	"patientladder/core/fact"
	"patientladder/core/home"
	"patientladder/core/ladder"
	"patientladder/core/lesson"
	"patientladder/core/skill"
	"patientladder/core/week"
)

// Weeks is how many weeks a picture of a year shows.
const Weeks = 52

// A Year is what a run of weeks brought a student, week by week, as a picture shows it.
type Year struct {
	Weeks  []Week        `json:"weeks"`
	Points []PointMarks  `json:"points" doc:"standing points that were marked in these weeks"`
	Grown  []Measurement `json:"grown" doc:"the student as measured, up to the end of these weeks"`
	Counts Counts        `json:"counts" doc:"of all these weeks"`
	Spent  Spent         `json:"spent" doc:"in all these weeks"`
}

// A Week is one of them, from Monday to Sunday.
type Week struct {
	From      calendar.Date   `json:"from" doc:"its Monday"`
	Term      bool            `json:"term" doc:"the studio taught in it"`
	Lessons   []calendar.Date `json:"lessons" doc:"given"`
	Missed    []calendar.Date `json:"missed"`
	Days      int             `json:"days" doc:"on which something was practised"`
	Asked     int             `json:"asked" doc:"days on which a sheet asked for it"`
	Felt      map[string]int  `json:"felt" doc:"how often each feeling was told"`
	Light     int             `json:"light" doc:"feelings that speak for enjoyment"`
	Dull      int             `json:"dull" doc:"feelings that speak against it"`
	Footholds []Won           `json:"footholds"`
	Polished  []string        `json:"polished" doc:"titles"`
	Heard     []string        `json:"heard" doc:"titles of old pieces that were heard in lessons"`
	Skills    []string        `json:"skills" doc:"names of those that came with the footholds"`
	Sheet     calendar.Date   `json:"sheet" doc:"day of the lesson that gave the last sheet for it; empty for none"`
	Spent     Spent           `json:"spent" doc:"minutes of its lessons and of their sheets"`
}

// Spent are the minutes of a lesson, and of the sheet that followed it.
type Spent struct {
	Lesson Bands `json:"lesson" doc:"as it was planned when it began"`
	Asked  Bands `json:"asked" doc:"on the sheet"`
	Ticked Bands `json:"ticked" doc:"of the lines that were ticked, as often as they were"`
}

// SpentOn counts the minutes of a lesson's plan and its sheet by bands; ticks says how often each
// line was ticked.
func SpentOn(plan lesson.Plan, sheet week.Sheet, ticks map[string]int) Spent {
	var out Spent
	for _, b := range plan.Blocks {
		out.Lesson.Add(b.Band, b.Minutes)
	}
	left := maps.Clone(ticks)
	for _, day := range sheet.Days {
		for _, t := range day.Tasks {
			out.Asked.Add(t.Band, t.Minutes)
			if left[t.Key] > 0 {
				left[t.Key]--
				out.Ticked.Add(t.Band, t.Minutes)
			}
		}
	}
	return out
}

func (s *Spent) add(t Spent) {
	for into, from := range map[*Bands]Bands{&s.Lesson: t.Lesson, &s.Asked: t.Asked, &s.Ticked: t.Ticked} {
		into.Now, into.Upkeep, into.Ahead = into.Now+from.Now, into.Upkeep+from.Upkeep, into.Ahead+from.Ahead
	}
}

// Bands are minutes by the band of the work.
type Bands struct {
	Now    int `json:"now"`
	Upkeep int `json:"upkeep"`
	Ahead  int `json:"ahead"`
}

// Add adds minutes to a band; what has none is left out.
func (b *Bands) Add(band string, minutes int) {
	switch band {
	case "now":
		b.Now += minutes
	case "upkeep":
		b.Upkeep += minutes
	case "ahead":
		b.Ahead += minutes
	}
}

// Counts sum up the weeks.
type Counts struct {
	Lessons   int `json:"lessons"`
	Missed    int `json:"missed"`
	Footholds int `json:"footholds"`
	Polished  int `json:"polished"`
	Heard     int `json:"heard"`
	Skills    int `json:"skills"`
	Days      int `json:"days"`
	Asked     int `json:"asked"`
}

// A PointMarks is a standing point, with its marks on pieces.
type PointMarks struct {
	Name  string      `json:"name"`
	Gone  bool        `json:"gone" doc:"it was met at first often enough, and is minded no more"`
	Marks []PointMark `json:"marks" doc:"the first of each piece, in order"`
}

// A PointMark is the first mark of a standing point on a piece.
type PointMark struct {
	Day   calendar.Date `json:"day"`
	Title string        `json:"title"`
	Met   bool          `json:"met"`
}

// A Measurement is a student as measured on a day, in cm; 0 for what was not.
type Measurement struct {
	Day      calendar.Date `json:"day"`
	Stature  float64       `json:"stature"`
	Elbow    float64       `json:"elbow"`
	LowerLeg float64       `json:"lowerLeg"`
}

// A Source is what a year is told from.
type Source struct {
	Standing ladder.Standing
	Facts    []fact.Fact // all of the student
	Graph    skill.Graph
	Presumed []string // skills that were taken for granted where the student began
	Calendar calendar.Calendar
	Spent    map[calendar.Date]Spent // by the day of the lesson
	Last     calendar.Date           // a day of the last week
	Today    calendar.Date           // nothing is asked of later days
}

// YearOf tells the weeks up to that of a day.
func YearOf(in Source) Year {
	first := in.Last.Monday().Add(-7 * (Weeks - 1))
	span := calendar.Span{From: first, To: first.Add(7*Weeks - 1)}
	y := Year{Weeks: make([]Week, Weeks), Points: []PointMarks{}, Grown: []Measurement{}}
	for i := range y.Weeks {
		from := first.Add(7 * i)
		w := Week{From: from, Lessons: []calendar.Date{}, Missed: []calendar.Date{}, Felt: map[string]int{}, Footholds: []Won{}, Polished: []string{}, Heard: []string{}, Skills: []string{}}
		for d := range 7 {
			w.Term = w.Term || in.Calendar.Teaching(from.Add(d))
		}
		w.Days = len(home.Days(in.Standing, from, from.Add(6)))
		w.Asked = len(home.Asked(in.Standing, from, min(from.Add(6), in.Today)))
		y.Weeks[i] = w
	}
	weekOf := func(d calendar.Date) *Week {
		if !span.Holds(d) {
			return nil
		}
		return &y.Weeks[d.Sub(first)/7]
	}
	for _, day := range slices.Sorted(maps.Keys(in.Standing.Closed)) {
		if w := weekOf(day); w != nil {
			w.Lessons, w.Sheet = append(w.Lessons, day), day
			w.Spent.add(in.Spent[day])
			y.Spent.add(in.Spent[day])
		}
		if w := weekOf(day.Add(7)); w != nil && w.Sheet == "" {
			w.Sheet = day // until a later one is given
		}
	}
	for _, day := range slices.Sorted(maps.Keys(in.Standing.Missed)) {
		if w := weekOf(day); w != nil {
			w.Missed = append(w.Missed, day)
		}
	}
	for _, won := range Footholds(in.Standing) {
		if w := weekOf(calendar.On(won.At)); w != nil {
			w.Footholds = append(w.Footholds, won)
		}
	}
	for _, gain := range gains(in.Standing, in.Presumed) {
		if w := weekOf(gain.day); w != nil {
			w.Skills = append(w.Skills, in.Graph.Name(gain.skill))
		}
	}
	for _, p := range in.Standing.Practice {
		if w := weekOf(p.Day); w != nil && p.Feel != "" {
			w.Felt[p.Feel]++
			switch home.Speaks(p.Feel) {
			case home.Much:
				w.Light++
			case home.Little:
				w.Dull++
			}
		}
	}
	y.tell(in, span, weekOf)
	for _, w := range y.Weeks {
		c := &y.Counts
		c.Lessons, c.Missed, c.Footholds, c.Polished = c.Lessons+len(w.Lessons), c.Missed+len(w.Missed), c.Footholds+len(w.Footholds), c.Polished+len(w.Polished)
		c.Heard, c.Skills, c.Days, c.Asked = c.Heard+len(w.Heard), c.Skills+len(w.Skills), c.Days+w.Days, c.Asked+w.Asked
	}
	return y
}

// tell adds what only the facts hold, with their days: what was polished and heard, standing
// points and measures.
func (y *Year) tell(in Source, span calendar.Span, weekOf func(calendar.Date) *Week) {
	points := map[string]*PointMarks{}
	marked := map[[2]string]bool{} // by point and rung
	ladder.InOrder(in.Facts, func(f fact.Fact) {
		day := calendar.On(f.At)
		switch b := f.Body.(type) {
		case fact.Polished:
			if r, there := in.Standing.Rung(b.Rung); there && weekOf(day) != nil {
				weekOf(day).Polished = append(weekOf(day).Polished, r.Item.Title)
			}
		case fact.Heard:
			if r, there := in.Standing.Rung(b.Rung); there && weekOf(day) != nil {
				weekOf(day).Heard = append(weekOf(day).Heard, r.Item.Title)
			}
		case fact.SeatMeasured:
			if day <= span.To {
				y.Grown = append(y.Grown, Measurement{day, b.Stature, b.Elbow, b.LowerLeg})
			}
		case fact.PointMarked:
			own := slices.IndexFunc(in.Standing.Own, func(o ladder.OwnMark) bool { return o.Key == b.Point })
			r, there := in.Standing.Rung(b.Rung)
			if own < 0 || !there || marked[[2]string{b.Point, b.Rung}] {
				return
			}
			marked[[2]string{b.Point, b.Rung}] = true
			if !span.Holds(day) {
				return
			}
			p := cmp.Or(points[b.Point], &PointMarks{Name: in.Standing.Own[own].Name, Gone: in.Standing.Own[own].Gone})
			points[b.Point] = p
			p.Marks = append(p.Marks, PointMark{day, r.Item.Title, b.State == fact.Met})
		}
	})
	for _, o := range in.Standing.Own {
		if p := points[o.Key]; p != nil {
			y.Points = append(y.Points, *p)
		}
	}
}
