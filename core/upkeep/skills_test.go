package upkeep

import (
	"testing"
	"time"

	"github.com/stretchr/testify/assert"

	"patientladder/core/ladder"
	"patientladder/core/shelf"
	"patientladder/core/skill"
)

func TestHowSkillsStand(t *testing.T) {
	now := time.Date(2026, 11, 18, 16, 0, 0, 0, time.UTC)
	ago := func(days int) *time.Time { d := now.AddDate(0, 0, -days); return &d }
	rung := func(title string, taught, foothold *time.Time, brings, needs []string) ladder.Rung {
		return ladder.Rung{Item: shelf.Item{Title: title, Brings: brings, Needs: needs}, Taught: taught, Foothold: foothold}
	}
	s := ladder.Standing{Rungs: []ladder.Rung{
		rung("Old", ago(200), ago(190), []string{"long-bows", "bow-hold"}, nil),
		rung("Fresh", ago(20), ago(2), []string{"halves"}, []string{"bow-hold"}),
		rung("In hand", ago(7), nil, []string{"slur-three"}, []string{"halves", "halves"}),
		rung("Ahead", nil, nil, []string{"reach-back"}, nil),
	}}
	got := Skills(s, skill.Catalogue(), now)
	var states []string
	for _, m := range got {
		states = append(states, m.Name+": "+string(m.State))
	}
	assert.Equal(t, []string{"Three notes in a bow: learning", "Long straight bows: rusty", "Bow hold: secure", "Two to a beat: secure"}, states,
		"a skill that a fresh piece carries is not rusty; what lies ahead is not listed")
	assert.Equal(t, []Evidence{{"Fresh", "foothold", *ago(2)}, {"In hand", "taught", *ago(7)}}, got[3].Evidence, "newest first, each rung once")
	assert.Empty(t, Skills(ladder.Standing{}, skill.Catalogue(), now))
}
