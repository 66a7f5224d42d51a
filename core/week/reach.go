package week

import (
	"slices"
	"strings"

	"patientladder/core/calendar"
	"patientladder/core/reason"
)

const (
	// longest is how many days a sheet runs on where the next lesson is far off.
	longest = 42
	// fortnight is how many days a sheet covers where no next lesson is known, and by how
	// many it goes on when they are over.
	fortnight = 14
	// shown is how many days of a sheet are told one by one; the others are summed up.
	shown = 7
)

// Reach returns to which lesson the sheet of a lesson runs, as it looks on a day, and its
// last day. A lesson that has gone by without a word is waited for no longer; where none is
// known the sheet covers a fortnight, and in term another when that is over.
func Reach(c calendar.Calendar, s calendar.Slot, from, today calendar.Date) (next, through calendar.Date) {
	next = c.Next(s, max(from, today.Add(-1)))
	if next == "" {
		through = from.Add(fortnight)
		for through < today && c.Teaching(through.Add(1)) {
			through = through.Add(fortnight)
		}
		return "", through
	}
	most := from.Add(longest)
	for most < today.Add(shown) {
		most = most.Add(fortnight)
	}
	return next, min(next.Add(-1), most)
}

// Ends returns the last day of a sheet.
func (sh Sheet) Ends() calendar.Date {
	if len(sh.Days) == 0 {
		return sh.From
	}
	return sh.Days[len(sh.Days)-1].Date
}

// Extend returns a sheet as it was given, on to the last day of one that was written anew
// for the same lesson, or only so far: the days that both have stay as they were.
func Extend(was, fresh Sheet) Sheet {
	days := was.Days
	if len(was.Drafted) > 0 { // the teacher's word is put on it again
		days = was.Drafted
	}
	ends := was.Ends()
	was.Next, was.Drafted = fresh.Next, nil
	was.Days = slices.Concat(slices.DeleteFunc(slices.Clone(days), func(d Day) bool { return d.Date > fresh.Ends() }),
		slices.DeleteFunc(slices.Clone(fresh.Days), func(d Day) bool { return d.Date <= ends }))
	was.share()
	return was
}

// Fold returns a sheet as it is shown on a day: a week of it is told day by day, the
// lesson's own or, once that is over, the one that begins on the day; the rest is folded.
func (sh Sheet) Fold(today calendar.Date) Sheet {
	first := sh.From
	if today >= sh.From.Add(shown) && today <= sh.Ends() {
		first = today
	}
	sh.Days = slices.Clone(sh.Days)
	for i := range sh.Days {
		sh.Days[i].Folded = sh.Days[i].Date < first || sh.Days[i].Date >= first.Add(shown)
	}
	return sh
}

// A Later is what some days after those that are told one by one hold, in short.
type Later struct {
	From   calendar.Date `json:"from"`
	To     calendar.Date `json:"to"`
	Again  bool          `json:"again" doc:"the days of the first week once more, in their order"`
	Titles []string      `json:"titles" doc:"what is practised on some of the days"`
	Says   string        `json:"says"`
}

// Later sums up the folded days that come after the others, run by run.
func (sh Sheet) Later(v Voice) []Later {
	var out []Later
	open := false
	for _, d := range sh.Days {
		open = open || !d.Folded
		if !open || !d.Folded {
			continue
		}
		if n := len(out); n == 0 || out[n-1].Again != d.Again {
			out = append(out, Later{From: d.Date, Again: d.Again})
		}
		l := &out[len(out)-1]
		l.To = d.Date
		for _, t := range d.Tasks {
			if !slices.Contains(l.Titles, t.Title) {
				l.Titles = append(l.Titles, t.Title)
			}
		}
	}
	out = slices.DeleteFunc(out, func(l Later) bool { return len(l.Titles) == 0 })
	for i := range out {
		l := &out[i]
		code := "later-lighter"
		if l.Again {
			code = "later-again"
		}
		l.Says = teller{v, sh.Reader}.told(reason.Of(code, "until", string(l.To), "titles", strings.Join(l.Titles, ", ")))
	}
	return out
}
