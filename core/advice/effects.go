package advice

import (
	"fmt"
	"math"
	"slices"
	"strconv"
	"strings"

	"patientladder/core/judgement"
	"patientladder/core/lesson"
	"patientladder/core/reason"
	"patientladder/core/shelf"
	"patientladder/core/week"
)

// A Try is what one approach makes of a student's next lesson, week and ladder.
type Try struct {
	Way
	Lesson lesson.Plan
	Sheet  week.Sheet
	Begins *shelf.Item // where a placement would have the student begin; nil where that is not in question
}

// Effects says what another approach would change; where nothing would, it says that.
func Effects(was, is Try) []reason.Reason {
	out := lessonEffects(was.Lesson, is.Lesson)
	out = append(out, weekEffects(was.Sheet, is.Sheet)...)
	out = append(out, ladderEffects(was.Way, is.Way)...)
	if a, b := Treats(was.Approach, was.Age), Treats(is.Approach, is.Age); a != b {
		out = append(out, reason.Of("effect-treats", "to", map[bool]string{true: "counted", false: "music"}[b]))
	}
	if a, b := was.Approach.TalkWeeks(), is.Approach.TalkWeeks(); a != b {
		out = append(out, reason.Of("effect-talks", "weeks", strconv.Itoa(b)))
	}
	if a, b := was.Begins, is.Begins; a != nil && b != nil && a.ID != b.ID {
		out = append(out, reason.Of("effect-begin", "title", b.Title))
	}
	if len(out) == 0 {
		out = append(out, reason.Of("effect-none"))
	}
	return out
}

func lessonEffects(was, is lesson.Plan) []reason.Reason {
	var out []reason.Reason
	sum := func(p lesson.Plan) map[lesson.Kind]int {
		m := map[lesson.Kind]int{}
		for _, b := range p.Blocks {
			m[b.Kind] += b.Minutes
		}
		return m
	}
	a, b := sum(was), sum(is)
	for _, k := range lesson.Kinds {
		if a[k] != b[k] {
			out = append(out, reason.Of("effect-lesson", "kind", string(k), "from", strconv.Itoa(a[k]), "to", strconv.Itoa(b[k])))
		}
	}
	cues := func(p lesson.Plan) map[lesson.Kind][]reason.Label {
		m := map[lesson.Kind][]reason.Label{}
		for _, b := range p.Blocks {
			if len(m[b.Kind]) == 0 {
				m[b.Kind] = b.Schools
			}
		}
		return m
	}
	c, d := cues(was), cues(is)
	for _, k := range lesson.Kinds {
		if len(c[k]) == 0 {
			continue
		}
		for _, cue := range d[k] {
			if !slices.ContainsFunc(c[k], func(l reason.Label) bool { return l.Key == cue.Key }) {
				out = append(out, reason.Of("effect-cue", "kind", string(k), "cue", strings.TrimPrefix(cue.Key, "approach.")))
				break
			}
		}
	}
	asks := func(p lesson.Plan) string {
		for _, b := range p.Blocks {
			if b.Kind == lesson.Probe {
				return b.Title
			}
		}
		return ""
	}
	if first := asks(is); first != "" && first != asks(was) {
		out = append(out, reason.Of("effect-aims", "first", first))
	}
	return out
}

func weekEffects(was, is week.Sheet) []reason.Reason {
	var out []reason.Reason
	if math.Abs(was.Share-is.Share) >= judgement.ShareShift {
		out = append(out, reason.Of("effect-share", "from", percent(was.Share), "to", percent(is.Share)))
	}
	if was.Counting != is.Counting {
		out = append(out, reason.Of("effect-counts", "to", is.Counting))
	}
	hands := func(s week.Sheet) string {
		seen := []string{}
		for _, d := range s.Days {
			for _, t := range d.Tasks {
				if t.Hands != "" {
					seen = append(seen, t.Title+": "+t.Hands)
				}
			}
		}
		return strings.Join(seen, "; ")
	}
	if a, b := hands(was), hands(is); a != b {
		first, _, _ := strings.Cut(b, ";")
		out = append(out, reason.Of("effect-hands", "first", first))
	}
	tasks := func(s week.Sheet) int {
		n := 0
		for _, d := range s.Days {
			for _, t := range d.Tasks {
				if t.Skill != "" {
					n++
				}
			}
		}
		return n
	}
	if len(out) == 0 {
		out = lineEffect(was, is)
	}
	if a, b := tasks(was), tasks(is); a != b {
		out = append(out, reason.Of("effect-head-starts", "from", strconv.Itoa(a), "to", strconv.Itoa(b)))
	}
	return out
}

// lineEffect says the first line that the sheet would have and has not.
func lineEffect(was, is week.Sheet) []reason.Reason {
	stood := map[string]bool{}
	for _, d := range was.Days {
		for _, t := range d.Tasks {
			stood[t.Title+t.Says.What] = true
		}
	}
	for _, d := range is.Days {
		for _, t := range d.Tasks {
			if !stood[t.Title+t.Says.What] {
				return []reason.Reason{reason.Of("effect-line", "title", t.Title, "line", t.Says.What)}
			}
		}
	}
	for _, l := range was.Lines {
		stood[l.Says] = true
	}
	for _, l := range is.Lines {
		if !stood[l.Says] {
			return []reason.Reason{reason.Of("effect-each-time", "line", l.Says)}
		}
	}
	return nil
}

func ladderEffects(was, is Way) []reason.Reason {
	var out []reason.Reason
	line := func(w Way) (titles []string) {
		for _, q := range w.Proposals {
			titles = append(titles, q.Item.Title)
		}
		return
	}
	a, b := line(was), line(is)
	for i := range b {
		if i >= len(a) || a[i] != b[i] {
			out = append(out, reason.Of("effect-order", "place", fmt.Sprint(i+1), "title", b[i]))
			break
		}
	}
	if len(was.Moves) != len(is.Moves) {
		out = append(out, reason.Of("effect-moves", "from", strconv.Itoa(len(was.Moves)), "to", strconv.Itoa(len(is.Moves))))
	}
	for i, h := range is.Ahead {
		if i < len(was.Ahead) && h.Skill == was.Ahead[i].Skill && h.Ready != was.Ahead[i].Ready && h.Ready > 0 {
			out = append(out, reason.Of("effect-ready", "skill", h.Name, "weeks", strconv.Itoa(h.Ready)))
			break
		}
	}
	return out
}

func percent(x float64) string { return strconv.Itoa(int(math.Round(100 * x))) }
