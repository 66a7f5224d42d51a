// Package practice reads what families tell of days at home: how much is practised,
// how it feels, apart from each other, and what to try.
//
// It takes a standing and a day and gives an answer with structured reasons. What
// counts as much and as joyless is our judgement; the four answers are common
// practice, no source.
package practice

import (
	"slices"
	"strconv"

	"patientladder/core/calendar"
	"patientladder/core/judgement"
	"patientladder/core/ladder"
	"patientladder/core/reason"
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
	Try      []reason.Reason `json:"try" nullable:"false" doc:"what to try, the first first"`
}

// window is how many days are looked at.
const window = 28

// joyful and joyless are the feelings that speak for and against enjoyment; fine
// and hard say neither.
var joyful, joyless = []string{"fun", "easy"}, []string{"dull"}

// Read reads the four weeks before a day, of a student of some years.
func Read(s ladder.Standing, today calendar.Date, age int) Answer {
	a := Answer{Practice: Untold, Joy: Untold, Words: map[string]int{}, Try: []reason.Reason{}}
	days := map[calendar.Date]bool{}
	for _, p := range s.Practice {
		if ago := today.Sub(p.Day); ago >= 0 && ago < window {
			days[p.Day] = true
			if p.Feel != "" {
				a.Words[p.Feel]++
			}
		}
	}
	for _, t := range s.Ticks {
		if ago := today.Sub(t.Day); ago >= 0 && ago < window {
			days[t.Day] = true
		}
	}
	a.Days = len(days)
	for d := range window {
		if day := today.Add(-d); s.HomeDays.On(day) && onSheet(s, day) {
			a.Asked++
		}
	}
	if a.Days > 0 {
		a.Practice = Little
		if float64(a.Days) >= judgement.PracticeMuch*float64(a.Asked) {
			a.Practice = Much
		}
	}
	told := func(words []string) (n int) {
		for word, times := range a.Words {
			if slices.Contains(words, word) {
				n += times
			}
		}
		return n
	}
	// quiet ones hide, and one mood is no opinion: only repeated words count
	switch dull, fun := told(joyless), told(joyful); {
	case dull >= int(judgement.DullWords) && dull > fun:
		a.Joy = Little
	case fun > dull:
		a.Joy = Much
	}
	a.answer(age)
	return a
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
