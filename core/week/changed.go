package week

import (
	"slices"
	"strings"

	"patientladder/core/calendar"
	"patientladder/core/reason"
)

// mostChanged is how many changes are told one by one; where there are more, the sheet is
// told to be another.
const mostChanged = 6

// Changed says what a sheet asks otherwise than one that its reader had before: lines that
// are new, that are gone, that say something else or stand on other days.
func Changed(v Voice, before, after Sheet) []Line {
	var out []Line
	say := func(code string, t Task, now string) {
		if now != "" && t.Title == loose { // it has no title to tell
			code += "-own"
		}
		out = append(out, Line{Reason: reason.Of(code, "title", t.Title, "says", now)})
	}
	ends := min(before.Ends(), after.Ends()) // a sheet that goes on is told as such, not line by line
	switch {
	case before.Next == after.Next:
	case after.Next == "":
		out = append(out, Line{Reason: reason.Of("changed-no-lesson", "until", string(after.Ends()))})
	default:
		out = append(out, Line{Reason: reason.Of("changed-lesson", "day", string(after.Next), "until", string(after.Ends()))})
	}
	for _, key := range after.Keys() {
		is, _ := after.Line(key)
		was, there := before.Line(key)
		switch {
		case !there && len(after.stands(key, ends)) == 0: // of the days that were added
		case !there:
			say("changed-new", is, is.Says.What)
		case was.Says.What != is.Says.What:
			say("changed-line", is, is.Says.What)
		case !slices.Equal(before.stands(key, ends), after.stands(key, ends)):
			say("changed-days", is, "")
		}
	}
	for _, key := range before.Keys() {
		if _, there := after.Line(key); !there && len(before.stands(key, ends)) > 0 {
			was, _ := before.Line(key)
			say("changed-gone", was, was.Says.What)
		}
	}
	if len(out) > mostChanged {
		out = []Line{{Reason: reason.Of("changed-much")}}
	}
	for i := range out {
		out[i].Says = strings.TrimSpace(ended(strings.TrimSuffix(teller{v, after.Reader}.told(out[i].Reason), ".")))
	}
	return out
}

// stands are the days up to one on which a line stands.
func (sh Sheet) stands(key string, until calendar.Date) []calendar.Date {
	var out []calendar.Date
	for _, d := range sh.Days {
		if d.Date <= until && slices.ContainsFunc(d.Tasks, func(t Task) bool { return t.Key == key }) {
			out = append(out, d.Date)
		}
	}
	return out
}
