package demo

import (
	"context"
	"encoding/json"
	"fmt"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"patientladder/core/advice"
	"patientladder/core/ahead"
	"patientladder/core/approach"
	"patientladder/core/calendar"
	"patientladder/core/fact"
	"patientladder/core/instrument"
	"patientladder/core/ladder"
	"patientladder/core/lesson"
	"patientladder/core/mixture"
	"patientladder/core/notation"
	"patientladder/core/shelf"
	"patientladder/core/skill"
	"patientladder/store"
	"patientladder/store/storetest"
	"patientladder/studio"
	"patientladder/studio/account"
	"patientladder/studio/diary"
	"patientladder/studio/library"
	"patientladder/studio/places"
)

func TestMain(m *testing.M) { storetest.Main(m) }

func seeded(t *testing.T) (*studio.App, studio.Who, *store.Store) {
	ctx := context.Background()
	s := storetest.Copy(t, "ferryhouse", func(s *store.Store) error { return Seed(ctx, s, 17, time.Now) })
	app := studio.New(s, time.Now)
	who, err := account.Admit(ctx, app, account.SignIn{Email: Email, Password: Password, From: "test"})
	require.NoError(t, err)
	require.NoError(t, diary.SetClock(ctx, app, who, Now())) // another package may have filled it minutes ago
	return app, who, s
}

// ferryHouse is the demo as it stands at first, by student.
func ferryHouse(t *testing.T, app *studio.App, who studio.Who, s *store.Store) (ladders map[string]places.LadderView, weeks map[string]places.WeekView) {
	ctx := context.Background()
	day, err := diary.Day(ctx, app, who, "")
	require.NoError(t, err)
	assert.Equal(t, "2026-11-18 15:40", day.Now.Format("2006-01-02 15:04"))
	assert.Equal(t, 11, day.Week)
	assert.Len(t, day.Students, 15)
	var facts int
	require.NoError(t, s.DB().QueryRow("SELECT COUNT(*) FROM facts").Scan(&facts))
	assert.True(t, facts >= 6000 && facts <= 10000, "%d facts", facts)
	ladders, weeks = map[string]places.LadderView{}, map[string]places.WeekView{}
	for _, st := range day.Students {
		ladders[st.FirstName], err = places.Ladder(ctx, app, who, st.ID)
		require.NoError(t, err)
		weeks[st.FirstName], err = places.Week(ctx, app, who, st.ID, "", 0)
		require.NoError(t, err)
	}
	return ladders, weeks
}

func titles(v places.LadderView, strand shelf.Strand, state ladder.State) (out []string) {
	for _, r := range v.Rungs {
		if r.Strand == strand && r.State == state {
			out = append(out, r.Title)
		}
	}
	return
}

func suggested(v places.LadderView, code string) *advice.Suggestion {
	for _, s := range v.Suggestions {
		if s.Why.Code == code {
			return &s
		}
	}
	return nil
}

func TestTheDemo(t *testing.T) {
	app, who, s := seeded(t)
	t.Run("the students", func(t *testing.T) { theStudents(t, app, who, s) })
	t.Run("the shelf", func(t *testing.T) { theShelf(t, app, who) })
	t.Run("the questions", func(t *testing.T) { theQuestions(t, app, who, s) })
	t.Run("the pictures", func(t *testing.T) { thePictures(t, app, who, s) })
}

func theStudents(t *testing.T, app *studio.App, who studio.Who, s *store.Store) {
	ladders, weeks := ferryHouse(t, app, who, s)
	for name, v := range ladders {
		if v.Mixture != nil {
			continue
		}
		assert.Len(t, titles(v, shelf.Book, ladder.Current), 1, name)
		for _, r := range v.Rungs {
			if r.State == ladder.Secure {
				assert.Less(t, r.Weeks, 12.0, "%s: %s took a believable time", name, r.Title)
			}
		}
		require.NotNil(t, weeks[name].Sheet, "%s: last week's sheet is there", name)
		assert.InDelta(t, weeks[name].Sheet.Asked, weeks[name].Sheet.Share, 0.1, name)
		assert.LessOrEqual(t, len(v.Suggestions), 12, "%s: not more than can be read", name)
	}

	emil := ladders["Emil"]
	assert.Equal(t, []string{"Lamp Room"}, titles(emil, shelf.Book, ladder.Current))
	assert.Equal(t, "The Cooper's Jig", titles(emil, shelf.Book, ladder.Ahead)[3])
	var reach ahead.HeadStart
	for _, h := range emil.HeadStarts {
		if h.Skill == "reach-back" {
			reach = h
		}
	}
	assert.Equal(t, 4, reach.Rungs, "four rungs away")
	assert.Equal(t, ahead.Running, reach.State)
	assert.LessOrEqual(t, reach.Ready, reach.Due, "ready in time")
	assert.InDelta(t, 0.75, weeks["Emil"].Sheet.Share, 0.08, "three quarters upkeep, ear first")

	for _, r := range ladders["Priya"].Rungs {
		if r.Item == "harbour-scales" {
			assert.Equal(t, []int{9, 12}, []int{parts(r), len(r.Parts)}, "Priya is in week 10 of her 12 keys")
			assert.Equal(t, "Twelve keys, one a week", titles(ladders["Priya"], shelf.Technique, ladder.Current)[0])
		}
	}
	wren := ladders["Wren"]
	require.NotNil(t, wren.Mixture, "Wren has no ladder yet")
	assert.GreaterOrEqual(t, len(wren.Mixture.Next), 2)
	assert.False(t, sign(wren, "steady-beat").Met, "the beat is not steady")
	require.NotNil(t, suggested(wren, "before-the-book"))
	assert.NotNil(t, ladders["Pip"].Mixture)

	stuck := suggested(ladders["Luca"], "past-its-range")
	require.NotNil(t, stuck)
	assert.Equal(t, "ask", stuck.Remedies[0].Do, "he calls it dull, again and again")
	assert.GreaterOrEqual(t, len(stuck.Remedies), 4)

	assert.InDelta(t, 0.75, weeks["Saoirse"].Sheet.Share, 0.06)
	require.NotNil(t, suggested(ladders["Saoirse"], "upkeep-share"))

	walter := ladders["Walter"]
	require.NotNil(t, suggested(walter, "load-kept-low"))
	for _, r := range walter.Rungs {
		if r.State == "proposed" {
			assert.LessOrEqual(t, len(r.Load.New), 2, r.Title)
			assert.Less(t, r.Load.Total, 3.0, r.Title)
		}
	}
	risk := suggested(ladders["Hyacinth"], "date-at-risk")
	require.NotNil(t, risk, "the wedding on 20 March")
	assert.Equal(t, "2027-03-20", risk.Why.Args["day"])
}

func parts(r places.RungView) (done int) {
	for _, p := range r.Parts {
		if p.Done {
			done++
		}
	}
	return
}

func sign(v places.LadderView, skill string) mixture.Sign {
	for _, s := range v.Mixture.Test.Signs {
		if s.Skill == skill {
			return s
		}
	}
	return mixture.Sign{}
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
	require.NoError(t, fill(context.Background(), s, 17, time.Now, students[2:4]))
	app := studio.New(s, time.Now)
	who, err := account.Admit(context.Background(), app, account.SignIn{Email: Email, Password: Password, From: "test"})
	require.NoError(t, err)
	day, err := diary.Day(context.Background(), app, who, "")
	require.NoError(t, err)
	assert.Len(t, day.Students, 2)
}

func TestTheSameSeedGivesTheSameStudio(t *testing.T) {
	ctx := context.Background()
	record := func(seed uint64) string {
		s := storetest.New(t)
		require.NoError(t, fill(ctx, s, seed, time.Now, students[2:4]))
		app := studio.New(s, time.Now)
		who, err := account.Admit(ctx, app, account.SignIn{Email: Email, Password: Password, From: "test"})
		require.NoError(t, err)
		day, err := diary.Day(ctx, app, who, "")
		require.NoError(t, err)
		v, err := places.Record(ctx, app, who, day.Students[0].ID, 0)
		require.NoError(t, err)
		b, err := json.Marshal(v)
		require.NoError(t, err)
		return string(b)
	}
	assert.Equal(t, record(3), record(3))
	assert.NotEqual(t, record(3), record(4))
}

func theShelf(t *testing.T, app *studio.App, who studio.Who) {
	v, err := library.Shelf(context.Background(), app, who, "", 0)
	require.NoError(t, err)
	assert.Empty(t, v.Faults, "every skill is there, every need is brought, no skill is an orphan")
	assert.GreaterOrEqual(t, len(v.Items), 250)
	books, tunes, repertoire := map[string]int{}, 0, 0
	for _, it := range v.Items {
		if it.Strand == shelf.Book {
			books[it.Book]++
			assert.Positive(t, it.Bars, "%s has its notes", it.Title)
			assert.Equal(t, "The Ferry House", it.Composer, it.Title)
		}
		if it.Strand == shelf.Repertoire && it.Composer != "" {
			repertoire++
			if it.HasScore {
				tunes++
			}
		}
		assert.NotEmpty(t, it.Points, it.Title)
		assert.False(t, strings.HasSuffix(it.Cue, " "), it.Title)
		assert.Contains(t, v.Loads, it.ID)
	}
	for book, pieces := range map[string]int{shore: 30, harbour: 30, openWater: 30, bow1: 20, bow2: 20, lowWater: 24} {
		assert.GreaterOrEqual(t, books[book], pieces, book)
	}
	assert.GreaterOrEqual(t, repertoire, 60)
	assert.GreaterOrEqual(t, tunes, 15)
}

// Every shipped score has its demands, and no hand-made tag is left that
// disagrees with one unsettled.
func TestTagsAgreeWithScores(t *testing.T) {
	in, err := ownBooks()
	require.NoError(t, err)
	var items []shelf.Item
	for _, one := range in {
		it := one.Item
		if one.File != nil {
			s, err := notation.Read(one.File.Name, one.File.Data)
			require.NoError(t, err)
			it.Take(shelf.PrintedOf(s, instrument.Shipped.Of(it.Instrument)))
			assert.NotEmpty(t, it.Demanded, it.ID)
		}
		items = append(items, it)
	}
	assert.Empty(t, shelf.Disagreements(skill.Catalogue(), instrument.Shipped, items))
}

// Every student's lesson in a quarter of an hour, half an hour, three quarters and
// an hour: run with -v to read them all.
func TestPlansOfEveryLength(t *testing.T) {
	ctx := context.Background()
	app, who, _ := seeded(t)
	day, err := diary.Day(ctx, app, who, "")
	require.NoError(t, err)
	for _, st := range day.Students {
		for _, minutes := range []int{15, 30, 45, 60} {
			v, err := places.Lesson(ctx, app, who, st.ID, "")
			require.NoError(t, err)
			f := fact.Fact{ID: studio.NewID(), Student: st.ID, At: day.Now, Body: fact.LessonLength{Day: v.Day, Minutes: minutes}}
			require.NoError(t, app.Tell(ctx, who, []fact.Fact{f}))
			v, err = places.Lesson(ctx, app, who, st.ID, "")
			require.NoError(t, err)
			require.NoError(t, app.Tell(ctx, who, []fact.Fact{{ID: studio.NewID(), Student: st.ID, At: day.Now, Body: fact.Retracted{Ref: f.ID}}}))
			var line []string
			sum, kept, play := 0, 0, 0
			for _, b := range v.Plan.Blocks {
				line = append(line, fmt.Sprintf("%d %s %s", b.Minutes, b.Kind, b.Title))
				sum += b.Minutes
				if b.Band == "upkeep" {
					kept += b.Minutes
				}
				if b.Band == "now" {
					play += b.Minutes
				}
			}
			t.Logf("%s %d, %d min %s: %s | left out %d", st.FirstName, st.Age, minutes, v.Plan.Mode, strings.Join(line, " · "), len(v.Plan.LeftOut))
			assert.Equal(t, minutes, sum)
			assert.Equal(t, lesson.SetUp, v.Plan.Blocks[0].Kind)
			assert.Equal(t, lesson.Home, v.Plan.Blocks[len(v.Plan.Blocks)-1].Kind)
			if v.Plan.Mode == "" && minutes >= 30 {
				assert.Positive(t, kept, "%s hears something old", st.FirstName)
				assert.Positive(t, play, "%s works at something", st.FirstName)
			}
		}
	}
}

// The pictures of the record show what the facts hold: counted anew from the facts as they are stored,
// by nothing but their kinds and days.
func thePictures(t *testing.T, app *studio.App, who studio.Who, s *store.Store) {
	students, err := s.In(who.Studio).Students(t.Context())
	require.NoError(t, err)
	for _, st := range students {
		v, err := places.RecordYear(t.Context(), app, who, st.ID, 0)
		require.NoError(t, err)
		facts, err := s.In(who.Studio).Facts(t.Context(), st.ID)
		require.NoError(t, err)
		gone, lessons, heard, granted, days := map[string]bool{}, map[string]map[calendar.Date]bool{}, map[string]int{}, map[string]map[string]bool{}, map[string]map[calendar.Date]bool{}
		for _, f := range facts {
			if r, is := f.Body.(fact.Retracted); is {
				gone[r.Ref] = true
			}
		}
		weekOf := func(d calendar.Date) string {
			y, w := d.Time().ISOWeek()
			return fmt.Sprint(y, w)
		}
		put := func(into map[string]map[calendar.Date]bool, d calendar.Date) {
			if into[weekOf(d)] == nil {
				into[weekOf(d)] = map[calendar.Date]bool{}
			}
			into[weekOf(d)][d] = true
		}
		for _, f := range facts {
			if gone[f.ID] {
				continue
			}
			switch b := f.Body.(type) {
			case fact.LessonClosed:
				put(lessons, b.Day)
			case fact.Heard:
				heard[weekOf(calendar.On(f.At))]++
			case fact.FootholdTried:
				if b.Outcome == "granted" {
					if granted[weekOf(calendar.On(f.At))] == nil {
						granted[weekOf(calendar.On(f.At))] = map[string]bool{}
					}
					granted[weekOf(calendar.On(f.At))][b.Rung+b.Part] = true
				}
			case fact.Practised:
				put(days, b.Day)
			case fact.Ticked:
				put(days, b.Day)
			}
		}
		seen := 0
		for _, w := range v.Weeks {
			at := weekOf(w.From)
			assert.Len(t, w.Lessons, len(lessons[at]), "%s: lessons in the week of %s", st.FirstName, w.From)
			assert.Len(t, w.Heard, heard[at], "%s: heard in the week of %s", st.FirstName, w.From)
			assert.Len(t, w.Footholds, len(granted[at]), "%s: footholds in the week of %s", st.FirstName, w.From)
			assert.Equal(t, len(days[at]), w.Days, "%s: days at home in the week of %s", st.FirstName, w.From)
			seen += len(w.Lessons) + len(w.Heard)
		}
		t.Logf("%s: %+v, minutes %+v", st.FirstName, v.Counts, v.Spent)
		if len(facts) > 100 {
			assert.Positive(t, seen, st.FirstName)
			assert.Positive(t, v.Spent.Lesson.Now+v.Spent.Lesson.Upkeep, st.FirstName)
			assert.GreaterOrEqual(t, v.Spent.Asked.Upkeep, v.Spent.Ticked.Upkeep, st.FirstName)
		}
	}
}

// Each question that is asked moves something for somebody: a question whose answers
// move nothing for any of the students is not worth asking.
func theQuestions(t *testing.T, app *studio.App, who studio.Who, s *store.Store) {
	students, err := s.In(who.Studio).Students(t.Context())
	require.NoError(t, err)
	asked, acts := map[approach.Question]bool{}, map[approach.Question]bool{}
	for _, st := range students {
		v, err := places.Approach(t.Context(), app, who, st.ID)
		require.NoError(t, err)
		for _, row := range v.Rows {
			asked[row.Key] = true
			for _, school := range row.Schools {
				if acts[row.Key] || school.Key == v.Student.Approach[row.Key] {
					continue
				}
				effects, err := places.Effects(t.Context(), app, who, st.ID, string(row.Key), string(school.Key))
				require.NoError(t, err)
				acts[row.Key] = effects.Effects[0].Code != "effect-none"
			}
		}
	}
	assert.GreaterOrEqual(t, len(asked), 16)
	for question := range asked {
		assert.True(t, acts[question], "%s moves nothing", question)
	}
}
