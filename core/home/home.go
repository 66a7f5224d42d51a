// Package home reads what families tell of days at home: which days were practised,
// how it feels, and what to try. Every rule that asks whether a day was practised,
// whether practice is dull, or whether a home is silent asks here.
//
// It takes a standing and days, and gives days, counts and answers with structured
// reasons. What counts as much and as joyless is our judgement; the four answers are
// common practice, no source.
package home

import (
	"slices"
	"strconv"

	"patientladder/core/calendar"
	"patientladder/core/fact"
	"patientladder/core/judgement"
	"patientladder/core/ladder"
	"patientladder/core/reason"
	"patientladder/core/shelf"
)

// A Level is much, little, or not told.
type Level string

// The levels.
const (
	Much   Level = "much"
	Little Level = "little"
	Untold Level = "untold"
)

// An Answer is what four weeks at home ask of the teacher.
type Answer struct {
	Practice Level           `json:"practice" enum:"much,little,untold"`
	Joy      Level           `json:"joy" enum:"much,little,untold"`
	Days     int             `json:"days" doc:"practised in these weeks"`
	Asked    int             `json:"asked" doc:"days that were asked for"`
	Words    map[string]int  `json:"words" doc:"how often each feeling was told"`
	Try      []reason.Reason `json:"try" doc:"what to try, the first first"`
	Talk     Talk            `json:"talk" doc:"the next check-in"`
}

// Window is how many days back a home is asked about: past it, it has told nothing
// lately.
const Window = 28

// joyful and joyless are the feelings that speak for and against enjoyment; fine
// and hard say neither.
var joyful, joyless = []string{"fun", "easy"}, []string{"dull"}

// Speaks says whether a feeling speaks for enjoyment, much, or against it, little.
func Speaks(feeling string) Level {
	switch {
	case slices.Contains(joyful, feeling):
		return Much
	case slices.Contains(joyless, feeling):
		return Little
	}
	return Untold
}

// Days lists the days from one to another, both among them, on which something was
// practised: told, or ticked on a sheet.
func Days(s ladder.Standing, from, to calendar.Date) []calendar.Date {
	var days []calendar.Date
	for _, p := range s.Practice {
		if p.Day >= from && p.Day <= to {
			days = append(days, p.Day)
		}
	}
	for _, t := range s.Ticks {
		if t.Day >= from && t.Day <= to {
			days = append(days, t.Day)
		}
	}
	slices.Sort(days)
	return slices.Compact(days)
}

// Silent reports whether a home has told of nothing lately.
func Silent(s ladder.Standing, today calendar.Date) bool {
	return len(Days(s, today.Add(1-Window), today)) == 0
}

// Unanswered reports whether a home is silent though a sheet of these weeks has run its week:
// in holidays nothing was asked, and nothing is missing.
func Unanswered(s ladder.Standing, today calendar.Date) bool {
	for day := range s.Closed {
		if ago := today.Sub(day); ago >= 7 && ago < Window {
			return Silent(s, today)
		}
	}
	return false
}

// Minutes returns the mean of the minutes told of days from one to another, and of how
// many days they were told.
func Minutes(s ladder.Standing, from, to calendar.Date) (mean float64, days int) {
	sum := 0
	for _, p := range s.Practice {
		if p.Minutes > 0 && p.Day >= from && p.Day <= to {
			sum, days = sum+p.Minutes, days+1
		}
	}
	if days == 0 {
		return 0, 0
	}
	return float64(sum) / float64(days), days
}

// Towards counts what was reached towards a treat since it was named: the footholds that
// the teacher granted, of which a huge piece's is worth more, or days practised.
func Towards(t ladder.Treat, s ladder.Standing) int {
	if t.Counts != fact.Footholds {
		return len(Days(s, calendar.On(t.Since), calendar.Last))
	}
	n := 0
	for _, r := range s.Rungs {
		if r.Foothold != nil && !r.Foothold.Before(t.Since) {
			n += worth(r.Item)
		}
	}
	return n
}

// worth is how many ordinary pieces one counts for.
func worth(it shelf.Item) int {
	return min(max(it.Bars/int(judgement.HugePiece), 1), mostWorth)
}

// mostWorth is what the longest piece counts for.
const mostWorth = 3

// Words counts how often each feeling was told of days from one to another, both among them.
func Words(s ladder.Standing, from, to calendar.Date) map[string]int {
	words := map[string]int{}
	for _, p := range s.Practice {
		if p.Feel != "" && p.Day >= from && p.Day <= to {
			words[p.Feel]++
		}
	}
	return words
}

// Feelings returns how often each feeling was told lately, and whether they speak for
// or against enjoyment. Quiet ones hide, and one mood is no opinion: only repeated
// words count.
func Feelings(s ladder.Standing, today calendar.Date) (words map[string]int, joy Level) {
	words = Words(s, today.Add(1-Window), today)
	told := func(list []string) (n int) {
		for _, word := range list {
			n += words[word]
		}
		return n
	}
	switch dull, fun := told(joyless), told(joyful); {
	case dull >= int(judgement.DullWords) && dull > fun:
		return words, Little
	case fun > dull:
		return words, Much
	}
	return words, Untold
}

// Read reads the four weeks before a day, of a student of some years.
func Read(s ladder.Standing, today calendar.Date, age int) Answer {
	from := today.Add(1 - Window)
	a := Answer{Practice: Untold, Days: len(Days(s, from, today)), Asked: len(Asked(s, from, today)), Try: []reason.Reason{}}
	a.Words, a.Joy = Feelings(s, today)
	if a.Days > 0 && s.Ache == nil {
		a.Practice = Little
		if float64(a.Days) >= judgement.PracticeMuch*float64(a.Asked) {
			a.Practice = Much
		}
	}
	if s.Ache == nil { // no word about practice to one who may not play
		a.answer(age)
	}
	return a
}

// Asked lists the days from one to another, both among them, on which a sheet asked
// for practice and the family practises. While playing is forbidden nothing is asked.
func Asked(s ladder.Standing, from, to calendar.Date) []calendar.Date {
	var days []calendar.Date
	for day := from; day <= to; day = day.Add(1) {
		if s.HomeDays.On(day) && onSheet(s, day) && !s.Resting(day) {
			days = append(days, day)
		}
	}
	return days
}

// onSheet reports whether a week sheet asked for practice on a day: one of the six
// after a lesson.
func onSheet(s ladder.Standing, day calendar.Date) bool {
	for d := 1; d <= 6; d++ {
		if _, closed := s.Closed[day.Add(-d)]; closed {
			return true
		}
	}
	return false
}

// answer says what to try for each of the four.
func (a *Answer) answer(age int) {
	try := func(code string, pairs ...string) { a.Try = append(a.Try, reason.Of(code, pairs...)) }
	dull := strconv.Itoa(a.Words["dull"])
	switch {
	case a.Practice == Untold:
		try("home-untold")
	case a.Practice == Much && a.Joy == Much:
		try("home-feed")
	case a.Practice == Much && a.Joy == Little:
		try("home-joyless", "times", dull)
		try("home-ask-parts")
		try("home-choose-together")
	case a.Practice == Little && a.Joy == Little:
		try("home-talk", "times", dull)
	case a.Practice == Little:
		try("home-habit")
		try("home-smaller")
	}
	if a.Joy == Untold && a.Practice != Untold {
		try("home-ask-feeling")
	}
	if a.Joy == Little && age >= 13 && age < 18 {
		try("home-three-way")
	}
}
