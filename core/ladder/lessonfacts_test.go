package ladder

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"patientladder/core/calendar"
)

func TestWhatALessonTells(t *testing.T) {
	s := &story{}
	s.tell(Fact{Kind: ActivityDone, Text: "palm-taps", Point: "left-right", Count: 1, Outcome: "nearly"})
	passed := s.tell(Fact{Kind: ActivityDone, Text: "palm-taps", Point: "left-right", Count: 2, Outcome: "pass"})
	s.tell(Fact{Kind: Seen, Text: "claw"})
	s.tell(Fact{Kind: MoodSeen, Outcome: "tired"})
	s.tell(Fact{Kind: SeatMeasured, Measures: map[string]float64{"stature": 128}})
	pain := s.tell(Fact{Kind: Pained, Outcome: "right", Text: "wrist"})
	now := s.standing()
	day := calendar.On(day0)
	assert.Equal(t, ActivityMark{[]calendar.Date{day}, 2, "pass"}, now.Activities["palm-taps"], "a day counts once")
	assert.Equal(t, "pass", now.Probes["left-right"].Outcome, "a passed exit test answers the probe")
	assert.Equal(t, "claw", now.Seen[0].Fault)
	assert.Equal(t, "tired", now.Mood)
	assert.Equal(t, 128.0, now.Body.CM["stature"])
	require.NotNil(t, now.Ache)
	assert.Equal(t, "wrist", now.Ache.Where)

	s.tell(Fact{Kind: Retracted, Ref: passed})
	assert.Equal(t, "nearly", s.standing().Probes["left-right"].Outcome, "taken back")
	s.tell(Fact{Kind: PainCleared})
	assert.Nil(t, s.standing().Ache)
	s.tell(Fact{Kind: Retracted, Ref: pain})
	assert.Nil(t, s.standing().Ache)
}

func TestLessonsThatAreNotAsUsual(t *testing.T) {
	s := &story{}
	s.tell(Fact{Kind: LessonMissed, Day: "2026-11-18", Text: "ill"})
	s.tell(Fact{Kind: LessonMoved, Day: "2026-11-25", To: "2026-11-27", Text: "15:30"})
	s.tell(Fact{Kind: LessonExtra, Day: "2026-12-01"})
	s.tell(Fact{Kind: LessonRemote, Day: "2026-12-02", Outcome: "yes"})
	s.tell(Fact{Kind: PlanChanged, Day: "2026-12-02", Text: "close", Outcome: "minutes", Minutes: 4})
	now := s.standing()
	assert.Equal(t, map[calendar.Date]string{"2026-11-18": "ill", "2026-11-25": ""}, now.Missed)
	assert.Equal(t, map[calendar.Date]string{"2026-11-27": "15:30", "2026-12-01": ""}, now.Extra)
	assert.True(t, now.Remote["2026-12-02"])
	assert.Len(t, now.Changes["2026-12-02"], 1)
	s.tell(Fact{Kind: LessonMoved, Day: "2026-11-27", To: "2026-11-25", Text: "16:00"})
	assert.NotContains(t, s.standing().Missed, calendar.Date("2026-11-25"), "moved back")
}

func TestFactsOfALessonAreChecked(t *testing.T) {
	for says, f := range map[string]Fact{
		"not one of right, left, both": {Kind: Pained, Outcome: "head"},
		"not one of bright":            {Kind: MoodSeen, Outcome: "purple"},
		"not one of minutes, swap":     {Kind: PlanChanged, Day: "2026-11-18", Text: "close", Outcome: "burn"},
		"is not measured":              {Kind: SeatMeasured, Measures: map[string]float64{"shoe": 30}},
		"out of range":                 {Kind: SeatMeasured, Measures: map[string]float64{"stature": 900}},
		"needs its measures":           {Kind: SeatMeasured},
		"needs its to":                 {Kind: LessonMoved, Day: "2026-11-18"},
		"is not a day such as":         {Kind: LessonMoved, Day: "2026-11-18", To: "tomorrow"},
		"is not a time of day such as": {Kind: LessonMoved, Day: "2026-11-18", To: "2026-11-19", Text: "noon"},
		"not one of pass, nearly":      {Kind: ActivityDone, Text: "palm-taps", Outcome: "fine"},
	} {
		f.ID, f.At = "01FACT00000000000000000001", day0
		assert.ErrorContains(t, f.Check(), says)
	}
}
