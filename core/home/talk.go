package home

import (
	"strconv"

	"patientladder/core/approach"
	"patientladder/core/calendar"
	"patientladder/core/judgement"
	"patientladder/core/ladder"
	"patientladder/core/reason"
)

// A Talk is the next check-in with a family: planned, not left to crises. Common practice, no source.
type Talk struct {
	Due    calendar.Date   `json:"due" doc:"empty where none is planned"`
	Over   bool            `json:"over" doc:"the day has come"`
	With   string          `json:"with" enum:"family,student,both" doc:"with whom: of teenagers both, a grown-up alone"`
	About  []reason.Reason `json:"about" doc:"what to talk about, the first first"`
	Agreed []Agreement     `json:"agreed" doc:"at the check-ins before, the last first"`
}

// An Agreement is what was agreed, and what came of it.
type Agreement struct {
	Day    calendar.Date `json:"day"`
	With   string        `json:"with" enum:"family,student,both"`
	Text   string        `json:"text"`
	Before float64       `json:"before" doc:"days practised a week in the four weeks before it"`
	After  float64       `json:"after" doc:"in the four weeks after it, as far as they have come; -1 while a week has not"`
}

// Next plans the check-in of a student of some years: first some weeks after the first lesson.
func Next(s ladder.Standing, a approach.Approach, today calendar.Date, age int) Talk {
	t := Talk{With: "family", About: []reason.Reason{}, Agreed: []Agreement{}}
	switch {
	case age >= grownUp:
		t.With = "student"
	case age >= teenager:
		t.With = "both"
	}
	last := calendar.Date("")
	for day := range s.Closed {
		if last == "" || day < last {
			last = day
		}
	}
	for _, talk := range s.Talks {
		day := calendar.On(talk.At)
		last = max(last, day)
		t.Agreed = append([]Agreement{{day, talk.With, talk.Agreed, daily(s, day.Add(-Window), day.Add(-1)), after(s, day, today)}}, t.Agreed...)
	}
	if weeks := a.TalkWeeks(); weeks > 0 && last != "" {
		t.Due = last.Add(7 * weeks)
		t.Over = t.Due <= today
	}
	t.About = append(t.About, reason.Of("talk-goals"))
	if t.With == "both" {
		t.About = append(t.About, reason.Of("talk-three-way"))
	}
	t.About = append(t.About, Read(s, today, age).Try...)
	if len(t.Agreed) > 0 && t.Agreed[0].Text != "" {
		t.About = append(t.About, reason.Of("talk-agreed", "text", t.Agreed[0].Text))
	}
	return t
}

// Whom a check-in is with, by age.
const (
	teenager = 13
	grownUp  = 18
)

// daily is how many days a week were practised from one day to another.
func daily(s ladder.Standing, from, to calendar.Date) float64 {
	n := float64(len(Days(s, from, to)))
	return n * 7 / float64(to.Sub(from)+1)
}

func after(s ladder.Standing, day, today calendar.Date) float64 {
	to := min(day.Add(Window), today)
	if to.Sub(day) < 7 {
		return -1
	}
	return daily(s, day.Add(1), to)
}

// Heart says why a student may be about to lose heart, against that student's own past: the days at
// home fall, the words are dull, a piece has stuck for long. Empty where there is no more than one of
// these: one mood is no opinion.
func Heart(s ladder.Standing, today calendar.Date, stuck string) []reason.Reason {
	var out []reason.Reason
	now, before := daily(s, today.Add(1-Window), today), daily(s, today.Add(1-3*Window), today.Add(-Window))
	if before > 0 && now < judgement.HeartFalls*before {
		out = append(out, reason.Of("heart-days", "now", tenth(now), "before", tenth(before)))
	}
	if words, joy := Feelings(s, today); joy == Little {
		out = append(out, reason.Of("heart-dull", "count", strconv.Itoa(words["dull"])))
	}
	if stuck != "" {
		out = append(out, reason.Of("heart-stuck", "title", stuck))
	}
	if len(out) < 2 {
		return nil
	}
	return out
}

func tenth(n float64) string { return strconv.FormatFloat(n, 'f', 1, 64) }
