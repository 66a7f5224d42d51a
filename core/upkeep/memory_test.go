package upkeep

import (
	"testing"
	"time"

	"github.com/stretchr/testify/assert"

	"patientladder/core/ladder"
	"patientladder/core/memory"
)

func TestMemoryOfARung(t *testing.T) {
	day := func(d int) time.Time { return time.Date(2026, 10, d, 16, 30, 0, 0, time.UTC) }
	done := day(7)
	r := ladder.Rung{Foothold: &done, Heard: []ladder.Hearing{{Grade: "rough", At: day(1)}, {Grade: "easily", At: day(14)}, {Grade: "fine", At: day(14).Add(time.Minute)}}}
	m, last := Of(r)
	want := memory.Memory{}.Heard(0, memory.Fine).Heard(7, memory.Easily).Heard(0, memory.Fine)
	assert.Equal(t, want, m, "what was heard before the foothold does not count")
	assert.Equal(t, day(14).Add(time.Minute), last)
	known := func(at int) float64 { return Know(ladder.Standing{Rungs: []ladder.Rung{r}}, nil, day(at)).Recall[r.ID] }
	assert.Less(t, known(30), known(15))
	played := r
	played.Home = []time.Time{day(20)}
	assert.Greater(t, Know(ladder.Standing{Rungs: []ladder.Rung{played}}, nil, day(30)).Recall[r.ID], known(30), "a day it was played at home counts")
}
