package upkeep

import (
	"math"
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
	assert.Equal(t, 10, Know(ladder.Standing{Rungs: []ladder.Rung{played}}, nil, day(30)).Silent(r.ID, day(30)), "and ends its silence")

	// in the very same week a hearing in the lesson tells more than the playing at home
	heard := r
	heard.Heard = append(heard.Heard[:3:3], ladder.Hearing{Grade: "fine", At: day(20)})
	lesson, _ := Of(heard)
	tick, _ := Of(played)
	before, _ := Of(r)
	assert.Less(t, tick.Stability, lesson.Stability)
	assert.InDelta(t, math.Sqrt(before.Stability*lesson.Stability), tick.Stability, 1e-9, "half of the way, as lengths of time go")
	assert.Equal(t, before.Difficulty, tick.Difficulty)
}

// However often a piece was played, after half a year of silence it is fading. Common
// practice, no source.
func TestNothingIsKeptForEver(t *testing.T) {
	done := time.Date(2026, 1, 7, 16, 0, 0, 0, time.UTC)
	r := ladder.Rung{ID: "old", Foothold: &done}
	for d := 1; d <= 300; d += 2 {
		r.Heard = append(r.Heard, ladder.Hearing{Grade: "easily", At: done.AddDate(0, 0, d)})
	}
	last := r.Heard[len(r.Heard)-1].At
	recall := func(days int) float64 {
		return Know(ladder.Standing{Rungs: []ladder.Rung{r}}, nil, last.AddDate(0, 0, days)).Recall["old"]
	}
	assert.InDelta(t, 0.9, recall(90), 1e-6)
	assert.Less(t, recall(183), Faded)
	assert.Greater(t, recall(150), Faded)
}

// Days are counted by midnights where the studio is.
func TestDaysBetween(t *testing.T) {
	east := time.FixedZone("east", 2*3600)
	at := func(day, hour int) time.Time { return time.Date(2026, 10, day, hour, 0, 0, 0, east) }
	for _, c := range []struct {
		from, to time.Time
		want     float64
	}{
		{at(7, 16), at(7, 23), 0}, {at(7, 23), at(8, 0), 1}, {at(7, 1), at(7, 3), 0}, {at(7, 0), at(8, 23), 1}, {at(8, 0), at(7, 0), 0},
	} {
		assert.Equal(t, c.want, days(c.from, c.to), "%s to %s", c.from, c.to)
	}
}
