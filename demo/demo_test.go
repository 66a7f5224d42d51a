package demo

import (
	"context"
	"encoding/json"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"patientladder/core/ladder"
	"patientladder/core/skill"
	"patientladder/store"
	"patientladder/store/storetest"
	"patientladder/studio"
)

func TestMain(m *testing.M) { storetest.Main(m) }

func seeded(t *testing.T, seed uint64) (*studio.App, studio.Who, *store.Store) {
	ctx := context.Background()
	s := storetest.New(t)
	require.NoError(t, Seed(ctx, s, seed, time.Now))
	app := studio.New(s, time.Now)
	who, err := app.SignIn(ctx, Email, Password, "test")
	require.NoError(t, err)
	return app, who, s
}

func TestTheFerryHouse(t *testing.T) {
	ctx := context.Background()
	app, who, _ := seeded(t, 17)
	day, err := app.Day(ctx, who, "")
	require.NoError(t, err)
	assert.Equal(t, "2026-11-18 15:40", day.Now.Format("2006-01-02 15:04"))
	assert.Equal(t, 11, day.Week)
	for _, st := range day.Students {
		v, err := app.Ladder(ctx, who, st.ID)
		require.NoError(t, err)
		var current, ahead []string
		for _, r := range v.Rungs {
			if r.Strand == "book" && r.State == ladder.Current {
				current = append(current, r.Title)
			}
			if r.Strand == "book" && r.State == ladder.Ahead {
				ahead = append(ahead, r.Title)
			}
			if r.State == ladder.Secure {
				assert.Less(t, r.Weeks, 12.0, "%s: %s took a believable time", st.FirstName, r.Title)
			}
			if r.Item == "harbour-scales" {
				done := 0
				for _, p := range r.Parts {
					if p.Done {
						done++
					}
				}
				assert.Equal(t, 9, done, "Priya is in week 10 of her 12 keys")
			}
		}
		require.Len(t, current, 1, st.FirstName)
		if st.FirstName == "Emil" {
			assert.Equal(t, []string{"Lamp Room"}, current)
			assert.Equal(t, "The Cooper's Jig", ahead[3], "the jig is four rungs away")
		}
		w, err := app.Week(ctx, who, st.ID)
		require.NoError(t, err)
		require.NotNil(t, w.Sheet, "last week's sheet is there")
		if st.FirstName == "Emil" {
			assert.InDelta(t, 0.75, w.Sheet.Share, 0.1, "three quarters upkeep, ear first")
		}
	}
}

// A start that was cut short leaves nothing to sign in to, and the next one
// makes the whole studio.
func TestACutShortStartIsMadeGood(t *testing.T) {
	s := storetest.New(t)
	ctx, cancel := context.WithTimeout(context.Background(), 300*time.Millisecond)
	defer cancel()
	require.Error(t, Seed(ctx, s, 17, time.Now))
	_, err := s.TeacherByEmail(context.Background(), Email)
	require.ErrorIs(t, err, store.ErrNotFound)
	require.NoError(t, Seed(context.Background(), s, 17, time.Now))
	app := studio.New(s, time.Now)
	who, err := app.SignIn(context.Background(), Email, Password, "test")
	require.NoError(t, err)
	day, err := app.Day(context.Background(), who, "")
	require.NoError(t, err)
	assert.Len(t, day.Students, len(students))
}

func TestTheSameSeedGivesTheSameStudio(t *testing.T) {
	ctx := context.Background()
	record := func(seed uint64) string {
		app, who, _ := seeded(t, seed)
		day, err := app.Day(ctx, who, "")
		require.NoError(t, err)
		v, err := app.Record(ctx, who, day.Students[0].ID)
		require.NoError(t, err)
		b, err := json.Marshal(v)
		require.NoError(t, err)
		return string(b)
	}
	assert.Equal(t, record(3), record(3))
	assert.NotEqual(t, record(3), record(4))
}

func TestTheShelfSpeaksOfKnownSkills(t *testing.T) {
	app, who, _ := seeded(t, 1)
	v, err := app.Shelf(context.Background(), who)
	require.NoError(t, err)
	graph := skill.Catalogue()
	for _, it := range v.Items {
		for _, id := range append(append(append([]string{}, it.Brings...), it.Needs...), it.Revisits...) {
			assert.Contains(t, graph, id, it.Title)
		}
		if it.HasScore {
			assert.Positive(t, it.Bars, it.Title)
		}
		assert.NotEmpty(t, it.Points, it.Title)
		assert.False(t, strings.HasSuffix(it.Cue, " "), it.Title)
	}
}
