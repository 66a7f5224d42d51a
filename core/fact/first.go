package fact

import (
	"encoding/json"
	"fmt"
	"strings"

	"patientladder/core/calendar"
)

// first is a fact in the first form: one struct for all kinds, in which a field
// meant what its kind made of it.
type first struct {
	Kind     string             `json:"kind"`
	Rung     string             `json:"rung"`
	Item     string             `json:"item"`
	Strand   string             `json:"strand"`
	After    string             `json:"after"`
	Part     string             `json:"part"`
	Skill    string             `json:"skill"`
	Point    string             `json:"point"`
	Spot     string             `json:"spot"`
	Outcome  string             `json:"outcome"`
	Count    int                `json:"count"`
	Minutes  int                `json:"minutes"`
	Day      calendar.Date      `json:"day"`
	To       calendar.Date      `json:"to"`
	Into     string             `json:"into"`
	Text     string             `json:"text"`
	Ref      string             `json:"ref"`
	Measures map[string]float64 `json:"measures"`
}

// liftFirst reads a body of the first form.
func liftFirst(raw []byte) (Body, error) {
	var f first
	if err := json.Unmarshal(raw, &f); err != nil {
		return nil, err
	}
	lift, known := lifts[f.Kind]
	if !known {
		return nil, fmt.Errorf("%q was never a kind of fact", f.Kind)
	}
	return lift(f), nil
}

// lifts turns each kind of the first form into a body of today's.
var lifts = map[string]func(first) Body{
	"rung_added":     func(f first) Body { return RungAdded{Item: f.Item, Strand: f.Strand, After: f.After} },
	"rung_moved":     func(f first) Body { return RungMoved{Rung: f.Rung, After: f.After} },
	"rung_parked":    func(f first) Body { return RungParked{f.Rung} },
	"rung_resumed":   func(f first) Body { return RungResumed{f.Rung} },
	"taught":         func(f first) Body { return Taught{f.Rung} },
	"point_held":     func(f first) Body { return PointHeld{f.Rung, f.Point} },
	"point_met":      func(f first) Body { return PointMarked{f.Rung, f.Point, Met} },
	"point_open":     func(f first) Body { return PointMarked{f.Rung, f.Point, Open} },
	"self_judged":    func(f first) Body { return SelfJudged{f.Rung, f.Point, f.Outcome} },
	"own_point":      func(f first) Body { return OwnPoint{f.Text} },
	"spot_noted":     func(f first) Body { return SpotNoted{f.Rung, f.Text, f.Count} },
	"spot_drilled":   func(f first) Body { return SpotDrilled{f.Rung, f.Spot, f.Count} },
	"foothold_tried": func(f first) Body { return FootholdTried{f.Rung, f.Part, f.Outcome, f.Text} },
	"polished":       func(f first) Body { return Polished{f.Rung} },
	"heard":          func(f first) Body { return Heard{f.Rung, f.Outcome} },
	"opened_with":    func(f first) Body { return OpenedWith{f.Rung} },
	"practised": func(f first) Body {
		if f.Rung != "" {
			return Played{f.Rung, f.Day, f.Minutes}
		}
		return Practised{f.Day, f.Minutes, f.Text}
	},
	"prepared":       func(f first) Body { return Prepared{f.Skill, f.Count} },
	"probed":         func(f first) Body { return Probed{f.Text, f.Outcome} },
	"before_book":    func(first) Body { return BeforeBook{} },
	"book_chosen":    func(f first) Body { return BookChosen{f.Text, f.Item} },
	"book_dropped":   func(f first) Body { return BookDropped{f.Text} },
	"target_set":     func(f first) Body { return TargetSet{f.Rung, f.Day} },
	"target_dropped": func(f first) Body { return TargetDropped{f.Rung} },
	"taste_asked":    func(f first) Body { return TasteAsked{f.Outcome} },
	"approach_set":   func(f first) Body { return ApproachSet{f.Text, f.Outcome} },
	"overruled":      func(f first) Body { return Overruled{f.Text, f.Outcome} },
	"seen":           func(f first) Body { return Seen{f.Text} },
	"noted":          func(f first) Body { return Noted{f.Rung, f.Text} },
	"lesson_opened":  func(f first) Body { return LessonOpened{f.Day} },
	"lesson_closed":  func(f first) Body { return LessonClosed{f.Day} },
	"lesson_missed":  func(f first) Body { return LessonMissed{Day: f.Day, Why: f.Text} },
	"lesson_moved":   func(f first) Body { return LessonMoved{f.Day, f.To, f.Text} },
	"lesson_extra":   func(f first) Body { return LessonExtra{f.Day, f.Text} },
	"lesson_remote":  func(f first) Body { return LessonRemote{f.Day, f.Outcome != "no"} },
	"plan_changed": func(f first) Body {
		switch f.Outcome {
		case "minutes":
			return BlockTimed{Day: f.Day, Block: f.Text, Minutes: f.Minutes}
		case "swap":
			return BlockSwapped{f.Day, f.Text, f.Into}
		case "after":
			return BlockMoved{f.Day, f.Text, f.After}
		case "drop":
			return BlockDropped{Day: f.Day, Block: f.Text}
		case "add":
			return BlockAdded{f.Day, f.Text}
		}
		return LessonLength{f.Day, f.Minutes}
	},
	"activity_done":  func(f first) Body { return ActivityDone{f.Text, f.Outcome, f.Count, f.Point} },
	"activity_asked": func(f first) Body { return ActivityAsked{f.Text} },
	"seat_measured": func(f first) Body {
		return SeatMeasured{f.Measures["stature"], f.Measures["elbow"], f.Measures["lowerLeg"]}
	},
	"mood_seen":      func(f first) Body { return MoodSeen{f.Outcome} },
	"went_well":      func(f first) Body { return WentWell{f.Rung, f.Text} },
	"pained":         func(f first) Body { return Pained{f.Outcome, f.Text} },
	"pain_cleared":   func(first) Body { return PainCleared{} },
	"days_set":       func(f first) Body { return DaysSet{firstWeekdays(f.Text), f.Minutes} },
	"question_asked": func(f first) Body { return QuestionAsked{f.Text} },
	"question_done":  func(f first) Body { return QuestionAnswered{f.Into} },
	"tripped":        func(f first) Body { return Tripped{f.Rung, f.Day, f.Text} },
	"ticked":         func(f first) Body { return Ticked{f.Day, "", f.Text, f.Rung} },
	"treat_set":      func(f first) Body { return TreatSet{f.Text, f.Outcome, f.Count} },
	"treat_dropped":  func(first) Body { return TreatDropped{} },
	"retracted":      func(f first) Body { return Retracted{f.Ref} },
}

// firstWeekdays reads days as they were written, "1 3 5"; what is no day is passed
// over.
func firstWeekdays(text string) []int {
	out, had := []int{}, [7]bool{}
	for _, d := range strings.Fields(text) {
		if len(d) == 1 && d[0] >= '0' && d[0] <= '6' && !had[d[0]-'0'] {
			had[d[0]-'0'] = true
			out = append(out, int(d[0]-'0'))
		}
	}
	return out
}

// FirstAuthor is who told a fact of the first form, which did not say: what only a
// family's page could make was the family's.
func FirstAuthor(b Body) Author {
	switch b.(type) {
	case Ticked, Practised, Tripped, QuestionAsked, TreatSet, TreatDropped:
		return Family
	}
	return Teacher
}
