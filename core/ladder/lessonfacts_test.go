package ladder

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"patientladder/core/calendar"
	"patientladder/core/fact"
)

func TestWhatALessonTells(t *testing.T) {
	s := &story{}
	s.tell(fact.ActivityDone{Activity: "palm-taps", Aim: "left-right", Level: 1, Outcome: "nearly"})
	passed := s.tell(fact.ActivityDone{Activity: "palm-taps", Aim: "left-right", Level: 2, Outcome: "pass"})
	s.tell(fact.Seen{Fault: "claw"})
	s.tell(fact.MoodSeen{Mood: "tired"})
	s.tell(fact.SeatMeasured{Stature: 128})
	pain := s.tell(fact.Pained{Side: "right", Where: "wrist"})
	now := s.standing()
	day := calendar.On(day0)
	assert.Equal(t, ActivityMark{[]calendar.Date{day}, 2, "pass"}, now.Activities["palm-taps"], "a day counts once")
	assert.Equal(t, "pass", now.Probes["left-right"].Outcome, "a passed exit test answers the probe")
	assert.Equal(t, "claw", now.Seen[0].Fault)
	assert.Equal(t, "tired", now.Mood)
	assert.Equal(t, 128.0, now.Body.CM.Stature)
	require.NotNil(t, now.Ache)
	assert.Equal(t, "wrist", now.Ache.Where)

	s.tell(fact.Retracted{Ref: passed})
	assert.Equal(t, "nearly", s.standing().Probes["left-right"].Outcome, "taken back")
	s.tell(fact.PainCleared{})
	assert.Nil(t, s.standing().Ache)
	s.tell(fact.Retracted{Ref: pain})
	assert.Nil(t, s.standing().Ache)
	s.tell(fact.LessonRated{Day: "2026-11-18", Rating: "uphill"})
	s.tell(fact.LessonRated{Day: "2026-11-18", Rating: "flowed"})
	assert.Equal(t, map[calendar.Date]string{"2026-11-18": "flowed"}, s.standing().Rated, "the last word counts")
}

func TestLessonsThatAreNotAsUsual(t *testing.T) {
	s := &story{}
	s.tell(fact.LessonMissed{Day: "2026-11-18", By: "illness", Why: "ill"})
	s.tell(fact.LessonMoved{Day: "2026-11-25", To: "2026-11-27", Start: "15:30"})
	s.tell(fact.LessonExtra{Day: "2026-12-01"})
	s.tell(fact.LessonRemote{Day: "2026-12-02", Remote: true})
	s.tell(fact.BlockTimed{Day: "2026-12-02", Block: "close", Minutes: 4})
	now := s.standing()
	ill, moved := now.Missed["2026-11-18"], now.Missed["2026-11-25"]
	assert.Equal(t, []any{2, "illness", "ill", calendar.Date("")}, []any{len(now.Missed), ill.By, ill.Why, ill.To})
	assert.Equal(t, []any{"", calendar.Date("2026-11-27")}, []any{moved.By, moved.To})
	assert.NotEqual(t, ill.Fact, moved.Fact, "each names the fact that takes it back")
	assert.Equal(t, map[calendar.Date]string{"2026-11-27": "15:30", "2026-12-01": ""}, now.Extra)
	assert.True(t, now.Remote["2026-12-02"])
	assert.Len(t, now.Changes["2026-12-02"], 1)
	s.tell(fact.LessonMoved{Day: "2026-11-27", To: "2026-11-25", Start: "16:00"})
	assert.NotContains(t, s.standing().Missed, calendar.Date("2026-11-25"), "moved back")
}
